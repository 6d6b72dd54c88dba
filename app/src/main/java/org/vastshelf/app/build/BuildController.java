package org.vastshelf.app.build;

import java.util.Comparator;
import java.util.List;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.ModelAttribute;
import org.springframework.web.bind.annotation.RequestParam;
import org.vastshelf.app.hardware.HardwareService;
import org.vastshelf.app.kit.LedgerPicture;
import org.vastshelf.app.kit.NotFound;
import org.vastshelf.app.kit.Page;
import org.vastshelf.app.kit.Scope;
import org.vastshelf.app.orders.OrderService;
import org.vastshelf.app.store.EstateStore;
import org.vastshelf.app.store.UsageStore;
import org.vastshelf.core.estate.Arrival;
import org.vastshelf.core.estate.Drive;
import org.vastshelf.core.estate.DriveState;
import org.vastshelf.core.estate.Enclosure;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.FileServer;
import org.vastshelf.core.estate.Pool;
import org.vastshelf.core.estate.Usage;
import org.vastshelf.core.estate.Volume;
import org.vastshelf.core.failure.PoolState;
import org.vastshelf.core.ledger.ByteLedger;
import org.vastshelf.core.ledger.Ledgers;
import org.vastshelf.core.unit.Bytes;

/** Bays, pools and volumes of the part of the estate in scope. */
@Page
class BuildController {

    private static final int BAR = 780;
    private static final int MOST_FRONTS = 3;
    private static final int MOST_VOLUMES = 100;

    private final EstateStore estates;
    private final UsageStore usage;
    private final OrderService orders;
    private final HardwareService hardware;

    BuildController(EstateStore estates, UsageStore usage, OrderService orders, HardwareService hardware) {
        this.hardware = hardware;
        this.estates = estates;
        this.usage = usage;
        this.orders = orders;
    }

    /**
     * A file server with its fronts and pools.
     *
     * @param folded whether its fronts are only fetched when somebody opens them, since there are many
     */
    record ServerView(
            FileServer server,
            List<Enclosure> enclosures,
            boolean folded,
            List<BayPicture> fronts,
            List<Arrival> arrivals,
            long unclaimed,
            List<PoolLine> pools) {}

    record PoolLine(Pool pool, PoolState.Standing standing, ByteLedger ledger, Bytes usable, long volumes) {
        static PoolLine of(Estate estate, Usage held, Pool pool) {
            return new PoolLine(
                    pool,
                    PoolState.of(estate, pool).standing(),
                    Ledgers.ofPool(estate, held, pool),
                    Ledgers.usable(estate, pool),
                    estate.volumesOn(pool.name()).count());
        }
    }

    record VolumeLine(Volume volume, Bytes used, int bar) {}

    @GetMapping("/build")
    String build(@ModelAttribute("scope") Scope scope, Model model) {
        Estate estate = hardware.seenNow();
        Usage held = usage.load();
        model.addAttribute(
                "servers",
                estate.servers().values().stream()
                        .filter(s -> scope.server().isEmpty() || scope.server().equals(s.name()))
                        .map(s -> server(estate, held, s, scope))
                        .toList());
        ByteLedger ledger = ledger(estate, held, scope);
        model.addAttribute("ledger", LedgerPicture.draw(ledger, ledger.label(), BAR));
        model.addAttribute("managed", estate.servers().values().stream().anyMatch(FileServer::managed));
        volumes(estate, held, scope, "", model);
        return "build";
    }

    /** The front of one enclosure, for whoever unfolds it. */
    @GetMapping("/build/fronts")
    String fronts(@RequestParam String server, @RequestParam int number, Model model) {
        Estate estate = hardware.seenNow();
        if (!estate.servers().containsKey(server)) {
            throw new NotFound("file server", server);
        }
        model.addAttribute("server", server);
        model.addAttribute(
                "fronts",
                BayPicture.of(estate, server).stream()
                        .filter(front -> front.enclosure().number() == number)
                        .toList());
        return "build :: fronts";
    }

    /** Volumes whose name or pool holds a text. */
    @GetMapping("/build/volumes")
    String find(@ModelAttribute("scope") Scope scope, @RequestParam(defaultValue = "") String q, Model model) {
        volumes(estates.load(), usage.load(), scope, q.strip(), model);
        return "build :: volumes";
    }

    private static void volumes(Estate estate, Usage held, Scope scope, String text, Model model) {
        List<Volume> found = estate.volumes().values().stream()
                .filter(v -> scope.covers(estate, v))
                .filter(v -> v.name().contains(text) || v.pool().contains(text))
                .toList();
        model.addAttribute(
                "volumes",
                found.stream().limit(MOST_VOLUMES).map(v -> line(held, v)).toList());
        model.addAttribute("more", Math.max(0, found.size() - MOST_VOLUMES));
    }

    private static ByteLedger ledger(Estate estate, Usage held, Scope scope) {
        if (!scope.pool().isEmpty()) {
            return Ledgers.ofPool(estate, held, estate.pools().get(scope.pool()));
        }
        return scope.server().isEmpty()
                ? Ledgers.ofEstate(estate, held)
                : Ledgers.ofServer(estate, held, scope.server());
    }

    static VolumeLine line(Usage held, Volume volume) {
        Bytes used = held.of(volume.name()).used();
        return new VolumeLine(volume, used, (int) Math.min(80, Math.round(used.shareOf(volume.size()) * 80)));
    }

    private static ServerView server(Estate estate, Usage held, FileServer server, Scope scope) {
        List<PoolLine> pools = estate.pools().values().stream()
                .filter(p -> p.server().equals(server.name()) && scope.covers(p))
                .map(p -> PoolLine.of(estate, held, p))
                .toList();
        long unclaimed = unclaimed(estate, server.name()).size();
        List<Arrival> arrivals = estate.arrivals().values().stream()
                .filter(a -> a.enclosure().server().equals(server.name()))
                .toList();
        List<Enclosure> enclosures = estate.enclosures().values().stream()
                .filter(e -> e.server().equals(server.name()))
                .sorted(Comparator.comparingInt(Enclosure::number))
                .toList();
        boolean folded = enclosures.size() > MOST_FRONTS;
        return new ServerView(
                server,
                enclosures,
                folded,
                folded ? List.of() : BayPicture.of(estate, server.name()),
                arrivals,
                unclaimed,
                pools);
    }

    static List<Drive> unclaimed(Estate estate, String server) {
        return estate.drivesOf(server)
                .filter(d -> d.state() == DriveState.UNCLAIMED)
                .sorted(Comparator.comparing(Drive::enclosure).thenComparing(Drive::bay))
                .toList();
    }
}
