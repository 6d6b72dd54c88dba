package org.vastshelf.app.foresee;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Collection;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.function.Function;
import java.util.stream.Stream;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.stereotype.Component;
import org.vastshelf.app.foresee.ForecastStore.Key;
import org.vastshelf.app.foresee.Forecasts.Space;
import org.vastshelf.app.store.HistoryStore;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.Usage;
import org.vastshelf.core.forecast.Course;
import org.vastshelf.core.forecast.FillDates;
import org.vastshelf.core.forecast.FillForecast;
import org.vastshelf.core.forecast.History;
import org.vastshelf.core.unit.Bytes;

/** Forecasts all spaces that add up, each from its own past, and makes them agree. */
@Component
class ForecastRound {

    private static final Logger LOG = LoggerFactory.getLogger(ForecastRound.class);
    private static final int AT_ONCE = 100;

    private final Spaces spaces;
    private final HistoryStore histories;
    private final ForecastStore store;

    ForecastRound(Spaces spaces, HistoryStore histories, ForecastStore store) {
        this.spaces = spaces;
        this.histories = histories;
        this.store = store;
    }

    /** How the spaces are gone through: one after the other, or on all cores. */
    interface Pace extends Function<Collection<Key>, Stream<Key>> {}

    /** All spaces with what is expected of them after a day, agreed. */
    Map<Key, Space> expected(Estate estate, Usage usage, LocalDate day, Pace pace) {
        Map<Key, Bytes> capacities = Spaces.capacities(estate);
        Map<Key, Space> alone = new ConcurrentHashMap<>();
        pace.apply(capacities.keySet())
                .forEach(key -> alone(estate, key, capacities.get(key), day).ifPresent(s -> alone.put(key, s)));
        Map<Key, Course> agreed = Spaces.tree(
                        estate,
                        usage,
                        key -> Optional.ofNullable(alone.get(key))
                                .map(s -> s.forecast().course()))
                .reconciled();
        alone.replaceAll((key, space) -> space.with(
                space.forecast().with(agreed.getOrDefault(key, space.forecast().course()), space.capacity())));
        return alone;
    }

    /** What is expected of one space after a day, from its own past alone. */
    Optional<Space> alone(Estate estate, Key key, Bytes capacity, LocalDate day) {
        Optional<History> history = spaces.history(estate, key).flatMap(h -> h.until(day));
        if (history.isEmpty() || capacity.isZero()) {
            return Optional.empty();
        }
        try {
            Bytes used = history.get().used().getLast();
            FillForecast forecast =
                    FillDates.forecast(capacity, history.get()).after(histories.filled(key.kind(), key.name()));
            return Optional.of(new Space(key.kind(), key.name(), capacity, day, used, forecast));
        } catch (RuntimeException unforeseen) {
            LOG.error("no forecast of {} {}", key.kind(), key.name(), unforeseen);
            return Optional.empty();
        }
    }

    /** Forecasts all and keeps that; returns those of which nothing can be said. */
    Set<Key> run(Estate estate, Usage usage, LocalDate day, Pace pace) {
        Map<Key, Space> expected = expected(estate, usage, day, pace);
        List<Space> all = new ArrayList<>(expected.values());
        for (int from = 0; from < all.size(); from += AT_ONCE) {
            store.put(all.subList(from, Math.min(all.size(), from + AT_ONCE)));
        }
        Set<Key> unknown = new java.util.HashSet<>(Spaces.capacities(estate).keySet());
        unknown.removeAll(expected.keySet());
        unknown.forEach(store::drop);
        return unknown;
    }
}
