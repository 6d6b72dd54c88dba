package org.vastshelf.app.desk;

import java.util.List;
import java.util.Locale;
import org.vastshelf.app.kit.Figures;
import org.vastshelf.app.kit.Mark;
import org.vastshelf.app.road.Outcome;
import org.vastshelf.core.gate.Verdict;

/**
 * What the gate said to a try.
 *
 * @param why and remedy of a refusal; empty for what was allowed
 */
public record AnswerView(
        Mark verdict, String tried, String why, String remedy, List<Gate> gates, String audit, long receipt) {

    /** What one of the gates answered. */
    public record Gate(String name, Mark answer, String rule, String said) {}

    static AnswerView of(Figures fmt, Outcome outcome) {
        Verdict verdict = outcome.verdict(fmt.units());
        return new AnswerView(
                verdict.allowed() ? Mark.fine("allowed") : Mark.failed("refused"),
                lower(outcome.operation().kind()).replace('_', ' ') + " "
                        + outcome.operation().path()
                        + outcome.operation().to().map(to -> " to " + to).orElse(""),
                verdict.refusal().map(r -> r.rule() + " " + r.said() + ".").orElse(""),
                verdict.refusal().map(r -> "What to do: " + r.remedy() + ".").orElse(""),
                verdict.trace().stream()
                        .map(line -> new Gate(
                                lower(line.stage()),
                                switch (line.outcome()) {
                                    case PASSES -> Mark.fine("passes");
                                    case REFUSES -> Mark.failed("refuses");
                                    case NOT_ASKED -> Mark.waiting("not asked");
                                },
                                line.rule(),
                                line.said()))
                        .toList(),
                "An audit line was written; its receipt is " + fmt.count(outcome.receipt()) + ".",
                outcome.receipt());
    }

    private static String lower(Enum<?> word) {
        return word.name().toLowerCase(Locale.ROOT);
    }
}
