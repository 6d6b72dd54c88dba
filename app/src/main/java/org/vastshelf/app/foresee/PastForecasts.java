package org.vastshelf.app.foresee;

import java.time.DayOfWeek;
import java.time.LocalDate;
import java.util.Collection;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.stream.Collectors;
import org.springframework.stereotype.Component;
import org.vastshelf.app.foresee.Forecasts.Space;
import org.vastshelf.app.store.EstateStore;
import org.vastshelf.app.store.HistoryStore;
import org.vastshelf.app.store.Transactions;
import org.vastshelf.app.store.UsageStore;

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

    private static final int SHOWN = 3;

    private final PastForecastStore store;
    private final ForecastStore forecasts;
    private final ForecastRound round;
    private final EstateStore estates;
    private final UsageStore usage;
    private final Transactions transactions;

    PastForecasts(
            PastForecastStore store,
            ForecastStore forecasts,
            ForecastRound round,
            EstateStore estates,
            UsageStore usage,
            Transactions transactions) {
        this.store = store;
        this.forecasts = forecasts;
        this.round = round;
        this.estates = estates;
        this.usage = usage;
        this.transactions = transactions;
    }

    /**
     * How many bands were held against what happened, and how many of them held.
     *
     * @param ahead in days
     */
    public record Score(int ahead, int bands, int held) {}

    /** After a day's forecasts: notes them where it is the day for it, and works out what is missing before. */
    void note(LocalDate day) {
        if (store.isEmpty()) {
            workOut(day);
        }
        if (day.getDayOfWeek() == NOTED) {
            store.put(forecasts.withCourses(), false);
        }
    }

    /**
     * On the day itself, while days pass too quickly for a forecast of each; on one core, in the transaction that wrote
     * the day down, which nobody else can read yet.
     */
    void noteInPassing(LocalDate day) {
        if (day.getDayOfWeek() == NOTED && isSmall()) {
            store.put(expected(day, Collection::stream), false);
        }
    }

    private boolean isSmall() {
        return estates.load().volumes().size() <= FEW;
    }

    /** What was expected of the latest days that could be judged: at most so many for each horizon. */
    List<PastForecastStore.Held> of(Space space) {
        Map<Integer, List<PastForecastStore.Held>> byAhead =
                store.of(new ForecastStore.Key(space.kind(), space.name()), space.day()).stream()
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

    /** All of it or nothing, since it is done once. */
    private void workOut(LocalDate day) {
        boolean small = isSmall();
        List<Collection<Space>> expected = BACK.stream()
                .filter(days -> small || MANY.contains(days))
                .map(days -> expected(day.minusDays(days), Collection::parallelStream))
                .toList();
        transactions.run(() -> expected.forEach(spaces -> store.put(spaces, true)));
    }

    private Collection<Space> expected(LocalDate day, ForecastRound.Pace pace) {
        return round.expected(estates.load(), usage.load(), day, pace).values();
    }
}
