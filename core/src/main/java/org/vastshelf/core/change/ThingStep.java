package org.vastshelf.core.change;

import java.time.Duration;
import java.util.Optional;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.Kind;
import org.vastshelf.core.estate.Usage;

/**
 * A step that sets, changes or drops one thing of the estate, and asks nothing but whether it fits and is still what it
 * was.
 */
public sealed interface ThingStep<T> extends Step permits ColdStep, TieringStep {

    /** Name of the thing. */
    String name();

    /** Empty where there was none. */
    Optional<T> before();

    /** Empty where there is to be none. */
    Optional<T> after();

    /** What kind of thing it is. */
    Kind<T> of();

    /** Why there can't be such a thing in the estate as it is. */
    Optional<String> fault(T thing, Estate estate);

    @Override
    default String title() {
        String deed = after().isEmpty() ? "Drop" : before().isPresent() ? "Change" : "Set up";
        return deed + " the " + of() + " " + name();
    }

    @Override
    default Duration expected() {
        return Duration.ofSeconds(1);
    }

    @Override
    default Optional<String> obstacle(Estate estate) {
        return Steps.unless(
                        estate.find(of(), name()).equals(before()),
                        "the " + of() + " " + name() + " was changed meanwhile")
                .or(() -> after().flatMap(thing -> fault(thing, estate)));
    }

    @Override
    default Optional<String> undoObstacle(Estate estate, Usage usage) {
        return Steps.unless(
                        estate.find(of(), name()).equals(after()), "the " + of() + " " + name() + " was changed since")
                .or(() -> before().flatMap(thing -> fault(thing, estate)));
    }

    @Override
    default Estate apply(Estate estate) {
        return Steps.with(estate, of(), name(), after());
    }

    @Override
    default Estate undo(Estate estate) {
        return Steps.with(estate, of(), name(), before());
    }
}
