package org.vastshelf.app.build;

import java.time.LocalDate;
import java.util.List;
import java.util.Optional;
import java.util.function.ToDoubleFunction;
import org.vastshelf.app.kit.Bar;
import org.vastshelf.app.kit.Figure;
import org.vastshelf.app.kit.Figures;
import org.vastshelf.app.kit.Mark;
import org.vastshelf.core.layout.Replacement;
import org.vastshelf.core.unit.Bytes;
import org.vastshelf.core.unit.Counted;

/**
 * What a pool has after each drive that is replaced by a larger one.
 *
 * @param gone what can't be read as it begins; empty for nothing
 * @param lasts whether the pool lasts until the end; empty where nobody knows when it is full
 */
public record ReplaceView(
        String taken, String before, List<Row> rows, String inAll, String gone, Optional<Mark> lasts, String full) {

    private static final int BAR = 200;
    private static final String STAYING =
            "The old drive stays until the new one is filled: the pool's odds of loss over these hours.";
    private static final String PULLED =
            "The old drive is pulled first: the odds of losing data before the new one is filled, with one drive gone."
                    + " An unrecoverable read of the last copy counts as loss.";

    /** One drive for another. */
    public record Row(String drives, String data, Bar bar, String least, String most, Figure staying, Figure pulled) {}

    /**
     * Writes the stages out.
     *
     * @param full when the pool is likely full
     * @param end when the last drive is filled
     */
    static ReplaceView of(
            Figures fmt,
            List<Replacement.Stage> stages,
            Bytes before,
            boolean takeSpace,
            Optional<LocalDate> full,
            LocalDate end) {
        Bytes largest = stages.stream()
                .map(Replacement.Stage::data)
                .max(Bytes::compareTo)
                .orElse(Bytes.ZERO);
        return new ReplaceView(
                takeSpace
                        ? "As if it had taken all space of its members by then."
                        : "It is not told to take the new space, so it gains nothing.",
                fmt.large(before),
                stages.stream().map(s -> row(fmt, s, largest)).toList(),
                inAll(fmt, stages),
                gone(stages.getFirst().gone()),
                full.map(day ->
                        day.isAfter(end) ? Mark.fine("lasts until the end") : Mark.act("runs full before the end")),
                full.map(day -> "; the pool is likely full on " + fmt.day(day)).orElse(""));
    }

    private static Row row(Figures fmt, Replacement.Stage stage, Bytes largest) {
        return new Row(
                Figures.printed(stage.oldSize()) + " → " + Figures.printed(stage.newSize()),
                fmt.large(stage.data()),
                Bar.of(stage.data().shareOf(largest), BAR, Mark.State.FINE),
                fmt.hours(stage.leastHours()),
                fmt.hours(stage.mostHours()),
                Figure.of(fmt.odds(stage.oddsStaying())).why(STAYING),
                Figure.of(fmt.odds(stage.oddsPulled())).why(PULLED));
    }

    private static String inAll(Figures fmt, List<Replacement.Stage> stages) {
        return "In all " + fmt.hours(sum(stages, Replacement.Stage::leastHours)) + " to "
                + fmt.hours(sum(stages, Replacement.Stage::mostHours)) + " hours; odds of loss while it runs "
                + fmt.odds(together(stages, Replacement.Stage::oddsStaying))
                + " if the old drives stay until the new ones are filled, "
                + fmt.odds(together(stages, Replacement.Stage::oddsPulled))
                + " if each is pulled first. It can be paused, and goes on after a restart.";
    }

    private static double sum(List<Replacement.Stage> stages, ToDoubleFunction<Replacement.Stage> each) {
        return stages.stream().mapToDouble(each).sum();
    }

    private static double together(List<Replacement.Stage> stages, ToDoubleFunction<Replacement.Stage> odds) {
        return -Math.expm1(sum(stages, s -> Math.log1p(-Math.min(odds.applyAsDouble(s), 1 - 1e-16))));
    }

    private static String gone(int others) {
        return others == 0
                ? ""
                : Counted.of(others, "other member") + " can't be read as it begins, and the odds count that. Let the"
                        + " rebuild end first, or replace what failed first.";
    }
}
