package org.vastshelf.app.foresee;

import java.util.List;
import java.util.TreeMap;
import org.springframework.stereotype.Component;
import org.vastshelf.app.clock.ShelfClock;
import org.vastshelf.app.preference.PreferenceStore;
import org.vastshelf.app.store.EstateStore;
import org.vastshelf.app.store.UsageStore;

/** What pictures of the whole estate depend on: its version, what it holds, what is expected, and who looks. */
@Component
public class EstateStamp {

    private final EstateStore estates;
    private final UsageStore usage;
    private final ForecastStore forecasts;
    private final PreferenceStore preferences;
    private final ShelfClock clock;

    EstateStamp(
            EstateStore estates,
            UsageStore usage,
            ForecastStore forecasts,
            PreferenceStore preferences,
            ShelfClock clock) {
        this.estates = estates;
        this.usage = usage;
        this.forecasts = forecasts;
        this.preferences = preferences;
        this.clock = clock;
    }

    /** The same as long as a person sees the same; of every other state another. */
    public Object of(String person) {
        return List.of(
                estates.snapshot().version(),
                new TreeMap<>(usage.load().byVolume()),
                forecasts.stamp(),
                preferences.of(person).units(),
                clock.today());
    }
}
