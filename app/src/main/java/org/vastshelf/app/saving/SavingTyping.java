package org.vastshelf.app.saving;

import java.util.List;
import java.util.Optional;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import org.vastshelf.app.kit.AtField;
import org.vastshelf.app.kit.Field;
import org.vastshelf.app.kit.Typed;
import org.vastshelf.app.rule.ScheduleForm;
import org.vastshelf.app.rule.TypedValues;
import org.vastshelf.core.estate.SavingRule;
import org.vastshelf.core.estate.SavingRule.Aim;
import org.vastshelf.core.saving.Cut;

/** A saving rule as it is typed. */
record SavingTyping(
        @Nullable Aim aim,
        @Nullable Cut cut,
        @Nullable Integer unit,
        @Nullable String days,
        @Nullable String kinds,
        @Nullable String names,
        @Nullable String stays,
        @Nullable String hours,
        @Nullable String mibps) {

    private static final int KIB = 1 << 10;

    /** Fields that belong together. */
    public record Part(String legend, List<Field> fields) {}

    /** The fields, filled with what a rule says, or with what is usual. */
    static List<Part> parts(Typed.Fields typed, String volume, Optional<SavingRule> said) {
        SavingRule rule = said.orElseGet(() -> SavingRule.usual(volume));
        List<Integer> lengths = IntStream.iterate(
                        SavingRule.LEAST_UNIT, bytes -> bytes <= SavingRule.MOST_UNIT, bytes -> bytes * 2)
                .boxed()
                .toList();
        Stream<Field> what = Stream.of(
                typed.select("aim", "What is done", List.of(Aim.values()), Aim::name, Aim::title, rule.aim())
                        .width("w-72"),
                typed.select("cut", "Units are", List.of(Cut.values()), Cut::name, Cut::title, rule.cut())
                        .width("w-64"),
                typed.select("unit", "of", lengths, String::valueOf, bytes -> bytes / KIB + " KiB", rule.unitBytes())
                        .width("w-28"));
        Stream<Field> which = Stream.of(
                typed.text("days", "Not changed for days", String.valueOf(rule.leastDays()))
                        .width("w-44"),
                typed.text("kinds", "Except", TypedValues.said(rule.exceptKinds()))
                        .hint("kinds, with commas between them")
                        .width("w-64"),
                typed.text("names", "Except names like", String.join(", ", rule.exceptNames()))
                        .hint("such as *.iso, backup-*")
                        .width("w-56"),
                typed.area("stays", "Except in", TypedValues.lines(rule.exceptPlaces()))
                        .with("rows", 2)
                        .hint("one a line, such as press:/issues/2026")
                        .width("w-64"));
        Stream<Field> run = Stream.of(
                typed.text("hours", "Hours of a run", String.valueOf(rule.hours()))
                        .width("w-36"),
                typed.text("mibps", "At most MiB a second", String.valueOf(rule.mibps()))
                        .hint("less what clients ask of the server")
                        .width("w-56"));
        Stream<Field> when = ScheduleForm.fields(typed, Optional.of(rule.when()), ScheduleForm.always()).stream();
        return List.of(
                new Part("What becomes of files?", what.toList()),
                new Part("Of which?", which.toList()),
                new Part("When?", Stream.concat(when, run).toList()));
    }

    /** The rule that is meant. */
    SavingRule rule(String volume, ScheduleForm when) {
        return new SavingRule(
                volume,
                aim == null ? Aim.ONCE : aim,
                cut == null ? Cut.BLOCKS : cut,
                unit == null ? SavingRule.usual(volume).unitBytes() : unit,
                TypedValues.number("days", days, "0"),
                TypedValues.kinds("kinds", kinds),
                TypedValues.list(names),
                TypedValues.places("stays", stays),
                when.schedule().orElseThrow(() -> new AtField("often", "how often is 'never', must be something else")),
                TypedValues.number("hours", hours, ""),
                TypedValues.number("mibps", mibps, ""));
    }
}
