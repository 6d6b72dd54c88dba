package org.vastshelf.app.tier;

import java.util.List;
import java.util.Optional;
import java.util.function.Function;
import java.util.stream.Stream;
import org.vastshelf.app.kit.AtField;
import org.vastshelf.app.kit.Field;
import org.vastshelf.app.kit.Typed;
import org.vastshelf.app.rule.ScheduleForm;
import org.vastshelf.app.rule.TypedValues;
import org.vastshelf.core.catalogue.AgeBasis;
import org.vastshelf.core.estate.ComeBack;
import org.vastshelf.core.estate.TieringRule;
import org.vastshelf.core.unit.Bytes;
import org.vastshelf.core.unit.SizeText;

/** A tiering rule as it is typed. */
record RuleTyping(
        String name,
        String rank,
        String store,
        String places,
        AgeBasis by,
        String days,
        String larger,
        String kinds,
        String stays,
        String people,
        String percent,
        ComeBack.Manner manner,
        String reads,
        String withinDays,
        String hours,
        String mibps,
        String most,
        String keepDays) {

    private static final int USUAL_DAYS = 365;
    private static final int USUAL_KEPT = 30;

    /** Fields that belong together. */
    public record Part(String legend, List<Field> fields) {}

    /** From when age is counted. */
    static Field countedFrom(Typed.Fields typed, AgeBasis chosen) {
        return typed.select(
                "by",
                "Counted from",
                List.of(AgeBasis.values()),
                AgeBasis::name,
                basis -> basis == AgeBasis.LAST_USE ? "the last use" : "the last change",
                chosen);
    }

    /** The fields, filled with what a rule says, or with what is usual. */
    static List<Part> parts(Typed.Fields typed, Optional<TieringRule> rule, List<String> stores, int nextRank) {
        Function<Function<TieringRule, Object>, String> said =
                of -> rule.map(of).map(String::valueOf).orElse("");
        Stream<Field> name = rule.isPresent()
                ? Stream.of()
                : Stream.of(typed.text("name", "Name", "").width("w-40"));
        Stream<Field> which = Stream.of(
                typed.area(
                                "places",
                                "Shares or folders",
                                rule.map(r -> TypedValues.lines(r.places())).orElse(""))
                        .with("rows", 2)
                        .hint("one a line, such as press or press:/issues")
                        .width("w-64"),
                typed.text(
                                "days",
                                "Older than, in days",
                                rule.map(r -> r.olderThanDays()).orElse(USUAL_DAYS) + "")
                        .width("w-36"),
                countedFrom(typed, rule.map(TieringRule::by).orElse(AgeBasis.LAST_USE))
                        .width("w-40"),
                typed.text(
                                "larger",
                                "Larger than",
                                rule.map(r -> size(r.largerThanBytes())).orElse("64 KiB"))
                        .width("w-32"),
                typed.text(
                                "kinds",
                                "Only",
                                rule.map(r -> TypedValues.said(r.kinds())).orElse(""))
                        .hint("such as films, pictures; empty for all kinds")
                        .width("w-64"),
                typed.area(
                                "stays",
                                "Except in",
                                rule.map(r -> TypedValues.lines(r.exceptPlaces()))
                                        .orElse(""))
                        .with("rows", 2)
                        .hint("one a line, such as press:/issues/2026")
                        .width("w-64"),
                typed.text(
                                "people",
                                "Except of",
                                rule.map(r -> String.join(", ", r.exceptPeople()))
                                        .orElse(""))
                        .hint("accounts, with commas between them")
                        .width("w-56"));
        Stream<Field> how = Stream.of(
                typed.select("store", "To", stores, rule.map(TieringRule::store).orElse(stores.getFirst()))
                        .width("w-36"),
                typed.text(
                                "percent",
                                "Only while more is used than %",
                                rule.flatMap(TieringRule::keepBelow)
                                        .map(String::valueOf)
                                        .orElse(""))
                        .hint("of the volume, by living files; empty for always")
                        .width("w-60"),
                typed.select(
                                "manner",
                                "Comes back whole",
                                List.of(ComeBack.Manner.values()),
                                ComeBack.Manner::name,
                                ComeBack.Manner::title,
                                rule.map(r -> r.back().manner()).orElse(ComeBack.Manner.ON_WRITE))
                        .width("w-80"),
                typed.text(
                                "reads",
                                "Reads",
                                rule.map(r -> zeroless(r.back().reads())).orElse(""))
                        .width("w-24"),
                typed.text(
                                "withinDays",
                                "within days",
                                rule.map(r -> zeroless(r.back().withinDays())).orElse(""))
                        .width("w-24"),
                typed.text("rank", "Rank", rule.map(TieringRule::rank).orElse(nextRank) + "")
                        .hint("the lowest decides")
                        .width("w-36"),
                typed.text(
                                "keepDays",
                                "Keep what was deleted, days",
                                rule.map(TieringRule::keepDays).orElse(USUAL_KEPT) + "")
                        .width("w-56"));
        Stream<Field> run = Stream.of(
                typed.text("hours", "Hours of a run", said.apply(r -> zeroless(r.hours())))
                        .hint("empty for until it is through")
                        .width("w-48"),
                typed.text("mibps", "At most MiB a second", said.apply(r -> zeroless(r.mibps())))
                        .width("w-44"),
                typed.text(
                                "most",
                                "At most in a run",
                                rule.map(r -> r.mostBytes() == 0 ? "" : size(r.mostBytes()))
                                        .orElse(""))
                        .hint("such as 2 TiB")
                        .width("w-36"));
        Stream<Field> when =
                ScheduleForm.fields(typed, rule.flatMap(TieringRule::when), ScheduleForm.hourly()).stream();
        return List.of(
                new Part("What leaves?", Stream.concat(name, which).toList()),
                new Part("Where does it go, and how does it come back?", how.toList()),
                new Part("When does it run?", Stream.concat(when, run).toList()));
    }

    private static String zeroless(int value) {
        return value == 0 ? "" : String.valueOf(value);
    }

    private static String size(long bytes) {
        return SizeText.exact(Bytes.of(bytes));
    }

    /** The rule that is meant. */
    TieringRule rule(String as, ScheduleForm when) {
        return new TieringRule(
                as,
                TypedValues.number("rank", rank, ""),
                store == null ? "" : store,
                TypedValues.places("places", places),
                by == null ? AgeBasis.LAST_USE : by,
                TypedValues.number("days", days, ""),
                TypedValues.size("larger", larger),
                TypedValues.kinds("kinds", kinds),
                TypedValues.places("stays", stays),
                TypedValues.list(people),
                TypedValues.text(percent).isEmpty()
                        ? Optional.empty()
                        : Optional.of(TypedValues.number("percent", percent, "")),
                back(),
                when.schedule(),
                TypedValues.number("hours", hours, "0"),
                TypedValues.number("mibps", mibps, "0"),
                TypedValues.size("most", most),
                TypedValues.number("keepDays", keepDays, "0"));
    }

    private ComeBack back() {
        ComeBack.Manner chosen = manner == null ? ComeBack.Manner.ON_WRITE : manner;
        return chosen == ComeBack.Manner.AFTER_READS
                ? AtField.read(
                        "reads",
                        () -> new ComeBack(
                                chosen,
                                TypedValues.number("reads", reads, "0"),
                                TypedValues.number("withinDays", withinDays, "0")))
                : new ComeBack(chosen, 0, 0);
    }
}
