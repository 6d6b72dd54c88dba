package org.vastshelf.core.failure;

import java.time.Instant;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import org.vastshelf.core.estate.Drive;
import org.vastshelf.core.estate.DriveState;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.Pool;
import org.vastshelf.core.estate.Usage;

/** Drives of pools that fail of themselves: those that ailed until they had no sector left for worn ones. */
public final class WearOut {

    private WearOut() {}

    /** When the next drive of a pool will; empty where none does. */
    public static Optional<Instant> next(Estate estate, Pool pool) {
        return running(estate, pool).stream()
                .flatMap(drive -> drive.health().wornOutAt().stream())
                .min(Comparator.naturalOrder());
    }

    /** Lets those fail that have none left by a moment, the first of them first. */
    public static Mishaps.Outcome advance(Estate estate, Usage usage, Instant now) {
        List<Drive> worn = estate.pools().values().stream()
                .flatMap(pool -> running(estate, pool).stream())
                .filter(drive -> drive.health()
                        .wornOutAt()
                        .filter(at -> !at.isAfter(now))
                        .isPresent())
                .sorted(Comparator.comparing(drive -> drive.health().wornOutAt().orElseThrow()))
                .toList();
        Estate next = estate;
        List<String> told = new ArrayList<>();
        for (Drive drive : worn) {
            told.add("Drive " + drive.key() + " has no sector left to put in the place of worn ones");
            Mishaps.Outcome failed = Mishaps.apply(next, usage, new Mishap.DriveFails(drive.key()), now);
            next = failed.estate();
            told.addAll(failed.told());
        }
        return new Mishaps.Outcome(next, told);
    }

    private static List<Drive> running(Estate estate, Pool pool) {
        return estate.servers().get(pool.server()).dark()
                ? List.of()
                : estate.drives(pool.drives().toList()).stream()
                        .filter(drive -> drive.state() != DriveState.FAILED)
                        .toList();
    }
}
