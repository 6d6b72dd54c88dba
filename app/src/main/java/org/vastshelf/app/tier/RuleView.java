package org.vastshelf.app.tier;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.stream.Collectors;
import org.springframework.web.util.UriComponentsBuilder;
import org.vastshelf.app.kit.Figures;
import org.vastshelf.app.kit.Mark;
import org.vastshelf.app.rule.TypedValues;
import org.vastshelf.core.catalogue.AgeBasis;
import org.vastshelf.core.catalogue.FileKind;
import org.vastshelf.core.estate.SharePlace;
import org.vastshelf.core.estate.TieringRule;
import org.vastshelf.core.tier.FirstRule;
import org.vastshelf.core.tier.Scope;
import org.vastshelf.core.time.ScheduleWords;
import org.vastshelf.core.unit.Bytes;
import org.vastshelf.core.unit.SizeText;

/** Tiering rules and their runs as pages say them. */
final class RuleView {

    private static final String BY_HAND = "by hand only";

    private RuleView() {}

    /** A rule in the list. */
    public record Row(
            String name, int rank, String what, String age, String store, String when, Mark state, String last) {}

    static Row row(Figures fmt, TieringRule rule, Optional<TierRun> last) {
        return new Row(
                rule.name(),
                rule.rank(),
                places(rule.places()),
                age(rule),
                rule.store(),
                when(rule),
                last.map(RuleView::mark).orElse(Mark.waiting("never ran")),
                last.map(run -> fmt.counted(run.files(), "file") + ", " + fmt.size(run.bytes()))
                        .orElse(""));
    }

    private static Mark mark(TierRun run) {
        return switch (run.state()) {
            case RUNNING ->
                run.again().isPresent()
                        ? Mark.watch("waits")
                        : Mark.waiting(run.state().title());
            case DONE ->
                run.stayed() > 0
                        ? Mark.watch("some stayed")
                        : Mark.fine(run.state().title());
            case STOPPED -> Mark.watch(run.state().title());
        };
    }

    private static String places(List<SharePlace> places) {
        return places.stream()
                .map(place -> place.folder().isRoot() ? place.share() : place.toString())
                .collect(Collectors.joining(", "));
    }

    private static String age(TieringRule rule) {
        return rule.olderThanDays() + " days since the last " + (rule.by() == AgeBasis.LAST_USE ? "use" : "change");
    }

    private static String when(TieringRule rule) {
        return rule.when().map(ScheduleWords::of).orElse(BY_HAND);
    }

    static String overlap(FirstRule.Overlap overlap) {
        return overlap.first().name() + " and " + overlap.second().name()
                + " look into the same folders: what both are about leaves by "
                + overlap.first().name() + ", which has the lower rank.";
    }

    /** Something that a rule says. */
    public record Fact(String title, String said) {}

    static List<Fact> facts(Figures fmt, TieringRule rule) {
        List<Fact> facts = new ArrayList<>();
        facts.add(new Fact("What lies in", places(rule.places())));
        facts.add(new Fact("and is older than", age(rule)));
        facts.add(new Fact("and larger than", rule.largerThanBytes() == 0 ? "0" : fmt.size(rule.largerThanBytes())));
        if (!rule.kinds().isEmpty()) {
            facts.add(new Fact(
                    "only", rule.kinds().stream().sorted().map(FileKind::title).collect(Collectors.joining(", "))));
        }
        if (!rule.exceptPlaces().isEmpty()) {
            facts.add(new Fact("except in", places(rule.exceptPlaces())));
        }
        if (!rule.exceptPeople().isEmpty()) {
            facts.add(new Fact("except of", String.join(", ", rule.exceptPeople())));
        }
        facts.add(new Fact("goes to", rule.store()));
        rule.keepBelow()
                .ifPresent(percent -> facts.add(new Fact(
                        "the coldest first, while", "living files use more than " + percent + " % of the volume")));
        facts.add(new Fact("and runs", when(rule) + limits(fmt, rule)));
        facts.add(new Fact("Comes back whole", rule.back().title()));
        facts.add(new Fact("What was deleted is kept", fmt.counted(rule.keepDays(), "day")));
        return facts;
    }

    private static String limits(Figures fmt, TieringRule rule) {
        return (rule.hours() == 0 ? "" : ", for " + fmt.counted(rule.hours(), "hour"))
                + (rule.mibps() == 0 ? "" : ", at most " + rule.mibps() + " MiB a second")
                + (rule.mostBytes() == 0 ? "" : ", at most " + fmt.size(rule.mostBytes()) + " in a run");
    }

    /** Where it can be seen beforehand what a rule would do. */
    public record Preview(String said, String address) {}

    static List<Preview> previews(TieringRule rule) {
        return rule.places().stream()
                .map(SharePlace::share)
                .distinct()
                .map(share -> new Preview("what of " + share + " would leave", preview(rule, share)))
                .toList();
    }

    private static String preview(TieringRule rule, String share) {
        Scope scope = Scope.of(rule, share).orElseThrow();
        return UriComponentsBuilder.fromPath("/lighten/leaving/{share}")
                .queryParam("rule", "{rule}")
                .queryParam("days", rule.olderThanDays())
                .queryParam("by", rule.by())
                .queryParam("larger", "{larger}")
                .queryParam("within", "{within}")
                .queryParam("exclude", "{exclude}")
                .queryParam("kinds", "{kinds}")
                .queryParam("people", "{people}")
                .queryParam("percent", rule.keepBelow().map(String::valueOf).orElse(""))
                .queryParam("store", "{store}")
                .encode()
                .buildAndExpand(
                        share,
                        rule.name(),
                        SizeText.exact(Bytes.of(scope.largerThanBytes())),
                        String.join("\n", scope.folders()),
                        String.join("\n", scope.exceptFolders()),
                        TypedValues.said(scope.kinds()),
                        String.join(", ", scope.exceptPeople()),
                        rule.store())
                .toUriString();
    }

    /** A run in the list. */
    public record Run(
            long id,
            String begun,
            String by,
            Mark state,
            String files,
            String bytes,
            String stayed,
            String problem,
            boolean running) {}

    static Run run(Figures fmt, TierRun run) {
        return new Run(
                run.id(),
                fmt.moment(run.begun()),
                run.who().equals(TierRun.BY_RULE) ? "its schedule" : run.who(),
                mark(run),
                fmt.count(run.files()),
                fmt.size(run.bytes()),
                run.stayed() == 0 ? "" : fmt.count(run.stayed()),
                run.problem(),
                run.state() == TierRun.State.RUNNING);
    }
}
