package org.vastshelf.core.snapshot;

import java.time.Instant;
import java.time.ZoneId;
import java.time.ZonedDateTime;
import java.time.temporal.ChronoUnit;
import java.time.temporal.IsoFields;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import java.util.SortedSet;
import java.util.TreeSet;
import java.util.function.Function;
import java.util.stream.Stream;

/**
 * Which snapshots of a schedule stay: the newest so many, and the newest of each of the last so many hours, days, weeks,
 * months and years in which there was one. Weeks begin on Mondays (ISO 8601). An hour that the clock shows twice is two.
 *
 * @param newest each figure 0 to {@link #MOST}
 */
public record KeepRule(int newest, int hourly, int daily, int weekly, int monthly, int yearly) {

    public static final int MOST = 100_000;
    private static final int LONGEST_DAYS = 3_660;

    public KeepRule {
        require("newest", newest);
        require("hourly", hourly);
        require("daily", daily);
        require("weekly", weekly);
        require("monthly", monthly);
        require("yearly", yearly);
    }

    private static void require(String name, int value) {
        if (value < 0 || value > MOST) {
            throw new IllegalArgumentException("keep." + name + " is " + value + ", must be 0 to " + MOST);
        }
    }

    /** Whether none stays, however many there are. */
    public boolean keepsNothing() {
        return newest + hourly + daily + weekly + monthly + yearly == 0;
    }

    /** For how many days the oldest that stays is kept at most, 1 to 3,660. */
    public int days() {
        long days = Math.max(
                Math.max(Math.ceilDiv(hourly, 24), daily),
                Math.max(Math.max(7L * weekly, 31L * monthly), 366L * yearly));
        return (int) Math.clamp(days, 1, LONGEST_DAYS);
    }

    /**
     * Those that stay.
     *
     * @param taken when snapshots were taken, ascending
     * @return ascending
     */
    public SortedSet<Instant> kept(List<Instant> taken, ZoneId zone) {
        SortedSet<Instant> kept = new TreeSet<>(taken.subList(Math.max(0, taken.size() - newest), taken.size()));
        keep(
                kept,
                taken,
                hourly,
                at -> at.atZone(zone).truncatedTo(ChronoUnit.HOURS).toInstant());
        keep(kept, taken, daily, at -> at.atZone(zone).toLocalDate());
        keep(kept, taken, weekly, at -> week(at.atZone(zone)));
        keep(kept, taken, monthly, at -> month(at.atZone(zone)));
        keep(kept, taken, yearly, at -> at.atZone(zone).getYear());
        return kept;
    }

    /**
     * Those worth taking, of moments between which nothing can change: each would hold what the others hold. One that
     * stays beyond what is known to come makes up for those that don't.
     *
     * @param there when snapshots were taken
     * @param same the moments, ascending
     * @param later those at which snapshots will be taken for certain, ascending; as long as some stay till then, others go
     * @return ascending; some, if any of them stay
     */
    public SortedSet<Instant> worth(List<Instant> there, List<Instant> same, List<Instant> later, ZoneId zone) {
        SortedSet<Instant> staying = among(same, joined(joined(there, same), later), zone);
        return staying.isEmpty() ? among(same, joined(there, same), zone) : staying;
    }

    private SortedSet<Instant> among(List<Instant> some, List<Instant> taken, ZoneId zone) {
        SortedSet<Instant> staying = kept(taken, zone);
        staying.retainAll(Set.copyOf(some));
        return staying;
    }

    private static List<Instant> joined(List<Instant> before, List<Instant> after) {
        return Stream.concat(before.stream(), after.stream()).sorted().toList();
    }

    private static long week(ZonedDateTime at) {
        return at.get(IsoFields.WEEK_BASED_YEAR) * 100L + at.get(IsoFields.WEEK_OF_WEEK_BASED_YEAR);
    }

    private static long month(ZonedDateTime at) {
        return at.getYear() * 12L + at.getMonthValue();
    }

    /** From the newest back, the first of each span that is met. */
    private static void keep(Set<Instant> kept, List<Instant> taken, int spans, Function<Instant, Object> spanOf) {
        Set<Object> met = new HashSet<>();
        for (Instant at : taken.reversed()) {
            if (met.size() == spans) {
                return;
            }
            if (met.add(spanOf.apply(at))) {
                kept.add(at);
            }
        }
    }
}
