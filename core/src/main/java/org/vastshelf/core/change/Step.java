package org.vastshelf.core.change;

import java.time.Duration;
import java.util.List;
import java.util.Optional;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.Usage;

/**
 * One act of an order. Each knows what the estate is like after it and how to get back to what it was before; both
 * are pure, and whoever carries out an order stores the difference.
 */
public sealed interface Step
        permits PoolStep,
                VolumeStep,
                ShareStep,
                LimitStep,
                RetentionStep,
                FileStep,
                PairStep,
                CloneStep,
                RuleStep,
                ThingStep,
                AwayStep,
                HardwareStep,
                EstateStep,
                Step.Work {

    String title();

    /** How long the devices are expected to take. */
    Duration expected();

    Estate apply(Estate estate);

    /** Why the estate, which other orders may have changed since, does not allow the step any more. */
    default Optional<String> obstacle(Estate estate) {
        return Optional.empty();
    }

    /** What has to end first, for a step that can't be done side by side with it. */
    default Optional<Wait> waits(Estate estate) {
        return Wait.forPower(estate, servers(estate));
    }

    /** File servers that do the step. */
    default List<String> servers(Estate estate) {
        return List.of();
    }

    /** The step as it can be done on the estate as it is now, knowing all that {@link #undo} will need. */
    default Step on(Estate estate) {
        return this;
    }

    /** Why it can't be undone without harm to what others have built upon it since. */
    default Optional<String> undoObstacle(Estate estate, Usage usage) {
        return Optional.empty();
    }

    /** The estate as it was before {@link #apply}. */
    Estate undo(Estate estate);

    /** Takes time and leaves the estate as it is: copying, checking, restarting. */
    record Work(String title, Duration expected, List<String> at) implements Step {
        public Work {
            // Orders written before steps waited for power do not name it.
            at = at == null ? List.of() : List.copyOf(at);
        }

        @Override
        public List<String> servers(Estate estate) {
            return at;
        }

        @Override
        public Estate apply(Estate estate) {
            return estate;
        }

        @Override
        public Estate undo(Estate estate) {
            return estate;
        }
    }
}
