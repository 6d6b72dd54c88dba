package org.vastshelf.core.estate;

import java.time.Duration;
import java.time.Instant;
import java.time.ZoneId;
import java.time.ZoneOffset;
import java.time.format.DateTimeFormatter;
import java.util.Locale;
import java.util.Optional;
import org.vastshelf.core.snapshot.KeepRule;
import org.vastshelf.core.time.Schedule;
import org.vastshelf.core.time.ScheduleWords;

/**
 * When snapshots of a volume are taken by themselves, and which of them stay.
 *
 * @param when at most every five minutes
 * @param keep keeps at least one
 * @param pattern what they are called; {@code {day}}, {@code {time}} and {@code {number}} stand for those of the snapshot
 */
public record SnapshotRule(String volume, Schedule when, KeepRule keep, String pattern) implements Rule {

    public static final int LONGEST_PATTERN = 60;
    /** Of a name, so that a number that sets it apart still fits behind it. */
    public static final int LONGEST_NAME = 80;

    private static final DateTimeFormatter DAY = DateTimeFormatter.ofPattern("uuuu-MM-dd", Locale.ROOT);
    private static final DateTimeFormatter TIME = DateTimeFormatter.ofPattern("HH.mm", Locale.ROOT);

    public SnapshotRule {
        when.atMostEvery(Duration.ofMinutes(5), "snapshot");
        if (keep.keepsNothing()) {
            throw new IllegalArgumentException("no snapshot would stay; one of the figures must be more than 0");
        }
        if (pattern.isBlank() || pattern.length() > LONGEST_PATTERN) {
            throw new IllegalArgumentException(
                    "name pattern is " + pattern.length() + " characters long, must be 1 to " + LONGEST_PATTERN);
        }
        int longest =
                name(pattern, Instant.EPOCH, ZoneOffset.UTC, Integer.MAX_VALUE).length();
        if (longest > LONGEST_NAME) {
            throw new IllegalArgumentException("name pattern '" + pattern + "' makes names of " + longest
                    + " characters, must be at most " + LONGEST_NAME);
        }
    }

    /** What a snapshot is called that is taken at a moment. */
    public String name(Instant at, ZoneId zone, int number) {
        return name(pattern, at, zone, number);
    }

    private static String name(String pattern, Instant at, ZoneId zone, int number) {
        return pattern.replace("{day}", DAY.format(at.atZone(zone)))
                .replace("{time}", TIME.format(at.atZone(zone)))
                .replace("{number}", String.valueOf(number))
                .strip();
    }

    @Override
    public Kind<SnapshotRule> kind() {
        return Kinds.SNAPSHOTTING;
    }

    @Override
    public Kind<?> subject() {
        return Kinds.VOLUME;
    }

    @Override
    public String governs() {
        return volume;
    }

    @Override
    public SnapshotRule governing(String other) {
        return new SnapshotRule(other, when, keep, pattern);
    }

    @Override
    public Optional<Schedule> schedule() {
        return Optional.of(when);
    }

    @Override
    public String title() {
        return "Take snapshots of volume " + volume + " " + ScheduleWords.of(when);
    }

    @Override
    public Optional<String> refusal(Estate estate) {
        return fault(estate)
                .or(() -> Optional.of(estate.volumes().get(volume).kind())
                        .filter(kind -> !kind.keepsSnapshots())
                        .map(kind -> "volume " + volume + " has a file system of the kind '" + kind.title()
                                + "', which keeps no snapshots"));
    }
}
