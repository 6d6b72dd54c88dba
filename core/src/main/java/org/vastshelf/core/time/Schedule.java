package org.vastshelf.core.time;

import java.time.Duration;
import java.time.Instant;
import java.time.LocalDateTime;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.dmfs.rfc5545.DateTime;
import org.dmfs.rfc5545.recur.Freq;
import org.dmfs.rfc5545.recur.InvalidRecurrenceRuleException;
import org.dmfs.rfc5545.recur.RecurrenceRule;
import org.dmfs.rfc5545.recur.RecurrenceRuleIterator;

/**
 * When something happens again and again: a recurrence rule (RFC 5545, section 3.3.10) and where it begins, both on the
 * clock of the place it is read for.
 *
 * @param from its first moment, by which intervals are counted; to the minute
 * @param rule such as {@code FREQ=WEEKLY;BYDAY=SA}; at most once a minute
 */
public record Schedule(LocalDateTime from, String rule) {

    /** A Monday, midnight: where rules begin that do not say so. */
    public static final LocalDateTime BEGINNING = LocalDateTime.of(2024, 1, 1, 0, 0);

    private static final int LONGEST = 500;
    private static final int GAPS_LOOKED_AT = 60;

    public Schedule {
        if (rule.length() > LONGEST) {
            throw new IllegalArgumentException(
                    "recurrence rule has " + rule.length() + " characters, must be at most " + LONGEST);
        }
        if (from.getSecond() != 0 || from.getNano() != 0) {
            throw new IllegalArgumentException("schedule begins at " + from + ", must be a whole minute");
        }
        RecurrenceRule parsed = parsed(rule);
        if (parsed.getFreq() == Freq.SECONDLY || parsed.hasPart(RecurrenceRule.Part.BYSECOND)) {
            throw new IllegalArgumentException(
                    "recurrence rule '" + rule + "' counts seconds, must be minutes or more");
        }
        if (first(parsed, from).isEmpty()) {
            throw new IllegalArgumentException("recurrence rule '" + rule + "' never comes");
        }
    }

    /** A rule counted from {@link #BEGINNING}. */
    public static Schedule of(String rule) {
        return new Schedule(BEGINNING, rule);
    }

    /** The first moment after the given one; empty when there is none. */
    public Optional<Instant> next(Instant after, ZoneId zone) {
        List<Instant> one = runs(after, zone, 1);
        return one.isEmpty() ? Optional.empty() : Optional.of(one.getFirst());
    }

    /** The last moment that is not after the given one, looking back so far; empty when there is none. */
    public Optional<Instant> last(Instant until, Duration back, ZoneId zone) {
        Instant found = null;
        Optional<Instant> next = next(until.minus(back), zone);
        while (next.filter(n -> !n.isAfter(until)).isPresent()) {
            found = next.get();
            next = next(found, zone);
        }
        return Optional.ofNullable(found);
    }

    /** The next moments, at most so many. */
    public List<Instant> runs(Instant after, ZoneId zone, int most) {
        return runs(after, Instant.MAX, zone, most);
    }

    /**
     * All moments up to and with the last one given.
     *
     * @throws IllegalArgumentException when there are more than so many
     */
    public List<Instant> all(Instant after, Instant until, ZoneId zone, int most) {
        List<Instant> found = runs(after, until, zone, most + 1);
        if (found.size() > most) {
            throw new IllegalArgumentException("recurrence rule '" + rule + "' comes more than " + most
                    + " times until " + until + "; ask for less");
        }
        return found;
    }

    /** The next moments up to and with the last one given, at most so many. */
    public List<Instant> runs(Instant after, Instant until, ZoneId zone, int most) {
        List<Instant> found = new ArrayList<>();
        RecurrenceRuleIterator moments = parsed(rule).iterator(floating(from));
        LocalDateTime local = LocalDateTime.ofInstant(after, zone);
        if (local.isAfter(from.plusDays(1))) {
            // A day early: clocks that are put back show an hour twice.
            moments.fastForward(floating(local.minusDays(1)));
        }
        while (found.size() < most && moments.hasNext()) {
            Instant at = local(moments.nextDateTime()).atZone(zone).toInstant();
            if (at.isAfter(until)) {
                return found;
            }
            if (at.isAfter(after) && (found.isEmpty() || at.isAfter(found.getLast()))) {
                found.add(at);
            }
        }
        return found;
    }

    /**
     * The least time between two neighbours among its first moments.
     *
     * @return empty for a single one
     */
    public Optional<Duration> leastGap() {
        RecurrenceRuleIterator moments = parsed(rule).iterator(floating(from));
        Duration least = null;
        LocalDateTime before = null;
        for (int i = 0; i <= GAPS_LOOKED_AT && moments.hasNext(); i++) {
            LocalDateTime at = local(moments.nextDateTime());
            if (before != null) {
                Duration gap = Duration.between(before, at);
                least = least == null || gap.compareTo(least) < 0 ? gap : least;
            }
            before = at;
        }
        return Optional.ofNullable(least);
    }

    /**
     * The schedule, if it leaves enough time between two of its moments.
     *
     * @throws IllegalArgumentException naming what it is for
     */
    public Schedule atMostEvery(Duration gap, String what) {
        Duration least = leastGap().orElse(gap);
        if (least.compareTo(gap) < 0) {
            throw new IllegalArgumentException(what + " comes every " + least.toMinutes()
                    + " minutes, must be at least " + gap.toMinutes() + " apart");
        }
        return this;
    }

    private static Optional<LocalDateTime> first(RecurrenceRule rule, LocalDateTime from) {
        try {
            RecurrenceRuleIterator moments = rule.iterator(floating(from));
            return moments.hasNext() ? Optional.of(local(moments.nextDateTime())) : Optional.empty();
        } catch (IllegalArgumentException | ArithmeticException never) {
            // The library gives up on rules that name days which never come.
            return Optional.empty();
        }
    }

    private static RecurrenceRule parsed(String rule) {
        try {
            return new RecurrenceRule(rule, RecurrenceRule.RfcMode.RFC5545_STRICT);
        } catch (InvalidRecurrenceRuleException | IllegalArgumentException wrong) {
            throw new IllegalArgumentException(
                    "recurrence rule '" + rule + "' can't be read: " + wrong.getMessage(), wrong);
        }
    }

    private static DateTime floating(LocalDateTime at) {
        return new DateTime(
                at.getYear(), at.getMonthValue() - 1, at.getDayOfMonth(), at.getHour(), at.getMinute(), at.getSecond());
    }

    private static LocalDateTime local(DateTime at) {
        return LocalDateTime.of(
                at.getYear(), at.getMonth() + 1, at.getDayOfMonth(), at.getHours(), at.getMinutes(), at.getSeconds());
    }
}
