package org.vastshelf.app.api;

import java.time.LocalDate;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import org.jspecify.annotations.Nullable;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.ModelAttribute;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RestController;
import org.vastshelf.app.clock.ShelfClock;
import org.vastshelf.app.foresee.Forecasts;
import org.vastshelf.app.foresee.PastForecasts;
import org.vastshelf.app.foresee.SpaceFinder;
import org.vastshelf.app.foresee.SupposedForm;
import org.vastshelf.app.security.Someone;
import org.vastshelf.core.forecast.Course;
import org.vastshelf.core.forecast.FillForecast;
import org.vastshelf.core.forecast.FillForecast.BandDay;
import org.vastshelf.core.forecast.Method;
import org.vastshelf.core.forecast.Supposition;
import org.vastshelf.core.forecast.Supposition.Supposed;

/** What is expected of spaces, under suppositions too, and what follows from it. */
@RestController
class ForesightApi {

    private final SpaceFinder finder;
    private final PastForecasts past;
    private final ShelfClock clock;

    ForesightApi(SpaceFinder finder, PastForecasts past, ShelfClock clock) {
        this.finder = finder;
        this.past = past;
        this.clock = clock;
    }

    /** Days on which a space is full with odds of one, five and nine in ten; null for not within ten years. */
    record Dates(
            @Nullable LocalDate early,
            @Nullable LocalDate likely,
            @Nullable LocalDate late) {

        static Dates of(FillForecast forecast) {
            return of(forecast.early(), forecast.likely(), forecast.late());
        }

        static Dates of(Supposed supposed) {
            return of(supposed.full(Course.EARLY), supposed.full(Course.LIKELY), supposed.full(Course.LATE));
        }

        private static Dates of(Optional<LocalDate> early, Optional<LocalDate> likely, Optional<LocalDate> late) {
            return new Dates(early.orElse(null), likely.orElse(null), late.orElse(null));
        }
    }

    record Expected(
            long capacityBytes,
            long usedBytes,
            LocalDate day,
            Method method,
            Dates full,
            Map<Integer, Double> fullWithin,
            FillForecast.Season season,
            List<FillForecast.Finding> findings,
            List<BandDay> band) {}

    /** Dates as they are and as they would be. */
    record Moved(Dates today, Dates supposed, List<BandDay> band) {}

    @GetMapping("/api/v1/spaces/{kind}/{key}/forecast")
    Expected expected(@AuthenticationPrincipal Someone me, @PathVariable String kind, @PathVariable String key) {
        Forecasts.Space space = finder.find(me, kind, key).space();
        FillForecast forecast = space.forecast();
        return new Expected(
                space.capacity().value(),
                space.used().value(),
                space.day(),
                forecast.method(),
                Dates.of(forecast),
                new TreeMap<>(forecast.fullWithin()),
                forecast.season(),
                forecast.findings(),
                forecast.band());
    }

    /** Takes the same parameters as the page. */
    @GetMapping("/api/v1/spaces/{kind}/{key}/supposed")
    Moved supposed(
            @AuthenticationPrincipal Someone me,
            @PathVariable String kind,
            @PathVariable String key,
            @ModelAttribute SupposedForm form) {
        Forecasts.Space space = finder.find(me, kind, key).space();
        Supposed supposed = Supposition.of(
                space.forecast().course(), space.capacity(), form.suppositions(clock.today(), space.capacity()));
        return new Moved(
                Dates.of(space.forecast()),
                Dates.of(supposed),
                supposed.course().weeks());
    }

    @GetMapping("/api/v1/forecasts/kept")
    List<PastForecasts.Score> kept() {
        return past.scores();
    }
}
