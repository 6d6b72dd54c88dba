package org.vastshelf.standins.scenario;

import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalTime;
import java.time.ZoneOffset;
import java.util.List;
import java.util.Set;
import org.vastshelf.core.estate.SnapshotRule;
import org.vastshelf.core.snapshot.KeepRule;
import org.vastshelf.core.time.Schedule;

/**
 * The snapshots that volumes of the demo have when it begins: one was taken each night for months, and some of them
 * were kept.
 *
 * @param taken oldest first
 */
public record Nights(List<Instant> taken) {

    private static final KeepRule KEEP = new KeepRule(0, 0, 14, 6, 3, 0);
    /** Volumes that somebody set a schedule for. */
    public static final Set<String> VOLUMES = Set.of("film", "herbarium", "homes", "office", "plans");

    private static final LocalDate FIRST = LocalDate.of(2025, 11, 1);
    private static final LocalTime AT = LocalTime.of(22, 30);
    private static final LocalDate LAST = LocalDate.of(2026, 3, 1);

    /** By which they were taken, and go on. */
    static SnapshotRule rule(String volume) {
        return new SnapshotRule(volume, new Schedule(FIRST.atTime(AT), "FREQ=DAILY"), KEEP, "nightly {day}");
    }

    public static Nights of(String volume) {
        if (!VOLUMES.contains(volume)) {
            return new Nights(List.of());
        }
        List<Instant> all = FIRST.datesUntil(LAST.plusDays(1))
                .map(day -> day.atTime(AT).toInstant(ZoneOffset.UTC))
                .toList();
        return new Nights(List.copyOf(KEEP.kept(all, ZoneOffset.UTC)));
    }

    /** How many of them had been taken before a moment, in seconds since 1970. */
    public int before(long seconds) {
        return (int) taken.stream().filter(at -> at.getEpochSecond() < seconds).count();
    }
}
