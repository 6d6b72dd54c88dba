package org.vastshelf.core.look;

import java.time.LocalDate;
import java.time.temporal.ChronoUnit;
import java.util.Optional;
import org.vastshelf.core.look.Attention.Area;
import org.vastshelf.core.look.Attention.Subject;
import org.vastshelf.core.look.Attention.Urgency;
import org.vastshelf.core.unit.Bytes;
import org.vastshelf.core.unit.Counted;
import org.vastshelf.core.unit.UnitSystem;

/**
 * A volume that is likely full on quite another day than was expected a week ago.
 *
 * @param was empty for not within ten years
 * @param is the same
 */
public record MovedDate(String volume, Optional<LocalDate> was, Optional<LocalDate> is, Cause cause) {

    /** From so many days on it is told. */
    public static final int TOLD_DAYS = 30;
    /** A day that is further off than so interests nobody yet. */
    private static final int NEAR_DAYS = 1_096;

    /** What made it so. */
    public sealed interface Cause {}

    /** The level changed for good. */
    public record Shifted(LocalDate day, long bytes) implements Cause {}

    /** A day brings so much more, or less, since. */
    public record Paced(LocalDate since, long bytesADay) implements Cause {}

    /** One folder got most of what was saved in the last two weeks. */
    public record Filled(String folder, Bytes bytes) implements Cause {}

    /** Nothing stands out. */
    public record Gradual() implements Cause {}

    /** Whether a date has moved so far that it is told. */
    public static boolean isTold(Optional<LocalDate> was, Optional<LocalDate> is, LocalDate today) {
        LocalDate far = today.plusDays(NEAR_DAYS);
        LocalDate before = was.filter(d -> d.isBefore(far)).orElse(far);
        LocalDate now = is.filter(d -> d.isBefore(far)).orElse(far);
        return Math.abs(ChronoUnit.DAYS.between(before, now)) > TOLD_DAYS;
    }

    /** What it wants of somebody: nearer dates are to be watched, others are good to know. */
    public Attention attention(UnitSystem units) {
        boolean nearer = is.isPresent() && (was.isEmpty() || is.get().isBefore(was.get()));
        return new Attention(
                nearer ? Urgency.WATCH : Urgency.FINE,
                new Subject(Area.VOLUME, volume),
                "Volume " + volume,
                "is likely full " + how() + " than was expected a week ago: " + why(units),
                is,
                "not within ten years",
                "see the forecast");
    }

    private String how() {
        if (was.isEmpty() || is.isEmpty()) {
            return is.isEmpty() ? "much later" : "much earlier";
        }
        long days = ChronoUnit.DAYS.between(was.get(), is.get());
        return Counted.of(Math.abs(days), "day") + (days < 0 ? " earlier" : " later");
    }

    private String why(UnitSystem units) {
        return switch (cause) {
            case Shifted(LocalDate day, long bytes) -> "its level changed by " + size(units, bytes) + " on " + day;
            case Paced(LocalDate since, long bytes) ->
                "a day brings " + size(units, bytes) + (bytes < 0 ? " less" : " more") + " since " + since;
            case Filled(String folder, Bytes bytes) ->
                units.format(bytes) + " were saved in " + folder + " within two weeks";
            case Gradual() -> "no single cause stands out";
        };
    }

    private static String size(UnitSystem units, long bytes) {
        return units.format(Bytes.of(Math.abs(bytes)));
    }
}
