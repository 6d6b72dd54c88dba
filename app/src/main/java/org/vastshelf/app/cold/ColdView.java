package org.vastshelf.app.cold;

import java.util.List;
import java.util.stream.Stream;
import org.vastshelf.app.kit.Figures;
import org.vastshelf.app.kit.Mark;
import org.vastshelf.core.estate.ColdStore;

/**
 * A cold store as its page shows it.
 *
 * @param facts what it is
 * @param looks what its last check came to
 */
record ColdView(String name, List<Fact> facts, Mark standing, String checked, List<LookRow> looks) {

    record Fact(String title, String said) {}

    record LookRow(String title, Mark mark, String said, String remedy) {}

    /** A store in the list. */
    record Row(String name, String endpoint, String bucket, String price, Mark standing, String checked) {}

    static Row row(Figures fmt, ColdStores.Known known) {
        ColdStore store = known.store();
        return new Row(
                store.name(),
                store.endpoint(),
                store.bucket() + "/" + store.prefix(),
                fmt.money(store.prices().perTibMonth()),
                standing(known),
                checked(fmt, known));
    }

    static ColdView of(Figures fmt, ColdStores.Known known, String currency) {
        ColdStore store = known.store();
        return new ColdView(
                store.name(),
                Stream.of(
                                new Fact(
                                        "Endpoint",
                                        store.endpoint() + ", "
                                                + (store.pathStyle()
                                                        ? "the bucket in the path"
                                                        : "the bucket before the host's name")),
                                new Fact("Region", store.region()),
                                new Fact(
                                        "Bucket",
                                        store.bucket() + ", all objects below "
                                                + (store.prefix().isEmpty() ? "its root" : store.prefix())),
                                new Fact(
                                        "Authority",
                                        store.authority().isEmpty() ? "those that this host trusts" : "its own"),
                                new Fact(
                                        "Objects",
                                        store.encrypted() ? "encrypted before they leave" : "leave as they are"),
                                new Fact("Asks", asks(fmt, store, currency)),
                                new Fact(
                                        "Keys",
                                        known.keys()
                                                .map(set -> "set by " + set.by() + " " + fmt.moment(set.at()))
                                                .orElse("none yet")))
                        .toList(),
                standing(known),
                checked(fmt, known),
                known.checked().stream()
                        .flatMap(checked -> checked.findings().stream())
                        .map(finding ->
                                new LookRow(finding.look().title(), mark(finding), said(finding), finding.remedy()))
                        .toList());
    }

    private static String said(Finding finding) {
        return finding.millis() == null ? finding.said() : finding.said() + ", in " + finding.millis() + " ms";
    }

    private static String asks(Figures fmt, ColdStore store, String currency) {
        return currency + " " + fmt.money(store.prices().perTibMonth()) + " a TiB and month, "
                + fmt.money(store.prices().perThousandRequests()) + " for 1,000 requests, "
                + fmt.money(store.prices().perTibRecalled()) + " a TiB recalled";
    }

    private static Mark standing(ColdStores.Known known) {
        if (known.keys().isEmpty()) {
            return Mark.watch("has no keys");
        }
        return known.checked()
                .map(checked ->
                        checked.isPassed() ? Mark.fine("does all it should") : Mark.act("does not do all it should"))
                .orElse(Mark.waiting("not checked yet"));
    }

    private static String checked(Figures fmt, ColdStores.Known known) {
        return known.checked()
                .map(checked -> "checked " + fmt.moment(checked.at()) + " by " + checked.by())
                .orElse("");
    }

    private static Mark mark(Finding finding) {
        return switch (finding.outcome()) {
            case PASSED -> Mark.fine("yes");
            case FAILED -> Mark.failed("no");
            case NOT_TRIED -> Mark.waiting("not tried");
        };
    }
}
