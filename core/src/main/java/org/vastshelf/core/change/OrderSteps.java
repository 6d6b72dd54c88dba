package org.vastshelf.core.change;

import java.util.List;
import java.util.Optional;
import java.util.stream.Collectors;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.Usage;
import org.vastshelf.core.invariant.Invariants;
import org.vastshelf.core.invariant.Violation;

/** Does and undoes steps of an order on the estate as it is by then, and keeps what the order holds in step. */
public final class OrderSteps {

    private OrderSteps() {}

    /** How a step went. */
    public sealed interface Outcome {}

    /** The step as it was done, and the estate after it. */
    public record Moved(Step step, Estate estate) implements Outcome {}

    /** The estate does not allow it. */
    public record Stopped(String because) implements Outcome {}

    /** Does a step; {@code later} are the order's steps behind it. */
    public static Outcome forward(long order, Estate estate, Usage usage, Step step, List<Step> later) {
        Estate own = estate.withoutHold(order);
        Optional<String> obstacle = step.obstacle(own);
        if (obstacle.isPresent()) {
            return new Stopped(obstacle.get());
        }
        Step done = step.on(own);
        Estate after = done.apply(own);
        return whole(own, after, usage, done) instanceof Stopped stopped
                ? stopped
                : new Moved(done, after.withHold(Holds.of(order, after, usage, later)));
    }

    /** Undoes a step that was done. What the order held is free again: it goes no further. */
    public static Outcome back(long order, Estate estate, Usage usage, Step step) {
        Estate own = estate.withoutHold(order);
        Optional<String> obstacle = step.undoObstacle(own, usage);
        return obstacle.isPresent() ? new Stopped(obstacle.get()) : whole(own, step.undo(own), usage, step);
    }

    private static Outcome whole(Estate before, Estate after, Usage usage, Step step) {
        List<Violation> broken = Invariants.brokenBy(before, after, usage);
        return broken.isEmpty()
                ? new Moved(step, after)
                : new Stopped(broken.stream().map(Violation::text).collect(Collectors.joining("; ")));
    }
}
