package org.vastshelf.app.build;

import java.time.Duration;
import java.util.List;
import java.util.Optional;
import org.vastshelf.app.kit.AtField;
import org.vastshelf.app.kit.Field;
import org.vastshelf.app.kit.Typed;
import org.vastshelf.app.kit.WholeNumbers;
import org.vastshelf.app.rule.ScheduleForm;
import org.vastshelf.core.estate.GrowthRule;
import org.vastshelf.core.estate.Volume;
import org.vastshelf.core.unit.Bytes;
import org.vastshelf.core.unit.SizeText;

/** What was typed about a rule of automatic growth. */
record GrowthForm(String trigger, String step, String ceiling, String pauseHours) {

    GrowthForm {
        trigger = trigger == null ? "10 %" : trigger;
        step = step == null ? "20 %" : step;
        ceiling = ceiling == null ? "" : ceiling;
        pauseHours = pauseHours == null ? "24" : pauseHours;
    }

    static GrowthForm of(Volume volume, Optional<GrowthRule> kept) {
        return kept.map(rule -> new GrowthForm(
                        rule.triggerPercent() > 0
                                ? rule.triggerPercent() + " %"
                                : rule.triggerBytes().value() / Bytes.MIB + " MiB",
                        rule.stepPercent() + " %",
                        rule.ceiling().value() / Bytes.GIB + " GiB",
                        String.valueOf(rule.pause().toHours())))
                .orElseGet(() -> new GrowthForm(null, null, volume.size().value() * 2 / Bytes.GIB + " GiB", null));
    }

    /** The fields in which it is typed. */
    List<Field> fields(Typed.Fields typed) {
        return List.of(
                typed.text("trigger", "When less is free than", trigger).width("w-40"),
                typed.text("step", "by", step).width("w-24"),
                typed.text("ceiling", "never above", ceiling).width("w-36"),
                typed.text("pauseHours", "pause, hours", pauseHours).width("w-32"));
    }

    /**
     * The rule that is meant.
     *
     * @throws IllegalArgumentException naming what can't be read
     */
    GrowthRule rule(String volume, ScheduleForm looks) {
        boolean percent = trigger.strip().endsWith("%");
        return new GrowthRule(
                volume,
                looks.schedule().orElse(GrowthRule.OFTEN),
                AtField.read("trigger", () -> percent ? WholeNumbers.percent("trigger", trigger, 1, 90) : 0),
                AtField.read(
                        "trigger",
                        () -> percent
                                ? Bytes.ZERO
                                : SizeText.parse("trigger", trigger, Bytes.of(Bytes.MIB), Volume.MOST)),
                AtField.read("step", () -> WholeNumbers.percent("step", step, 0, 1_000)),
                AtField.read("ceiling", () -> SizeText.parse("ceiling", ceiling, Volume.LEAST, Volume.MOST)),
                Duration.ofHours(AtField.read("pauseHours", () -> WholeNumbers.whole("pause", pauseHours))));
    }
}
