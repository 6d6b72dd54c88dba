package org.vastshelf.app.agenda;

import java.time.Instant;
import java.util.Optional;
import java.util.function.Supplier;
import org.vastshelf.core.agenda.DueKind;

/** What is done when something of one kind falls due. */
public interface DueWork {

    DueKind kind();

    /** Whether this installation does it at all. */
    default boolean isWanted() {
        return true;
    }

    /** Whether it takes milliseconds at most, and may share a transaction with others that do. */
    default boolean isQuick() {
        return false;
    }

    /**
     * Does what fell due, in the transaction that claimed it; the clock stands at its moment meanwhile. What it throws is
     * written down, and it is tried again.
     *
     * @param key what it is about
     * @param at when it fell due, which a jump of the clock may have left behind
     */
    void act(String key, Instant at);

    /**
     * When it falls due again, asked after {@link #act}.
     *
     * @param byAgenda when core says so
     * @return the same moment for at once; empty for no more
     */
    default Optional<Instant> again(String key, Instant at, Supplier<Optional<Instant>> byAgenda) {
        return byAgenda.get();
    }

    /** It failed, and all it did was taken back. */
    default void failed(String key, RuntimeException why) {}

    /** Whether it looks at what is by now: of several nights that lie behind, the last is enough. */
    default boolean isOfNow() {
        return false;
    }

    /** Whether nobody waits for that of the last night: whoever moves the clock gets an answer before it is done. */
    default boolean isUnhurried() {
        return false;
    }
}
