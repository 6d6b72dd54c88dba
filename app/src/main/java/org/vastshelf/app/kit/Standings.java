package org.vastshelf.app.kit;

import org.vastshelf.core.failure.PoolState;

/** How a pool or a group stands, as a mark. */
public final class Standings {

    private Standings() {}

    public static Mark mark(PoolState.Standing standing) {
        return new Mark(
                switch (standing) {
                    case WHOLE -> Mark.State.FINE;
                    case REBUILDING -> Mark.State.WAITING;
                    case DEGRADED -> Mark.State.ACT;
                    case LOST -> Mark.State.FAILED;
                },
                standing.title());
    }
}
