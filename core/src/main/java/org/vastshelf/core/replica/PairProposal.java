package org.vastshelf.core.replica;

import java.util.Comparator;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.FileServer;
import org.vastshelf.core.estate.Kinds;
import org.vastshelf.core.estate.Names;
import org.vastshelf.core.estate.Pool;
import org.vastshelf.core.estate.ProtectionGoal.Loss;
import org.vastshelf.core.estate.ReplicaPair;
import org.vastshelf.core.estate.Usage;
import org.vastshelf.core.estate.Volume;
import org.vastshelf.core.ledger.PoolRoom;

/**
 * A pair that would outlive a loss: by interval, to the pool that is reached fastest among those that outlive it and have
 * room for what the volume holds. Its name and address for clients are ones that nobody in the estate has.
 *
 * @param pool where the copy would lie
 */
public record PairProposal(ReplicaPair pair, String pool) {

    private static final int LAST_OF_NET = 254;
    private static final int PLACES = 4;

    /**
     * @param loss of a volume, a file server or a site
     * @param loseMinutes what may be lost; what changes in half of it is sent at a time, since sending takes time too
     * @return empty when no pool is left, or the server has no address to go by
     */
    public static Optional<PairProposal> of(Estate estate, Usage usage, Volume volume, Loss loss, int loseMinutes) {
        Pool from = estate.pools().get(volume.pool());
        FileServer server = estate.servers().get(from.server());
        return estate.pools().values().stream()
                .filter(to -> outlives(estate, server, to, loss))
                .filter(to -> PoolRoom.of(estate, to)
                                .free(usage)
                                .compareTo(usage.of(volume.name()).live())
                        > 0)
                .map(to -> PairRoute.between(estate, from, to))
                .filter(route -> route.obstacle().isEmpty())
                .max(Comparator.comparingDouble(PairRoute::bytesPerSecond)
                        .thenComparing(route -> route.to().name(), Comparator.reverseOrder()))
                .flatMap(route -> address(estate, server)
                        .map(address -> new PairProposal(
                                pair(estate, volume.name(), host(estate, server, volume), address, loseMinutes),
                                route.to().name())));
    }

    private static boolean outlives(Estate estate, FileServer server, Pool to, Loss loss) {
        boolean elsewhere = !to.server().equals(server.name());
        return loss == Loss.SITE ? !estate.servers().get(to.server()).site().equals(server.site()) : elsewhere;
    }

    private static ReplicaPair pair(Estate estate, String volume, String host, String address, int loseMinutes) {
        int interval = Math.clamp(loseMinutes / 2, ReplicaPair.SHORTEST, ReplicaPair.LONGEST);
        String copy = free("copy-of-" + volume, estate.volumes().keySet());
        return new ReplicaPair(
                volume, copy, ReplicaPair.Mode.BY_INTERVAL, interval, false, host, address, false, false);
    }

    /** In the domain of the server's name. */
    private static String host(Estate estate, FileServer server, Volume volume) {
        int dot = server.host().indexOf('.');
        Set<String> taken = Stream.concat(
                        estate.servers().values().stream().map(FileServer::host),
                        estate.all(Kinds.PAIR).values().stream().map(ReplicaPair::host))
                .collect(Collectors.toSet());
        String domain = dot < 0 ? "" : server.host().substring(dot);
        String name = free(
                volume.name().replace('_', '-'),
                taken.stream()
                        .filter(host -> host.endsWith(domain))
                        .map(host -> host.substring(0, host.length() - domain.length()))
                        .collect(Collectors.toSet()));
        return name + domain;
    }

    /** The first one behind the server's, in its net of 24 bits. */
    private static Optional<String> address(Estate estate, FileServer server) {
        int dot = server.address().lastIndexOf('.');
        if (dot < 0) {
            return Optional.empty();
        }
        String net = server.address().substring(0, dot + 1);
        Set<String> taken = Stream.concat(
                        estate.servers().values().stream().map(FileServer::address),
                        estate.all(Kinds.PAIR).values().stream().map(ReplicaPair::address))
                .collect(Collectors.toSet());
        return IntStream.rangeClosed(Integer.parseInt(server.address().substring(dot + 1)) + 1, LAST_OF_NET)
                .mapToObj(last -> net + last)
                .filter(address -> !taken.contains(address))
                .findFirst();
    }

    /** The name, shortened to where a number fits behind it that sets it apart. */
    private static String free(String name, Set<String> taken) {
        String plain = name.substring(0, Math.min(name.length(), Names.LONGEST - PLACES));
        return Stream.concat(Stream.of(plain), IntStream.iterate(2, i -> i + 1).mapToObj(i -> plain + "-" + i))
                .filter(free -> !taken.contains(free))
                .findFirst()
                .orElseThrow();
    }
}
