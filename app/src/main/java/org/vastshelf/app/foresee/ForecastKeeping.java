package org.vastshelf.app.foresee;

import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.util.Collection;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.concurrent.locks.ReentrantLock;
import java.util.function.Function;
import java.util.stream.Stream;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Component;
import org.vastshelf.app.clock.ShelfClock;
import org.vastshelf.app.foresee.ForecastStore.Basis;
import org.vastshelf.app.foresee.ForecastStore.Key;
import org.vastshelf.app.foresee.Forecasts.Space;
import org.vastshelf.app.store.EstateStore;
import org.vastshelf.app.store.HistoryStore;
import org.vastshelf.app.store.LeaseStore;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.forecast.FillDates;
import org.vastshelf.core.forecast.History;
import org.vastshelf.core.ledger.Ledgers;
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

    private final EstateStore estates;
    private final HistoryStore histories;
    private final ForecastStore store;
    private final LeaseStore leases;
    private final ShelfClock clock;
    private final AtomicInteger resting = new AtomicInteger();
    private final ReentrantLock atIt = new ReentrantLock();
    /** Spaces that have not been watched for a week, by the day on which that was seen. */
    private final Map<Key, Basis> tooShort = new ConcurrentHashMap<>();

    ForecastKeeping(
            EstateStore estates, HistoryStore histories, ForecastStore store, LeaseStore leases, ShelfClock clock) {
        this.estates = estates;
        this.histories = histories;
        this.store = store;
        this.leases = leases;
        this.clock = clock;
    }

    /** Leaves forecasts alone while days pass quickly, since each would be out of date at once. */
    public void rest(Runnable days) {
        resting.incrementAndGet();
        try {
            days.run();
        } finally {
            resting.decrementAndGet();
        }
    }

    @Scheduled(fixedDelay = 1_000)
    void keepUp() {
        if (resting.get() > 0) {
            return;
        }
        forget();
        compute(TURN, stale -> stale.stream());
    }

    /** Computes what is missing or out of date, for so long at most, on all cores: somebody waits for it. */
    public void catchUp(Duration most) {
        compute(most, Collection::parallelStream);
    }

    private void compute(
            Duration most, Function<Collection<Map.Entry<Key, Basis>>, Stream<Map.Entry<Key, Basis>>> cores) {
        Instant end = clock.real().plus(most);
        if (stale().isEmpty() || !alone(most)) {
            return;
        }
        try {
            if (!leases.take(WORK, most.plus(TURN))) {
                return;
            }
            cores.apply(stale().entrySet())
                    .filter(due -> clock.real().isBefore(end))
                    .forEach(due -> compute(due.getKey(), due.getValue()));
        } finally {
            leases.giveBack(WORK);
            atIt.unlock();
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
        store.bases().keySet().stream().filter(key -> !wanted.containsKey(key)).forEach(store::drop);
    }

    private static Map<Key, Basis> wanted(Estate estate, LocalDate day) {
        Map<Key, Basis> wanted = new LinkedHashMap<>();
        estate.pools()
                .forEach((name, pool) -> wanted.put(
                        new Key(HistoryStore.POOL, name),
                        new Basis(day, Ledgers.usable(estate, pool), FillDates.VERSION)));
        estate.volumes()
                .forEach((name, volume) -> wanted.put(
                        new Key(HistoryStore.VOLUME, name), new Basis(day, volume.size(), FillDates.VERSION)));
        return wanted;
    }

    private void compute(Key key, Basis basis) {
        Optional<History> history = histories.of(key.kind(), key.name());
        if (history.isEmpty() || basis.capacity().isZero()) {
            tooShort.put(key, basis);
            store.drop(key);
            return;
        }
        try {
            Bytes used = history.get().used().getLast();
            store.put(new Space(
                    key.kind(),
                    key.name(),
                    basis.capacity(),
                    basis.day(),
                    used,
                    FillDates.forecast(basis.capacity(), history.get())
                            .after(histories.filled(key.kind(), key.name()))));
        } catch (RuntimeException unforeseen) {
            LOG.error("no forecast of {} {}", key.kind(), key.name(), unforeseen);
            tooShort.put(key, basis);
        }
    }
}
