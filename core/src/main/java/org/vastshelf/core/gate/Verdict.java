package org.vastshelf.core.gate;

import java.util.List;
import java.util.Optional;

/** The answer to one file operation, with every rule that was looked at and what it said. */
public record Verdict(boolean allowed, List<Line> trace) {

    public Verdict {
        trace = List.copyOf(trace);
    }

    /** The gates in the order in which they are passed. */
    public enum Stage {
        REACH,
        ACCESS,
        RETENTION,
        CONTENT,
        LIMITS,
        SPACE,
        APPLY
    }

    public enum Outcome {
        PASSES,
        REFUSES,
        NOT_ASKED
    }

    /**
     * One rule looked at.
     *
     * @param rule what was asked: the rule in the words in which it is written
     * @param said its answer, with the figures
     * @param remedy what the person can do; empty for nothing
     */
    public record Line(Stage stage, Outcome outcome, String rule, String said, String remedy) {}

    /** The line that refused, if one did. */
    public Optional<Line> refusal() {
        return trace.stream().filter(l -> l.outcome() == Outcome.REFUSES).findFirst();
    }

    /** One sentence: what happened and why. */
    public String reason() {
        return refusal().map(l -> l.rule() + " " + l.said()).orElse("allowed");
    }
}
