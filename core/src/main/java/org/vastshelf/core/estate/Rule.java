package org.vastshelf.core.estate;

import java.util.Optional;
import org.vastshelf.core.time.Schedule;

/** When something is done by itself. A thing of its own, kept under the name of what it governs. */
public sealed interface Rule
        permits GrowthRule,
                LiftRule,
                ScrubRule,
                SnapshotRule,
                ReserveRule,
                PoolReserveRule,
                PoolPrice,
                ProtectionGoal,
                RehearsalRule,
                SavingRule {

    Kind<? extends Rule> kind();

    /** The kind of thing that it governs. */
    Kind<?> subject();

    /** Name of the thing that it governs. */
    String governs();

    /** The same for another thing. */
    Rule governing(String other);

    /** When it wants it; empty for only by hand, and for what is so all the time. */
    default Optional<Schedule> schedule() {
        return Optional.empty();
    }

    /** What it lets happen, in words. */
    String title();

    /** Why there can't be such a rule in the estate as it is; asked of every state that is stored. */
    default Optional<String> fault(Estate estate) {
        return estate.all(subject()).containsKey(governs())
                ? Optional.empty()
                : Optional.of("there is no " + subject() + " '" + governs() + "'");
    }

    /** Why nobody can set it now, though it may stand. */
    default Optional<String> refusal(Estate estate) {
        return fault(estate);
    }
}
