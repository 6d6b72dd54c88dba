package org.vastshelf.core.change;

import java.util.Optional;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.Pool;

/**
 * One thing that changes about a pool. It is done to the pool as it is then, not as it was planned, so that a hot spare
 * that took over meanwhile stays where it is.
 */
public sealed interface PoolEdit permits GroupEdit, MemberEdit, RoomEdit {

    /** Why the pool does not allow it any more. */
    Optional<String> obstacle(Estate estate, Pool pool);

    Estate apply(Estate estate, Pool pool);

    Estate undo(Estate estate, Pool pool);

    /** Why undoing it would harm what others have done since. */
    default Optional<String> undoObstacle(Estate estate, Pool pool) {
        return Optional.empty();
    }

    /** The same edit, knowing what it finds. */
    default PoolEdit on(Estate estate, Pool pool) {
        return this;
    }

    /** Whether it copies between members, and so has to wait while one of them is rebuilt. */
    default boolean copies() {
        return false;
    }
}
