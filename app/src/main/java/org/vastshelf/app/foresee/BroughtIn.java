package org.vastshelf.app.foresee;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import org.springframework.stereotype.Component;
import org.vastshelf.app.clock.ShelfClock;
import org.vastshelf.app.kit.NotFound;
import org.vastshelf.app.store.EstateStore;
import org.vastshelf.app.store.HistoryStore;
import org.vastshelf.app.store.Transactions;
import org.vastshelf.app.trace.Deeds;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.forecast.FillForecast;
import org.vastshelf.core.forecast.History;
import org.vastshelf.core.forecast.MendedHistory;

/** Brings in what a space held before it was watched here; days that were recorded stay as they are. */
@Component
public class BroughtIn {

    private final EstateStore estates;
    private final HistoryStore histories;
    private final ForecastStore forecasts;
    private final PastForecasts past;
    private final Deeds deeds;
    private final ShelfClock clock;
    private final Transactions transactions;

    BroughtIn(
            EstateStore estates,
            HistoryStore histories,
            ForecastStore forecasts,
            PastForecasts past,
            Deeds deeds,
            ShelfClock clock,
            Transactions transactions) {
        this.estates = estates;
        this.histories = histories;
        this.forecasts = forecasts;
        this.past = past;
        this.deeds = deeds;
        this.clock = clock;
        this.transactions = transactions;
    }

    /**
     * What was brought in.
     *
     * @param days that are new
     * @param findings what was mended
     */
    public record Report(int days, LocalDate first, LocalDate last, List<FillForecast.Finding> findings) {}

    /** @throws IllegalArgumentException when the days can't be mended, or are not all past */
    public Report bring(String who, String kind, String space, List<History.DayUse> days) {
        Estate estate = estates.load();
        boolean known = kind.equals(HistoryStore.VOLUME)
                ? estate.volumes().containsKey(space)
                : kind.equals(HistoryStore.POOL) && estate.pools().containsKey(space);
        if (!known) {
            throw new NotFound(kind, space);
        }
        LocalDate today = clock.today();
        days.stream().filter(day -> !day.day().isBefore(today)).findFirst().ifPresent(day -> {
            throw new IllegalArgumentException("day is " + day.day() + ", must be before today, which is " + today);
        });
        return transactions.run(() -> mended(who, kind, space, days));
    }

    private Report mended(String who, String kind, String space, List<History.DayUse> days) {
        List<History.DayUse> recorded = histories.recorded(kind, space);
        Set<LocalDate> own = new HashSet<>();
        recorded.forEach(day -> own.add(day.day()));
        // Where both know of a day, what was recorded here counts, and is no fault of the table.
        List<History.DayUse> all = new ArrayList<>(
                days.stream().filter(day -> !own.contains(day.day())).toList());
        if (all.isEmpty() && !days.isEmpty()) {
            throw new IllegalArgumentException(
                    "all of these " + days.size() + " days were recorded here, and stay as they are");
        }
        LocalDate first = all.isEmpty() ? LocalDate.MAX : all.getFirst().day();
        all.addAll(recorded.stream().filter(day -> day.day().isAfter(first)).toList());
        MendedHistory mended = MendedHistory.of(all);
        Set<LocalDate> gaps = new HashSet<>();
        mended.findings().stream()
                .filter(f -> f.kind() == FillForecast.Finding.Kind.GAP)
                .forEach(f -> gaps.add(f.day()));
        List<History.DayUse> fresh = mended.history().lastDays(History.MOST_DAYS).stream()
                .filter(day -> !own.contains(day.day()))
                .toList();
        histories.bring(kind, space, fresh, gaps);
        ForecastStore.Key key = new ForecastStore.Key(kind, space);
        forecasts.outdate(key);
        histories.lastDay().ifPresent(day -> past.workOut(key, day));
        deeds.done(
                who,
                Deeds.Kind.IMPORT,
                "/foresee/" + kind + "/" + space,
                fresh.size() + " days of history brought in, "
                        + mended.findings().size() + " mended");
        return new Report(
                fresh.size(), mended.history().first(), mended.history().last(), mended.findings());
    }
}
