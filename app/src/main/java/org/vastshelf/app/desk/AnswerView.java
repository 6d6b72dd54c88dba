package org.vastshelf.app.desk;

import java.util.List;
import java.util.Locale;
import org.vastshelf.app.kit.Figures;
import org.vastshelf.app.kit.Mark;
import org.vastshelf.app.road.Outcome;
import org.vastshelf.core.gate.FileOperation.Kind;
import org.vastshelf.core.gate.Verdict;

/**
 * What the gate said to a try.
 *
 * @param why and remedy of a refusal; empty for what was allowed
 * @param note what is to be known of it; empty for nothing
 */
public record AnswerView(
        Mark verdict,
        String tried,
        String why,
        String remedy,
        List<Gate> gates,
        String audit,
        long receipt,
        String note) {

    private static final String NO_CONTENTS =
            "Nobody saved this file from a browser; the stand-in knows its size and times, and has no contents to hand"
                    + " out.";

    /** What one of the gates answered. */
    public record Gate(String name, Mark answer, String rule, String said) {}

    static AnswerView of(Figures fmt, Outcome outcome) {
        Verdict verdict = outcome.verdict(fmt.units());
        boolean read = outcome.operation().kind() == Kind.READ;
        return new AnswerView(
                verdict.allowed() ? Mark.fine("allowed") : Mark.failed("refused"),
                lower(outcome.operation().kind()) + " " + outcome.operation().path(),
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
                outcome.receipt(),
                verdict.allowed() && read ? NO_CONTENTS : "");
    }

    private static String lower(Enum<?> word) {
        return word.name().toLowerCase(Locale.ROOT);
    }
}
