package org.vastshelf.app.foresee;

import java.time.LocalDate;
import java.util.HashMap;
import java.util.Map;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;
import org.vastshelf.app.foresee.Forecasts.Space;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.Share;
import org.vastshelf.core.forecast.FirstRefusal;

/** When somebody is first refused for want of room, and by what. */
@Component
class Refusing {

    private final Forecasts forecasts;

    Refusing(Forecasts forecasts) {
        this.forecasts = forecasts;
    }

    /** What is asked of many shares or accounts at once. */
    final class Asked {

        private final Estate estate;
        private final Map<String, LocalDate> volumes = likely(forecasts.volumes());
        private final Map<String, LocalDate> pools = likely(forecasts.pools());

        private Asked(Estate estate) {
            this.estate = estate;
        }

        /** On a share, with the limit that comes first there. */
        Optional<FirstRefusal> on(String share, Map.@Nullable Entry<String, LocalDate> limit) {
            return Optional.ofNullable(estate.shares().get(share))
                    .map(Share::volume)
                    .flatMap(volume -> FirstRefusal.on(estate, volume, limit, volumes, pools));
        }
    }

    Asked in(Estate estate) {
        return new Asked(estate);
    }

    private static Map<String, LocalDate> likely(Map<String, Space> spaces) {
        Map<String, LocalDate> days = new HashMap<>();
        spaces.forEach((name, space) -> space.forecast().likely().ifPresent(day -> days.put(name, day)));
        return days;
    }
}
