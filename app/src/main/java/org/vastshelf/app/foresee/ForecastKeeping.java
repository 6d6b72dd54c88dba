package org.vastshelf.app.foresee;

import java.time.Duration;
import java.time.LocalDate;
import java.util.Collection;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicBoolean;
import java.util.concurrent.locks.ReentrantLock;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Component;
import org.vastshelf.app.clock.QuickDays;
import org.vastshelf.app.clock.ShelfClock;
import org.vastshelf.app.foresee.ForecastStore.Basis;
import org.vastshelf.app.foresee.ForecastStore.Key;
import org.vastshelf.app.store.EstateStore;
import org.vastshelf.app.store.HistoryStore;
import org.vastshelf.app.store.LeaseStore;
import org.vastshelf.app.store.UsageStore;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.forecast.FillDates;
import org.vastshelf.core.unit.Bytes;

/**
 * Keeps forecasts in step with histories and capacities, behind everybody's back: a page never waits for one. One node
 * at a time is at it.
 */
@Component
public class ForecastKeeping {

    private static final Logger LOG = LoggerFactory.getLogger(ForecastKeeping.class);
    private static final String WORK = "forecasts";
    private static final Duration TURN = Duration.ofSeconds(20);
    /** A round of the largest estate takes less; two rounds at once would do no harm. */
    private static final Duration LONGEST = Duration.ofMinutes(1);

    private final EstateStore estates;
    private final UsageStore usage;
    private final ForecastRound round;
    private final AccountForecasting accounts;
    private final PastForecasts past;
    private final MovedDates moved;
    private final SuppositionStore suppositions;
    private final HistoryStore histories;
    private final ForecastStore store;
    private final LeaseStore leases;
    private final ShelfClock clock;
    private final QuickDays days;
    private final AtomicBoolean busy = new AtomicBoolean();
    /** The last day that was held against what had been expected. */
    private volatile LocalDate answered = LocalDate.MIN;

    private final ReentrantLock atIt = new ReentrantLock();
    /** Spaces that have not been watched for a week, by the day on which that was seen. */
    private final Map<Key, Basis> tooShort = new ConcurrentHashMap<>();

    ForecastKeeping(
            EstateStore estates,
            UsageStore usage,
            ForecastRound round,
            AccountForecasting accounts,
            PastForecasts past,
            MovedDates moved,
            SuppositionStore suppositions,
            HistoryStore histories,
            ForecastStore store,
            LeaseStore leases,
            ShelfClock clock,
            QuickDays days) {
        this.estates = estates;
        this.usage = usage;
        this.round = round;
        this.accounts = accounts;
        this.past = past;
        this.moved = moved;
        this.suppositions = suppositions;
        this.histories = histories;
        this.store = store;
        this.leases = leases;
        this.clock = clock;
        this.days = days;
    }

    /** In a thread of its own: all that is scheduled shares one, and mail and the agenda do not wait for a forecast. */
    @Scheduled(fixedDelay = 1_000)
    void keepUp() {
        if (isWanted() && busy.compareAndSet(false, true)) {
            Thread.ofVirtual().name(WORK).start(this::turn);
        }
    }

    /** One after the other, as long as no days pass quickly: each forecast would be out of date at once. */
    private void turn() {
        try {
            forget();
            ifWanted(() -> compute(TURN, Collection::stream));
            ifWanted(() -> histories.lastDay().ifPresent(this::answer));
            ifWanted(() -> histories.lastDay().ifPresent(day -> accounts.turn(day, TURN, this::isWanted)));
        } catch (RuntimeException unforeseen) {
            LOG.warn("forecasts were left alone, and are tried again", unforeseen);
        } finally {
            busy.set(false);
        }
    }

    private boolean isWanted() {
        return !days.arePassing();
    }

    private void ifWanted(Runnable part) {
        if (isWanted()) {
            part.run();
        }
    }

    /** Computes what is missing or out of date, on all cores: somebody waits for it, but not longer than so. */
    public void catchUp(Duration most) {
        compute(most, Collection::parallelStream);
    }

    private void compute(Duration most, ForecastRound.Pace pace) {
        if (stale().isEmpty() || !alone(most)) {
            return;
        }
        try {
            if (!leases.take(WORK, LONGEST)) {
                return;
            }
            round(pace);
        } finally {
            leases.giveBack(WORK);
            atIt.unlock();
        }
    }

    /** All anew after a day has passed; where only the room is another, its dates alone. */
    private void round(ForecastRound.Pace pace) {
        Map<Key, Basis> stale = stale();
        Map<Key, Basis> known = store.bases();
        LocalDate day = histories.lastDay().orElseThrow();
        boolean anew = stale.entrySet().stream().anyMatch(s -> !s.getValue().isOf(known.get(s.getKey())));
        if (anew) {
            Estate estate = estates.load();
            round.run(estate, usage.load(), day, pace)
                    .forEach(key -> tooShort.put(key, stale.getOrDefault(key, new Basis(day, Bytes.ZERO, 0))));
            answered = LocalDate.MIN;
            return;
        }
        stale.forEach((key, basis) ->
                store.find(key).map(space -> space.with(basis.capacity())).ifPresent(store::put));
    }

    /** What became of earlier forecasts, once a day's are there; stops for days that pass quickly. */
    private void answer(LocalDate day) {
        if (day.equals(answered) || !stale().isEmpty() || !leases.take(WORK, LONGEST)) {
            return;
        }
        try {
            past.note(day);
            boolean missing = true;
            while (missing && isWanted() && leases.take(WORK, LONGEST)) {
                missing = past.workOutOne(day);
            }
            if (!missing) {
                moved.note(day);
                answered = day;
            }
        } finally {
            leases.giveBack(WORK);
        }
    }

    private boolean alone(Duration most) {
        try {
            return atIt.tryLock(most.toMillis(), TimeUnit.MILLISECONDS);
        } catch (InterruptedException interrupted) {
            Thread.currentThread().interrupt();
            return false;
        }
    }

    /** How many are out of date by now. */
    public int pending() {
        return stale().size();
    }

    private Map<Key, Basis> stale() {
        Optional<LocalDate> last = histories.lastDay();
        if (last.isEmpty()) {
            return Map.of();
        }
        Map<Key, Basis> wanted = wanted(estates.load(), last.get());
        Map<Key, Basis> known = store.bases();
        wanted.entrySet()
                .removeIf(w -> w.getValue().equals(known.get(w.getKey()))
                        || w.getValue().equals(tooShort.get(w.getKey())));
        return wanted;
    }

    /** What is there of spaces that are gone. */
    private void forget() {
        Map<Key, Basis> wanted = wanted(estates.load(), clock.today());
        store.bases().keySet().stream().filter(key -> !wanted.containsKey(key)).forEach(key -> {
            store.drop(key);
            past.forget(key);
            suppositions.forget(key);
        });
    }

    private static Map<Key, Basis> wanted(Estate estate, LocalDate day) {
        Map<Key, Basis> wanted = new LinkedHashMap<>();
        Spaces.capacities(estate)
                .forEach((key, capacity) -> wanted.put(key, new Basis(day, capacity, FillDates.VERSION)));
        return wanted;
    }
}
