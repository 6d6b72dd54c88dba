package org.vastshelf.app.foresee;

import java.time.DayOfWeek;
import java.time.LocalDate;
import java.time.temporal.ChronoUnit;
import java.time.temporal.TemporalAdjusters;
import java.util.Collection;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import java.util.concurrent.ConcurrentHashMap;
import java.util.stream.Collectors;
import org.springframework.stereotype.Component;
import org.vastshelf.app.foresee.Forecasts.Space;
import org.vastshelf.app.store.EstateStore;
import org.vastshelf.app.store.HistoryStore;
import org.vastshelf.app.store.UsageStore;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.unit.Bytes;

/**
 * Keeps forecasts to account: what was expected is written down once a week, and held against what then happened. For
 * the time before that, it is worked out what would have been expected from the history as it was.
 */
@Component
public class PastForecasts {

    /** On which day of the week it is noted. */
    private static final DayOfWeek NOTED = DayOfWeek.SUNDAY;
    /** So long ago, in days, it is worked out for spaces that are new here. */
    private static final List<Integer> BACK = List.of(364, 182, 91, 63, 35, 28, 21, 14, 7);

    /** The same for a large estate, where each takes its time. */
    private static final List<Integer> MANY = List.of(364, 91, 28, 7);
    /** So many volumes are a small estate. */
    private static final int FEW = 200;
    /** What was noted within this part of the time gone by will do. */
    private static final int NEAR = 8;

    private static final int SHOWN = 3;

    private final PastForecastStore store;
    private final ForecastStore forecasts;
    private final ForecastRound round;
    private final EstateStore estates;
    private final UsageStore usage;
    /** Days for which nothing may be known, so that it is not tried again and again. */
    private final Set<LocalDate> tried = ConcurrentHashMap.newKeySet();

    PastForecasts(
            PastForecastStore store,
            ForecastStore forecasts,
            ForecastRound round,
            EstateStore estates,
            UsageStore usage) {
        this.store = store;
        this.forecasts = forecasts;
        this.round = round;
        this.estates = estates;
        this.usage = usage;
    }

    /**
     * How many bands were held against what happened, and how many of them held.
     *
     * @param ahead in days
     */
    public record Score(int ahead, int bands, int held) {}

    /** Notes what is expected where it is the day for it, and what became of what was expected for this day. */
    void note(LocalDate day) {
        if (day.getDayOfWeek() == NOTED) {
            store.put(forecasts.withCourses(), false);
        }
        store.judge(day);
    }

    /**
     * Works out one day that nothing was noted on: before the estate was watched here, or while days passed too quickly.
     *
     * @return false where none is missing
     */
    boolean workOutOne(LocalDate day) {
        Optional<LocalDate> missing = missing(day);
        missing.ifPresent(then -> {
            store.put(expected(then), true);
            store.judge(day);
            tried.add(then);
        });
        return missing.isPresent();
    }

    private Optional<LocalDate> missing(LocalDate day) {
        // Its past may be there before the estate is; then nothing was tried yet.
        if (estates.load().volumes().isEmpty()) {
            return Optional.empty();
        }
        Set<LocalDate> there = store.days();
        return (isSmall() ? BACK : MANY)
                .stream()
                        .filter(back -> there.stream().noneMatch(d -> isNear(d, noted(day.minusDays(back)), back)))
                        .map(back -> noted(day.minusDays(back)))
                        .filter(then -> !tried.contains(then))
                        .findFirst();
    }

    /** Further back it need not be the week. */
    private static boolean isNear(LocalDate there, LocalDate wanted, int back) {
        return Math.abs(ChronoUnit.DAYS.between(there, wanted)) <= back / NEAR;
    }

    private static LocalDate noted(LocalDate day) {
        return day.with(TemporalAdjusters.previousOrSame(NOTED));
    }

    private boolean isSmall() {
        return estates.load().volumes().size() <= FEW;
    }

    /** What was expected of the latest days that could be judged: at most so many for each horizon. */
    List<PastForecastStore.Held> of(Space space) {
        Map<Integer, List<PastForecastStore.Held>> byAhead =
                store.of(new ForecastStore.Key(space.kind(), space.name())).stream()
                        .collect(Collectors.groupingBy(
                                PastForecastStore.Held::ahead, TreeMap::new, Collectors.toList()));
        return byAhead.values().stream()
                .flatMap(held -> held.stream().limit(SHOWN))
                .toList();
    }

    /** Over all volumes, by how far ahead. */
    public List<Score> scores() {
        return store.scores();
    }

    /** Of each volume that is there the newest that can be judged, for each horizon. */
    List<PastForecastStore.Held> latest() {
        return store.latest(HistoryStore.VOLUME).stream()
                .filter(held -> estates.load().volumes().containsKey(held.key().name()))
                .toList();
    }

    /** Of a space whose past has become another: what would have been expected of it alone. */
    void workOut(ForecastStore.Key key, LocalDate day) {
        Estate estate = estates.load();
        Bytes capacity = Spaces.capacities(estate).getOrDefault(key, Bytes.ZERO);
        store.drop(key);
        store.put(
                BACK.stream()
                        .map(back -> round.alone(estate, key, capacity, noted(day.minusDays(back))))
                        .flatMap(Optional::stream)
                        .toList(),
                true);
        store.judge(day);
    }

    private Collection<Space> expected(LocalDate day) {
        return round.expected(estates.load(), usage.load(), day, Collection::stream)
                .values();
    }

    void forget(ForecastStore.Key key) {
        store.drop(key);
    }
}
