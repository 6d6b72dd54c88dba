package org.vastshelf.core.estate;

import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.time.Period;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/**
 * Files below a folder of a share can't be changed or deleted for a time. On trial it acts fully and can be lifted;
 * sealed it can be made longer, and never shorter.
 *
 * @param basis from when the time counts
 * @param length how long, in calendar units; zero where it ends on a date
 * @param until the date on which files become free; present exactly where the basis is one
 * @param quiet how long after its last change a file can still be changed
 * @param seal since when nobody can shorten it; empty while it is on trial
 */
public record RetentionRule(
        String share,
        FilePath folder,
        Basis basis,
        Period length,
        Optional<LocalDate> until,
        Duration quiet,
        Optional<Seal> seal) {

    /** Nothing is kept for longer than this, whatever an installation allows. */
    public static final int MOST_YEARS = 100;

    public static final Duration LONGEST_QUIET = Duration.ofDays(366);
    private static final int SHORTEST_MONTH = 28;
    private static final int LONGEST_MONTH = 31;
    private static final int MONTHS = 12;

    /** From when the time counts. */
    public enum Basis {
        CHANGED("the last change"),
        CREATED("creation"),
        DATE("a date");

        private final String title;

        Basis(String title) {
            this.title = title;
        }

        public String title() {
            return title;
        }
    }

    /**
     * That a rule was sealed.
     *
     * @param lastFree the day, typed by who sealed it, on which the last file that was there becomes free
     */
    public record Seal(String by, Instant at, LocalDate lastFree) {}

    public RetentionRule {
        boolean dated = basis == Basis.DATE;
        if (until.isPresent() != dated) {
            throw new IllegalArgumentException(
                    dated
                            ? "date is missing, must be given where files are held until a date"
                            : "date is '" + until.orElseThrow() + "', must be left out where a length counts");
        }
        if (length.getYears() < 0 || length.getMonths() < 0 || length.getDays() < 0) {
            throw new IllegalArgumentException("length is " + length + ", must have no part below 0");
        }
        if (length.isZero() != dated) {
            throw new IllegalArgumentException("length is " + length
                    + (dated ? ", must be zero where a date counts" : ", must be at least 1 day"));
        }
        if (mostDays(length) > (long) MOST_YEARS * MONTHS * LONGEST_MONTH) {
            throw new IllegalArgumentException(
                    "length is " + words(length) + ", must be at most " + MOST_YEARS + " years");
        }
        if (quiet.isNegative() || quiet.compareTo(LONGEST_QUIET) > 0) {
            throw new IllegalArgumentException(
                    "quiet time is " + quiet.toMinutes() + " minutes, must be 0 to " + LONGEST_QUIET.toMinutes());
        }
    }

    /** One rule for each folder of a share. */
    public String key() {
        return share + ":" + folder;
    }

    public boolean isSealed() {
        return seal.isPresent();
    }

    /** Since when a file is held that was last changed then; until then it can still be changed. */
    public Instant heldFrom(Instant changed) {
        return changed.plus(quiet);
    }

    /**
     * When a file becomes free.
     *
     * @param zone by whose calendar
     */
    public Instant freeAt(Instant changed, Instant created, ZoneId zone) {
        return switch (basis) {
            case CHANGED -> changed.atZone(zone).plus(length).toInstant();
            case CREATED -> created.atZone(zone).plus(length).toInstant();
            case DATE -> until.orElseThrow().atStartOfDay(zone).toInstant();
        };
    }

    /** Sealed now. */
    public RetentionRule sealed(Seal next) {
        return new RetentionRule(share, folder, basis, length, until, quiet, Optional.of(next));
    }

    /**
     * Whether it holds every file at least as long as another one of the same folder does, and is sealed where that
     * is. A month counts as any number of days that one can have.
     */
    public boolean isAtLeast(RetentionRule other) {
        return key().equals(other.key())
                && (other.seal.isEmpty() || seal.equals(other.seal))
                && basis == other.basis
                && quiet.compareTo(other.quiet) <= 0
                && (basis == Basis.DATE
                        ? !until.orElseThrow().isBefore(other.until.orElseThrow())
                        : isAtLeast(length, other.length));
    }

    private static boolean isAtLeast(Period one, Period other) {
        boolean partByPart = one.toTotalMonths() >= other.toTotalMonths() && one.getDays() >= other.getDays();
        return partByPart || one.toTotalMonths() * SHORTEST_MONTH + one.getDays() >= mostDays(other);
    }

    private static long mostDays(Period period) {
        return period.toTotalMonths() * LONGEST_MONTH + period.getDays();
    }

    /** Whether files that are there today can be held beyond so many years from now. */
    public boolean goesBeyond(int years, LocalDate today) {
        LocalDate end = until.orElseGet(() -> today.plus(length));
        return end.isAfter(today.plusYears(years));
    }

    /** The years that somebody has to type who wants so much: those that are begun. */
    public int yearsFrom(LocalDate today) {
        Period whole = Period.between(today, until.orElseGet(() -> today.plus(length)));
        return whole.getYears() + (whole.getMonths() > 0 || whole.getDays() > 0 ? 1 : 0);
    }

    /** In words, such as "7 years from the last change" or "until 2031-01-01". */
    public String term() {
        return basis == Basis.DATE ? "until " + until.orElseThrow() : words(length) + " from " + basis.title();
    }

    private static String words(Period length) {
        List<String> parts = new ArrayList<>();
        part(parts, length.getYears(), "year");
        part(parts, length.getMonths(), "month");
        part(parts, length.getDays(), "day");
        return String.join(", ", parts);
    }

    private static void part(List<String> parts, int count, String unit) {
        if (count != 0) {
            parts.add(count + " " + unit + (count == 1 ? "" : "s"));
        }
    }

    /** In words, such as "homes /records: 7 years from the last change". */
    public String title() {
        return share + " " + folder + ": " + term();
    }
}
