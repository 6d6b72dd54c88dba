package org.vastshelf.app.hardware;

import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.springframework.stereotype.Service;
import org.vastshelf.app.clock.ShelfClock;
import org.vastshelf.app.store.EstateStore;
import org.vastshelf.app.store.Transactions;
import org.vastshelf.app.store.UsageStore;
import org.vastshelf.app.trace.Deeds;
import org.vastshelf.core.estate.Arrival;
import org.vastshelf.core.estate.Drive;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.Pool;
import org.vastshelf.core.estate.Rescan;
import org.vastshelf.core.estate.Usage;
import org.vastshelf.core.failure.Mishap;
import org.vastshelf.core.failure.Mishaps;
import org.vastshelf.core.failure.PoolBlocks;
import org.vastshelf.core.failure.Rebuilds;
import org.vastshelf.core.failure.Scrubs;
import org.vastshelf.core.failure.SpareDuty;
import org.vastshelf.core.failure.WearOut;

/** What happens to hardware by itself: mishaps, spares that take over, rebuilds that get on. */
@Service
public class HardwareService {

    private static final int MOST_FILES = 5;

    private final EstateStore estates;
    private final UsageStore usage;
    private final HardwareEventStore events;
    private final Rescan rescan;
    private final DamagedFiles damaged;
    private final ShelfClock clock;
    private final Transactions transactions;
    private final Deeds deeds;

    HardwareService(
            EstateStore estates,
            UsageStore usage,
            HardwareEventStore events,
            Rescan rescan,
            DamagedFiles damaged,
            ShelfClock clock,
            Transactions transactions,
            Deeds deeds) {
        this.transactions = transactions;
        this.deeds = deeds;
        this.estates = estates;
        this.usage = usage;
        this.events = events;
        this.rescan = rescan;
        this.damaged = damaged;
        this.clock = clock;
    }

    /** Lets something happen on the bench, and says what came of it. */
    public List<String> happen(Mishap mishap, String who) {
        return transactions.run(() -> {
            Instant now = clock.instant();
            List<String> told = new ArrayList<>();
            estates.happen((estate, held) -> {
                Mishaps.Outcome outcome = Mishaps.apply(advanced(estate, held, now), held, mishap, now);
                told.addAll(outcome.told());
                return outcome.estate();
            });
            events.add(now, server(mishap), told);
            deeds.done(who, Deeds.Kind.BENCH, "/bench", mishap.title());
            return told;
        });
    }

    private static String server(Mishap mishap) {
        return switch (mishap) {
            case Mishap.DriveFails m -> prefix(m.drive());
            case Mishap.DriveAils m -> prefix(m.drive());
            case Mishap.DrivePulled m -> prefix(m.drive());
            case Mishap.BlocksDamaged m -> prefix(m.drive());
            case Mishap.DriveBrought m -> prefix(m.bay());
            case Mishap.PowerCut m -> m.server();
            case Mishap.PowerBack m -> m.server();
            case Mishap.ClientLoad m -> m.server();
            case Mishap.LinkChanges m -> "";
        };
    }

    private static String prefix(String drive) {
        return drive.replaceFirst("/.*", "");
    }

    /** Brings drives, rebuilds and scrubs up to a time at which something of theirs begins or ends. */
    void catchUp(Instant at) {
        if (isDue(estates.load(), usage.load(), at)) {
            estates.happen((estate, held) -> {
                Mishaps.Outcome taken = SpareDuty.takeOverWaiting(advanced(estate, held, at), held, at);
                if (!taken.told().isEmpty()) {
                    events.add(at, "", taken.told());
                }
                return taken.estate();
            });
        }
    }

    /** Begins a scrub that a rule wants. */
    void scrubDue(String pool, Instant at) {
        estates.happen((estate, held) -> Scrubs.due(estate, pool, at));
    }

    private static boolean isDue(Estate estate, Usage held, Instant now) {
        return !WearOut.advance(estate, held, now).told().isEmpty()
                || !Rebuilds.advance(estate, now).finished().isEmpty()
                || !Scrubs.advance(estate, held, now).estate().scrubs().equals(estate.scrubs())
                || !SpareDuty.takeOverWaiting(estate, held, now).told().isEmpty();
    }

    private Estate advanced(Estate estate, Usage held, Instant now) {
        Mishaps.Outcome worn = WearOut.advance(estate, held, now);
        if (!worn.told().isEmpty()) {
            events.add(now, "", worn.told());
        }
        Rebuilds.Advanced advanced = Rebuilds.advance(worn.estate(), now);
        advanced.finished()
                .forEach(done ->
                        events.add(done.at(), prefix(done.rebuild().target()), List.of(done.text(advanced.estate()))));
        Scrubs.Advanced scrubbed = Scrubs.advance(advanced.estate(), held, now);
        scrubbed.finished().forEach(done -> events.add(done.at(), "", List.of(report(scrubbed.estate(), done))));
        return scrubbed.estate();
    }

    /** Names the files under blocks that a rebuild could not bring back. */
    private String lost(Estate estate, Usage held, String pool) {
        return named(damaged.keep(
                estate,
                pool,
                new PoolBlocks(estate, held, estate.pools().get(pool))
                        .scrubbed()
                        .unhealed()));
    }

    private String report(Estate estate, Scrubs.Finished done) {
        String text = "Scrub of pool " + done.pool() + " is done: " + done.healed() + " damaged blocks healed";
        List<DamagedFiles.Finding> findings = damaged.keep(estate, done.pool(), done.unhealed());
        if (findings.isEmpty()) {
            return text;
        }
        return text + ", " + findings.size() + " not: too little was left of their rows. " + named(findings);
    }

    private static String named(List<DamagedFiles.Finding> findings) {
        List<String> owners = findings.stream()
                .map(DamagedFiles.Finding::belongsTo)
                .filter(owner -> !owner.equals(DamagedFiles.NO_FILE))
                .distinct()
                .toList();
        String named = String.join(", ", owners.stream().limit(MOST_FILES).toList());
        return "They belong to " + (named.isEmpty() ? DamagedFiles.NO_FILE : named)
                + (owners.size() > MOST_FILES ? " and " + (owners.size() - MOST_FILES) + " more" : "");
    }

    /** Begins a scrub. */
    public void scrub(String pool, String who) {
        transactions.run(() -> {
            estates.happen((estate, held) -> Scrubs.begin(estate, pool, clock.instant()));
            deeds.done(who, Deeds.Kind.SCRUB, "/pools/" + pool, "scrub begun by hand");
        });
    }

    /** Asks a file server what it sees. */
    public void rescan(String server, String who) {
        transactions.run(() -> {
            if (!estates.load().servers().containsKey(server)) {
                throw new IllegalArgumentException("There is no file server '" + server + "'");
            }
            Instant now = clock.instant();
            List<Arrival> seen =
                    rescan.of(server).stream().map(a -> a.counted(now)).toList();
            estates.happen((estate, held) -> Rescan.merged(estate, server, seen));
            deeds.done(who, Deeds.Kind.RESCAN, "/servers/" + server, "rescan");
        });
    }

    /** Turns the locate light of a drive on or off. */
    public void locate(String key, boolean on) {
        estates.happen((estate, held) -> {
            Drive drive = Optional.ofNullable(estate.drives().get(key))
                    .orElseThrow(() -> new IllegalArgumentException("There is no drive '" + key + "'"));
            return estate.withDrives(List.of(drive.withLocating(on)));
        });
    }

    /** The estate with rebuilds and the counters of drives as they are by now. */
    public Estate seenNow() {
        return Rebuilds.seen(estates.load(), clock.instant());
    }

    /** Pools with drives, for the bench. */
    public List<Pool> poolsWithDrives() {
        return estates.load().pools().values().stream()
                .filter(p -> !p.isReservation())
                .toList();
    }
}
