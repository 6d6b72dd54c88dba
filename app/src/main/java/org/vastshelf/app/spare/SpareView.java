package org.vastshelf.app.spare;

import java.math.BigDecimal;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.springframework.web.util.UriUtils;
import org.vastshelf.app.kit.Figures;
import org.vastshelf.app.saving.SavingRun;
import org.vastshelf.app.spare.Spares.Spare;
import org.vastshelf.core.estate.Share;
import org.vastshelf.core.saving.Savings;
import org.vastshelf.core.spare.Ages;
import org.vastshelf.core.spare.ShareCost;
import org.vastshelf.core.tier.AgeBand;

/** What could be spared, in words. */
final class SpareView {

    static final int YEAR = AgeBand.THREE_YEARS.leastDays();

    private final Figures fmt;
    private final String currency;

    SpareView(Figures fmt, String currency) {
        this.fmt = fmt;
        this.currency = currency;
    }

    /** Where to look further. */
    record Link(String said, String address) {}

    /** A share or folder in the list. */
    record Row(
            String name,
            String of,
            String bytes,
            String equal,
            String equalShare,
            String unused,
            String unusedShare,
            String now,
            String once,
            String away,
            List<Link> links) {}

    /**
     * What could be done, and what that takes.
     *
     * @param saves money a month
     * @param once money for requests
     * @param recalls money a month, at most, that is counted in
     * @param chance that what left is used again within 30 days, at most
     * @param paid the month in which it has paid
     * @param action where it is drafted
     */
    record Advice(
            String saves,
            String what,
            String reads,
            String once,
            String recalls,
            String chance,
            String paid,
            String action) {}

    Row row(Spare spare, Optional<Share> share) {
        Optional<ShareCost> cost = spare.cost();
        Ages ages = cost.map(ShareCost::ages).orElse(Ages.NONE);
        Ages.Sum unused = ages.unused(YEAR);
        boolean known = ages.here().all().files() > 0;
        return new Row(
                spare.catalogue().name(),
                switch (spare.catalogue().source()) {
                    case SHARE -> "";
                    case FOLDER -> spare.catalogue().root();
                    case TABLE -> "a CSV, without its files";
                },
                fmt.size(spare.catalogue().bytes()),
                equal(spare),
                spare.saved().isPresent()
                        ? ""
                        : spare.run().map(run -> part(run.savings())).orElse(""),
                known ? fmt.size(unused.all().bytes()) : "",
                known
                        ? fmt.percent(unused.all().bytes()
                                / (double) Math.max(1, ages.here().all().bytes()))
                        : "",
                money(cost.flatMap(ShareCost::monthly)),
                money(cost.flatMap(ShareCost::withEqualOnce)),
                money(cost.flatMap(c -> c.withoutUnused(YEAR))),
                links(spare.catalogue().name(), share));
    }

    private String equal(Spare spare) {
        return spare.saved()
                .map(saved -> fmt.size(saved) + " spared")
                .orElseGet(() -> spare.run().map(this::measured).orElse("not measured"));
    }

    private String measured(SavingRun run) {
        String saved = fmt.size(run.savings().savedBytes());
        return run.savings().standardErrorBytes() == 0
                ? saved
                : saved + " ± " + fmt.size(run.savings().standardErrorBytes());
    }

    private String part(Savings savings) {
        return savings.bytes() == 0 ? "" : fmt.percent(savings.savedBytes() / (double) savings.bytes());
    }

    private String money(Optional<BigDecimal> amount) {
        return amount.map(this::money).orElse("");
    }

    private static List<Link> links(String catalogue, Optional<Share> share) {
        List<Link> links = new ArrayList<>();
        links.add(new Link("what leaves?", "/lighten/leaving/" + segment(catalogue)));
        share.ifPresent(s -> links.add(new Link("by folder", "/lighten/shares/" + segment(s.name()))));
        share.ifPresent(s -> links.add(new Link("keep once", "/lighten/volumes/" + segment(s.volume()))));
        return links;
    }

    private static String segment(String name) {
        return UriUtils.encodePathSegment(name, StandardCharsets.UTF_8);
    }

    Advice advice(ShareCost.Measure measure) {
        String saves = money(measure.saves());
        String to = "/lighten/measures/" + segment(measure.share());
        return switch (measure) {
            case ShareCost.KeepOnce once ->
                new Advice(
                        saves,
                        once.share() + ": keep equal parts once, which frees " + fmt.size(once.frees()),
                        fmt.size(once.reads()),
                        "",
                        "",
                        "",
                        "the first",
                        to + "/once");
            case ShareCost.LetLeave away ->
                new Advice(
                        saves,
                        away.share() + ": let leave what nobody used for "
                                + AgeBand.of(away.days()).least(),
                        fmt.size(away.leaving().bytes()) + " in "
                                + fmt.counted(away.leaving().files(), "file"),
                        money(away.cost().once()),
                        money(away.cost().recalls()),
                        fmt.percent(away.cost().chance()),
                        away.cost().paidInMonth().map(SpareView::month).orElse("never"),
                        to + "/away?days=" + away.days());
        };
    }

    /** The month in which something has paid. */
    static String month(int month) {
        return month == 1 ? "the first" : "month " + month;
    }

    private String money(BigDecimal amount) {
        return fmt.money(amount);
    }

    /** What all shares cost together, where it is known. */
    Optional<String> whole(List<ShareCost> costs) {
        return costs.stream()
                .flatMap(cost -> cost.monthly().stream())
                .reduce(BigDecimal::add)
                .map(sum -> currency + " " + fmt.money(sum));
    }
}
