package org.vastshelf.app.orders;

import java.time.Instant;
import java.util.Optional;
import org.vastshelf.core.change.Step;

/** What is done for a step beside changing the estate, portion by portion, each in a transaction of its own. */
public interface StepWork {

    /** A step of an order, for which somebody is answerable. */
    record Task(long order, int position, Step step, String who) {}

    /** A portion can't be done, now or later; all it did is taken back, and the order with it. */
    final class Impossible extends RuntimeException {
        public Impossible(String why) {
            super(why);
        }
    }

    /** Whether this does such a step. */
    boolean does(Step step);

    /** Why it can't be done as things are by now. */
    default Optional<String> obstacle(Task task) {
        return Optional.empty();
    }

    /**
     * Does a portion.
     *
     * @throws Impossible when it can't be done
     * @return when to come again; empty when all is done
     */
    Optional<Instant> portion(Task task, Instant at);

    /**
     * Undoes a portion of a step that was done, or of one that was begun.
     *
     * @return whether all is undone
     */
    boolean undo(Task task);

    /** What there is to say of a step that was done; empty for nothing. */
    String outcome(Task task);
}
