package org.vastshelf.core.protect;

import java.time.Duration;
import java.time.Instant;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import org.vastshelf.core.estate.ProtectionGoal;
import org.vastshelf.core.estate.ProtectionGoal.Loss;
import org.vastshelf.core.unit.Counted;

/**
 * The newest state of a share that could be brought back after a mishap.
 *
 * @param state when it was so
 * @param changed bytes that were changed since, and would be lost
 * @param back how long bringing it back takes
 * @param from from what it would come
 * @param how in which way that is computed
 */
public record Recovery(Instant state, long changed, Duration back, String from, String how) {

    /** How long a copy takes to take over: names and addresses are moved, clients come back. */
    public static final Duration TAKE_OVER = Duration.ofSeconds(20);

    /** Why it falls short of what is wanted; empty where it does not, or where nothing is wanted. */
    public static Optional<String> shortfall(
            Optional<ProtectionGoal> goal, Loss loss, Optional<Recovery> recovery, Instant now) {
        if (goal.filter(g -> g.against().contains(loss)).isEmpty()) {
            return Optional.empty();
        }
        ProtectionGoal wanted = goal.get();
        if (recovery.isEmpty()) {
            return Optional.of("nothing could be brought back");
        }
        Duration age = Duration.between(recovery.get().state, now);
        if (age.compareTo(Duration.ofMinutes(wanted.loseMinutes())) > 0) {
            return Optional.of("what is left is " + words(age) + " old, at most "
                    + words(Duration.ofMinutes(wanted.loseMinutes())) + " are wanted");
        }
        return recovery.get().back.compareTo(Duration.ofMinutes(wanted.backMinutes())) > 0
                ? Optional.of("bringing it back takes " + words(recovery.get().back) + ", at most "
                        + words(Duration.ofMinutes(wanted.backMinutes())) + " are wanted")
                : Optional.empty();
    }

    private static String words(Duration time) {
        if (time.toHours() < 2) {
            return Counted.of(time.toMinutes(), "minute");
        }
        return time.toDays() < 3 ? Counted.of(time.toHours(), "hour") : Counted.of(time.toDays(), "day");
    }

    /** The recovery that leaves the newest state; of two as new the quicker one. */
    public static Optional<Recovery> best(List<Recovery> of) {
        return of.stream().min(Comparator.comparing(Recovery::state).reversed().thenComparing(Recovery::back));
    }
}
