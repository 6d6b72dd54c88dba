package org.vastshelf.app.orders;

import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import org.vastshelf.core.change.Change;
import org.vastshelf.core.change.Step;
import org.vastshelf.core.unit.UnitSystem;

/**
 * A set of changes: a draft, or on its way, or ended.
 *
 * @param carriedOutBy who let it begin; empty for a draft
 * @param heldAt while paused, since when; afterwards, the moment from which it may go on; null when it never rested
 */
public record Order(
        long id,
        String author,
        String carriedOutBy,
        OrderState state,
        Instant createdAt,
        @Nullable Instant startedAt,
        @Nullable Instant finishedAt,
        @Nullable Instant heldAt,
        Set<String> confirmed,
        String outcome,
        List<Line> lines,
        List<Journalled> steps) {

    public Order {
        confirmed = Set.copyOf(confirmed);
        lines = List.copyOf(lines);
        steps = List.copyOf(steps);
    }

    /** A change in a draft; a struck one is kept, so that it can be restored. */
    public record Line(int position, boolean struck, Change change) {}

    public enum StepState {
        WAITING,
        STARTED,
        DONE,
        TAKEN_BACK
    }

    /** A step with its journal. */
    public record Journalled(
            int position,
            StepState state,
            @Nullable Instant startedAt,
            @Nullable Instant dueAt,
            @Nullable Instant finishedAt,
            Step step) {

        Journalled delayed(Duration by) {
            return new Journalled(position, state, startedAt.plus(by), dueAt.plus(by), finishedAt, step);
        }

        /** Not begun yet, or to be begun again. */
        Journalled waiting() {
            return new Journalled(position, StepState.WAITING, null, null, null, step);
        }

        /** Share of the expected time that has passed, 0 to 100. */
        public int percent(Instant now) {
            if (state == StepState.DONE) {
                return 100;
            }
            if (state != StepState.STARTED || startedAt == null || dueAt == null) {
                return 0;
            }
            long all = Math.max(1, Duration.between(startedAt, dueAt).toMillis());
            return (int) Math.clamp(Duration.between(startedAt, now).toMillis() * 100 / all, 0, 99);
        }
    }

    /** The step that is next or under way, if any. */
    public Optional<Journalled> current() {
        return steps.stream().filter(s -> s.state() != StepState.DONE).findFirst();
    }

    /** The steps behind this one. */
    public List<Step> after(Journalled step) {
        return steps.subList(step.position() + 1, steps.size()).stream()
                .map(Journalled::step)
                .toList();
    }

    /** The changes that are not struck. */
    public List<Change> changes() {
        return lines.stream().filter(l -> !l.struck()).map(Line::change).toList();
    }

    /** The first change in words, and how many more. */
    public String title() {
        return title(UnitSystem.BINARY);
    }

    /** The same for one reader. */
    public String title(UnitSystem units) {
        List<Change> changes = changes();
        if (changes.isEmpty()) {
            return "Nothing yet";
        }
        String more = changes.size() == 1 ? "" : " and " + (changes.size() - 1) + " more";
        return changes.getFirst().title(units) + more;
    }

    public long doneSteps() {
        return steps.stream().filter(s -> s.state() == StepState.DONE).count();
    }

    public boolean isUnderWay() {
        return state.isUnderWay();
    }
}
