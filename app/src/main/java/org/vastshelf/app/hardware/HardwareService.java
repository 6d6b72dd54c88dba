package org.vastshelf.app.hardware;

import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import org.vastshelf.app.clock.ShelfClock;
import org.vastshelf.app.store.EstateStore;
import org.vastshelf.app.store.UsageStore;
import org.vastshelf.core.estate.Drive;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.Pool;
import org.vastshelf.core.estate.Rescan;
import org.vastshelf.core.failure.Mishap;
import org.vastshelf.core.failure.Mishaps;
import org.vastshelf.core.failure.Rebuilds;
import org.vastshelf.core.failure.Scrubs;

/** What happens to hardware by itself: mishaps, spares that take over, rebuilds that get on. */
@Service
public class HardwareService {

    private static final int MOST_FILES = 5;

    private final EstateStore estates;
    private final UsageStore usage;
    private final HardwareEvents events;
    private final Rescan rescan;
    private final DamagedFiles damaged;
    private final ShelfClock clock;

    HardwareService(
            EstateStore estates,
            UsageStore usage,
            HardwareEvents events,
            Rescan rescan,
            DamagedFiles damaged,
            ShelfClock clock) {
        this.estates = estates;
        this.usage = usage;
        this.events = events;
        this.rescan = rescan;
        this.damaged = damaged;
        this.clock = clock;
    }

    /** Lets something happen, and says what came of it. */
    @Transactional
    public List<String> happen(Mishap mishap) {
        Instant now = clock.instant();
        List<String> told = new ArrayList<>();
        estates.change(estate -> {
            Estate upToDate = advanced(estate, now);
            Mishaps.Outcome outcome = Mishaps.apply(upToDate, usage.load(), mishap, now);
            told.clear();
            told.addAll(outcome.told());
            return outcome.estate();
        });
        events.add(now, server(mishap), told);
        return told;
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
        };
    }

    private static String prefix(String drive) {
        return drive.replaceFirst("/.*", "");
    }

    /** Brings rebuilds up to now; what a jump of the clock passed is done in its order. */
    @Scheduled(fixedDelay = 1_000)
    @Transactional
    public void catchUp() {
        Estate before = estates.load();
        Instant now = clock.instant();
        if (before.rebuilds().isEmpty() && before.scrubs().isEmpty() && !someWait(before, now)) {
            return;
        }
        estates.change(estate -> {
            Estate next = advanced(estate, now);
            Mishaps.Outcome taken = Mishaps.takeOverWaiting(next, usage.load(), now);
            if (!taken.told().isEmpty()) {
                events.add(now, "", taken.told());
            }
            return taken.estate();
        });
    }

    private boolean someWait(Estate estate, Instant now) {
        return !Mishaps.takeOverWaiting(estate, usage.load(), now).told().isEmpty();
    }

    private Estate advanced(Estate estate, Instant now) {
        Rebuilds.Advanced advanced = Rebuilds.advance(estate, now);
        advanced.finished()
                .forEach(done -> events.add(
                        done.at(),
                        prefix(done.rebuild().target()),
                        List.of("Rebuild of " + done.rebuild().target() + " is done; pool "
                                + done.rebuild().pool() + " has its protection back")));
        Scrubs.Advanced scrubbed = Scrubs.advance(advanced.estate(), usage.load(), now);
        scrubbed.finished().forEach(done -> events.add(done.at(), "", List.of(report(scrubbed.estate(), done))));
        return scrubbed.estate();
    }

    private String report(Estate estate, Scrubs.Finished done) {
        String text = "Scrub of pool " + done.pool() + " is done: " + done.healed() + " damaged blocks healed";
        List<DamagedFiles.Finding> findings = damaged.keep(estate, done.pool(), done.unhealed());
        if (findings.isEmpty()) {
            return text;
        }
        List<String> owners = findings.stream()
                .map(DamagedFiles.Finding::belongsTo)
                .filter(owner -> !owner.equals(DamagedFiles.NO_FILE))
                .distinct()
                .toList();
        String named = String.join(", ", owners.stream().limit(MOST_FILES).toList());
        String what = named.isEmpty() ? DamagedFiles.NO_FILE : named;
        return text + ", " + findings.size() + " not: too little was left of their rows. They belong to " + what
                + (owners.size() > MOST_FILES ? " and " + (owners.size() - MOST_FILES) + " more" : "");
    }

    /** Begins a scrub. */
    @Transactional
    public void scrub(String pool) {
        estates.change(estate -> Scrubs.begin(estate, pool, clock.instant()));
    }

    /** Asks a file server what it sees. */
    @Transactional
    public void rescan(String server) {
        estates.change(estate -> Rescan.merged(estate, server, rescan.of(server)));
    }

    /** Turns the locate light of a drive on or off. */
    @Transactional
    public void locate(String key, boolean on) {
        estates.change(estate -> {
            Drive drive = Optional.ofNullable(estate.drives().get(key))
                    .orElseThrow(() -> new IllegalArgumentException("There is no drive '" + key + "'"));
            return estate.withDrives(List.of(drive.withLocating(on)));
        });
    }

    /** Pools with drives, for the bench. */
    public List<Pool> poolsWithDrives() {
        return estates.load().pools().values().stream()
                .filter(p -> !p.isReservation())
                .toList();
    }
}
