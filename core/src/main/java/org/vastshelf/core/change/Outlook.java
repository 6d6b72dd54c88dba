package org.vastshelf.core.change;

import java.time.LocalDate;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Stream;
import org.vastshelf.core.change.Check.Verdict;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.Usage;
import org.vastshelf.core.layout.Replacement;

/** What a plan can't say by itself, since it depends on the day and on how fast pools fill. */
public final class Outlook {

    private Outlook() {}

    /**
     * Replacements that end after their pool is full.
     *
     * @param full the day on which each pool is likely full; pools that are not named never are
     */
    public static List<Check> checks(
            Estate estate, Usage usage, List<Change> changes, Map<String, LocalDate> full, LocalDate today) {
        return changes.stream()
                .flatMap(c -> c instanceof PoolChange.ReplaceDrives r ? Stream.of(r) : Stream.empty())
                .flatMap(r -> replacement(estate, usage, r, full, today).stream())
                .toList();
    }

    private static Optional<Check> replacement(
            Estate estate, Usage usage, PoolChange.ReplaceDrives change, Map<String, LocalDate> full, LocalDate today) {
        LocalDate day = full.get(change.pool());
        if (day == null || !estate.pools().containsKey(change.pool())) {
            return Optional.empty();
        }
        LocalDate end;
        try {
            end = endOf(Replacements.stages(estate, usage, change), today);
        } catch (IllegalArgumentException unfit) {
            return Optional.empty();
        }
        return day.isAfter(end)
                ? Optional.empty()
                : Optional.of(new Check(
                        Verdict.WATCH,
                        "pool " + change.pool() + ": full before",
                        "Pool " + change.pool() + " is likely full on " + day + ", before the last copying ends on "
                                + end + " at the latest",
                        "move a volume off first, or add drives"));
    }

    /** The day by which all stages are done, each drive copied whole. */
    public static LocalDate endOf(List<Replacement.Stage> stages, LocalDate today) {
        double hours = stages.stream().mapToDouble(Replacement.Stage::mostHours).sum();
        return today.plusDays((long) Math.ceil(hours / 24));
    }
}
