package org.vastshelf.core.forecast;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.Volume;

/**
 * The day on which somebody is likely refused a save for want of room: the earliest of a limit, the volume and, where the
 * volume takes its room from the pool only as it is used, the pool.
 *
 * @param by what refuses
 * @param name of the account, the volume or the pool
 */
public record FirstRefusal(By by, String name, LocalDate day) {

    /** What can refuse; of those on the same day the nearest to the person comes first. */
    public enum By {
        LIMIT,
        VOLUME,
        POOL
    }

    /**
     * Of one share, or of one account on it.
     *
     * @param limit the account that is likely full first, with the day; null for none
     * @param likely days on which volumes are likely full, by name
     * @param pools the same of pools
     * @return empty when nobody is refused within ten years
     */
    public static Optional<FirstRefusal> on(
            Estate estate,
            String volume,
            Map.@Nullable Entry<String, LocalDate> limit,
            Map<String, LocalDate> likely,
            Map<String, LocalDate> pools) {
        List<FirstRefusal> found = new ArrayList<>();
        if (limit != null) {
            found.add(new FirstRefusal(By.LIMIT, limit.getKey(), limit.getValue()));
        }
        Volume holder = estate.volumes().get(volume);
        if (likely.containsKey(volume)) {
            found.add(new FirstRefusal(By.VOLUME, volume, likely.get(volume)));
        }
        if (holder != null && holder.thin() && pools.containsKey(holder.pool())) {
            found.add(new FirstRefusal(By.POOL, holder.pool(), pools.get(holder.pool())));
        }
        return found.stream().min(Comparator.comparing(FirstRefusal::day).thenComparing(FirstRefusal::by));
    }
}
