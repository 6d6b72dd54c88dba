package org.vastshelf.app.tier;

import java.math.BigDecimal;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalLong;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.atomic.AtomicLong;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Component;
import org.vastshelf.app.away.Departing;
import org.vastshelf.app.away.Departing.Found;
import org.vastshelf.app.away.Unfinished;
import org.vastshelf.app.catalogue.CatalogueStore;
import org.vastshelf.app.clock.ShelfClock;
import org.vastshelf.app.content.FarAway;
import org.vastshelf.app.store.EstateStore;
import org.vastshelf.app.store.LeaseStore;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.Kinds;
import org.vastshelf.core.estate.SharePlace;
import org.vastshelf.core.estate.TieringRule;
import org.vastshelf.core.estate.Volume;
import org.vastshelf.core.tier.FirstRule;
import org.vastshelf.core.tier.KeepBelow;
import org.vastshelf.core.unit.Bytes;
import org.vastshelf.core.unit.ShortText;

/**
 * Carries runs of tiering rules out, one node at each run: share by share, the coldest files first, some at the same time
 * where all that are old enough leave. A store that is away
 * is asked again after a while, longer each time; a file that can't leave stays, and is counted.
 */
@Component
class TierRunner {

    private static final Logger LOG = LoggerFactory.getLogger(TierRunner.class);
    private static final Duration LEASE = Duration.ofSeconds(15);
    private static final Duration LONGEST_PAUSE = Duration.ofMinutes(5);
    private static final int MOST_DOUBLINGS = 9;
    private static final int LONGEST_PROBLEM = 1_000;
    private static final int AT_ONCE = 2;
    /** So many files of a run are on their way at once: a store takes its time for each of the requests of a file. */
    private static final int LANES = 4;

    private static final int DAY = 86_400;

    private final TierRunStore runs;
    private final DepartureStore departures;
    private final Departing departing;
    private final Unfinished unfinished;
    private final CatalogueStore catalogues;
    private final EstateStore estates;
    private final UsedRoom used;
    private final LeaseStore leases;
    private final ShelfClock clock;
    private final Set<Long> running = ConcurrentHashMap.newKeySet();

    TierRunner(
            TierRunStore runs,
            DepartureStore departures,
            Departing departing,
            Unfinished unfinished,
            CatalogueStore catalogues,
            EstateStore estates,
            UsedRoom used,
            LeaseStore leases,
            ShelfClock clock) {
        this.runs = runs;
        this.departures = departures;
        this.departing = departing;
        this.unfinished = unfinished;
        this.catalogues = catalogues;
        this.estates = estates;
        this.used = used;
        this.leases = leases;
        this.clock = clock;
    }

    /** Why a run comes no further for now, or not at all. */
    private static final class Halt extends RuntimeException {
        private final transient Optional<TierRun.State> end;

        Halt(Optional<TierRun.State> end, String why) {
            super(why);
            this.end = end;
        }
    }

    @Scheduled(fixedDelay = 1_000)
    void watch() {
        // One file may take longer than a lease lasts.
        running.forEach(run -> leases.take(lease(run), LEASE));
        clear();
        Instant now = clock.real();
        for (TierRun run : runs.running()) {
            boolean rests = run.again().filter(now::isBefore).isPresent();
            if (!rests
                    && running.size() < AT_ONCE
                    && !running.contains(run.id())
                    && leases.take(lease(run.id()), LEASE)) {
                running.add(run.id());
                Thread.ofPlatform().name("tiering " + run.id()).daemon().start(() -> carryOut(run));
            }
        }
    }

    private static String lease(long run) {
        return "tiering " + run;
    }

    /** What was left behind by a node that is gone, of runs with which nobody goes on. */
    private void clear() {
        for (long run : unfinished.runs()) {
            if (!running.contains(run) && leases.take(lease(run), LEASE)) {
                unfinished.giveUp(run);
                leases.giveBack(lease(run));
            }
        }
    }

    private void carryOut(TierRun run) {
        try {
            new Run(run).through();
            runs.end(run.id(), TierRun.State.DONE, "", clock.instant());
        } catch (Halt halt) {
            halt.end.ifPresent(state -> runs.end(run.id(), state, String.valueOf(halt.getMessage()), clock.instant()));
        } catch (FarAway away) {
            later(run, away);
        } catch (RuntimeException unforeseen) {
            LOG.error("run {} of {} failed", run.id(), run.rule(), unforeseen);
            later(run, unforeseen);
        } finally {
            if (leases.take(lease(run.id()), LEASE)) {
                unfinished.giveUp(run.id());
            }
            running.remove(run.id());
            leases.giveBack(lease(run.id()));
        }
    }

    private void later(TierRun run, RuntimeException why) {
        int tries = runs.find(run.id()).map(TierRun::tries).orElse(0);
        Duration pause = Duration.ofSeconds(1L << Math.min(tries, MOST_DOUBLINGS));
        runs.wait(
                run.id(),
                ShortText.of(String.valueOf(why.getMessage()), LONGEST_PROBLEM),
                clock.real().plus(pause.compareTo(LONGEST_PAUSE) < 0 ? pause : LONGEST_PAUSE));
    }

    /** One run, from wherever it is. */
    private final class Run {

        private final TierRun run;
        private final Instant end;
        private final Set<String> stayed = ConcurrentHashMap.newKeySet();
        private final Lanes lanes = new Lanes(LANES);
        /** Of what has left, and of what is on its way. */
        private final AtomicLong bytes;

        private long asked = System.nanoTime();

        Run(TierRun run) {
            this.run = run;
            this.bytes = new AtomicLong(run.bytes());
            int hours = rule(estates.load()).hours();
            this.end = hours == 0 ? Instant.MAX : run.begun().plus(Duration.ofHours(hours));
        }

        private TieringRule rule(Estate estate) {
            return estate.find(Kinds.TIERING, run.rule())
                    .orElseThrow(() -> new Halt(Optional.of(TierRun.State.STOPPED), "the rule is no more"));
        }

        void through() {
            List<String> shares = rule(estates.load()).places().stream()
                    .map(SharePlace::share)
                    .distinct()
                    .toList();
            Map<String, CatalogueStore.Catalogue> found = catalogues.named(shares);
            try (lanes) {
                for (String share : shares) {
                    if (found.containsKey(share)) {
                        share(share, found.get(share).no());
                    }
                }
                lanes.rest();
            }
        }

        private void share(String share, int catalogue) {
            long from = Long.MIN_VALUE;
            while (true) {
                TieringRule rule = rule(estates.load());
                long lastTime = rule.lastTime(clock.instant());
                OptionalLong day = departures.day(catalogue, rule.by(), from, Math.floorDiv(lastTime, DAY));
                if (day.isEmpty()) {
                    return;
                }
                for (Found file : departures.ofDay(catalogue, share, rule, day.getAsLong(), lastTime)) {
                    if (!wants(file)) {
                        return;
                    }
                }
                from = day.getAsLong() + 1;
            }
        }

        /** Lets a file leave that is to; false when nothing more has to leave of its share. */
        private boolean wants(Found file) {
            Estate estate = estates.load();
            TieringRule rule = rule(estate);
            TieringRule.Facts facts = new TieringRule.Facts(
                    file.share(),
                    file.path(),
                    file.row().bytes(),
                    file.row().kind(),
                    file.row().owner(),
                    file.row().modified(),
                    file.row().lastUse());
            if (!FirstRule.of(estate, facts).equals(Optional.of(rule))
                    || !rule.isOldEnough(facts, clock.instant())
                    || stayed.contains(file.path().text())) {
                return true;
            }
            if (!tooFull(estate, rule, file.share())) {
                return false;
            }
            pace(rule, file.row().bytes());
            mayGoOn();
            bytes.addAndGet(file.row().bytes());
            if (rule.keepBelow().isPresent()) {
                depart(rule, file);
            } else {
                lanes.begin(() -> depart(rule, file));
            }
            return true;
        }

        private boolean tooFull(Estate estate, TieringRule rule, String share) {
            if (rule.keepBelow().isEmpty()) {
                return true;
            }
            Volume volume = estate.volumes().get(estate.shares().get(share).volume());
            BigDecimal percent = BigDecimal.valueOf(rule.keepBelow().get());
            return used.of(volume.name()).value()
                    > new KeepBelow(percent, volume.size().value()).mostUsed();
        }

        private void depart(TieringRule rule, Found file) {
            Departing.Leave leave = new Departing.Leave(run.id(), rule.store(), rule.keepDays(), rule.back());
            Optional<String> why = departing.depart(leave, file);
            if (why.isPresent()) {
                bytes.addAndGet(-file.row().bytes());
                stayed.add(file.path().text());
                runs.stayed(run.id(), ShortText.of("'" + file.path() + "' stays: " + why.get(), LONGEST_PROBLEM));
            } else {
                runs.left(run.id(), file.row().bytes());
            }
        }

        /** At the rule's rate by the clock of the estate, so that a jump of it brings a run as far as a wait would. */
        private void pace(TieringRule rule, long more) {
            if (rule.mostBytes() > 0 && bytes.get() + more > rule.mostBytes()) {
                // What stays after all makes room for others.
                lanes.rest();
            }
            if (rule.mostBytes() > 0 && bytes.get() + more > rule.mostBytes()) {
                throw new Halt(
                        Optional.of(TierRun.State.DONE), "no more than " + rule.mostBytes() + " bytes leave in a run");
            }
            while (rule.mibps() > 0
                    && bytes.get() / (rule.mibps() * Bytes.MIB)
                            > Duration.between(run.begun(), clock.instant()).toSeconds()) {
                mayGoOn();
                rest();
            }
        }

        private void rest() {
            try {
                Thread.sleep(Duration.ofMillis(200));
            } catch (InterruptedException interrupted) {
                Thread.currentThread().interrupt();
                throw new Halt(Optional.empty(), "interrupted");
            }
        }

        /** Asks each second whether somebody has stopped it, or another node has taken it over. */
        private void mayGoOn() {
            if (clock.instant().isAfter(end)) {
                throw new Halt(Optional.of(TierRun.State.DONE), "its hours are over; the next run goes on");
            }
            if (System.nanoTime() - asked < Duration.ofSeconds(1).toNanos()) {
                return;
            }
            asked = System.nanoTime();
            boolean goesOn = leases.take(lease(run.id()), LEASE)
                    && runs.find(run.id())
                            .filter(now -> now.state() == TierRun.State.RUNNING)
                            .isPresent();
            if (!goesOn) {
                throw new Halt(Optional.empty(), "stopped, or taken over");
            }
        }
    }
}
