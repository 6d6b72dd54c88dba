package org.vastshelf.app.foresee;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.springframework.stereotype.Component;
import org.vastshelf.app.foresee.Forecasts.Space;
import org.vastshelf.app.store.EstateStore;
import org.vastshelf.app.store.HistoryStore;
import org.vastshelf.core.estate.Share;
import org.vastshelf.core.forecast.FillForecast.Finding;
import org.vastshelf.core.look.MovedDate;
import org.vastshelf.core.look.MovedDate.Cause;

/** Notices after each round of forecasts which dates are quite others than a week before, and why. */
@Component
public class MovedDates {

    private static final int RECENT_DAYS = 14;
    private static final int NEW_PACE_DAYS = 45;

    private final MovedDateStore store;
    private final PastForecastStore past;
    private final ForecastStore forecasts;
    private final EstateStore estates;

    MovedDates(MovedDateStore store, PastForecastStore past, ForecastStore forecasts, EstateStore estates) {
        this.store = store;
        this.past = past;
        this.forecasts = forecasts;
        this.estates = estates;
    }

    /** All that moved, as pages read them. */
    public List<MovedDate> all() {
        return store.all();
    }

    void note(LocalDate day) {
        Map<String, Optional<LocalDate>> before = past.likelyBefore(HistoryStore.VOLUME, day);
        List<MovedDate> moved = new ArrayList<>();
        forecasts.all(HistoryStore.VOLUME).forEach((name, space) -> {
            Optional<LocalDate> likely = space.forecast().likely();
            if (before.containsKey(name) && MovedDate.isTold(before.get(name), likely, day)) {
                Space whole = forecasts
                        .find(new ForecastStore.Key(HistoryStore.VOLUME, name))
                        .orElse(space);
                moved.add(new MovedDate(name, before.get(name), likely, cause(whole, day)));
            }
        });
        store.keep(moved, day);
    }

    private Cause cause(Space space, LocalDate day) {
        List<Finding> findings = space.forecast().findings();
        return newest(findings, Finding.Kind.SHIFT, day.minusDays(RECENT_DAYS))
                .<Cause>map(f -> new MovedDate.Shifted(f.day(), Math.round(f.bytes())))
                .or(() -> newest(findings, Finding.Kind.PACE, day.minusDays(NEW_PACE_DAYS))
                        .map(f -> new MovedDate.Paced(f.day(), Math.round(f.bytes()))))
                .or(() -> folder(space.name(), day))
                .orElseGet(MovedDate.Gradual::new);
    }

    private static Optional<Finding> newest(List<Finding> findings, Finding.Kind kind, LocalDate since) {
        return findings.stream()
                .filter(f -> f.kind() == kind && !f.day().isBefore(since))
                .reduce((one, next) -> next);
    }

    private Optional<Cause> folder(String volume, LocalDate day) {
        return estates.load()
                .sharesOn(volume)
                .map(Share::name)
                .findFirst()
                .flatMap(share -> store.fullest(share, day.minusDays(RECENT_DAYS)));
    }
}
