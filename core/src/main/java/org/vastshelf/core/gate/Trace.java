package org.vastshelf.core.gate;

import java.util.ArrayList;
import java.util.List;
import org.vastshelf.core.gate.Verdict.Line;
import org.vastshelf.core.gate.Verdict.Outcome;
import org.vastshelf.core.gate.Verdict.Stage;
import org.vastshelf.core.unit.UnitSystem;

/** Gathers what the rules said. */
final class Trace {

    private final List<Line> lines = new ArrayList<>();
    private final UnitSystem units;

    Trace(UnitSystem units) {
        this.units = units;
    }

    /** In which its sentences give sizes. */
    UnitSystem units() {
        return units;
    }

    void note(Stage stage, String rule, String said) {
        lines.add(new Line(stage, Outcome.PASSES, rule, said, ""));
    }

    void skip(Stage stage, String rule, String why) {
        lines.add(new Line(stage, Outcome.NOT_ASKED, rule, why, ""));
    }

    void refuse(Stage stage, String rule, String said, String remedy) {
        lines.add(new Line(stage, Outcome.REFUSES, rule, said, remedy));
    }

    List<Line> lines() {
        return List.copyOf(lines);
    }
}
