package org.vastshelf.app.tier;

import java.math.BigDecimal;
import java.util.List;
import java.util.Optional;
import java.util.stream.IntStream;
import org.vastshelf.app.kit.AmountText;
import org.vastshelf.app.kit.AtField;
import org.vastshelf.app.rule.TypedValues;
import org.vastshelf.core.catalogue.AgeBasis;
import org.vastshelf.core.tier.KeepBelow;
import org.vastshelf.core.tier.Passage;
import org.vastshelf.core.tier.Scope;
import org.vastshelf.core.tier.TierRule;
import org.vastshelf.core.unit.Bytes;
import org.vastshelf.core.unit.SizeText;

/**
 * What is asked on the page, as it was typed; what was not typed is as usual.
 *
 * @param within folders a line; none for all
 * @param kinds only these, with commas between them; none for all
 * @param people whose files stay
 * @param rule the name of a rule that this is, before which others decide; empty for none
 * @param percent empty for all that may leave
 * @param store name of a cold store; empty for none
 * @param link MiB a second that go over to the store
 * @param backup MiB a second that the nightly backup reads
 */
record Leaving(
        Integer days,
        AgeBasis by,
        String larger,
        String within,
        String exclude,
        String kinds,
        String people,
        String rule,
        String percent,
        String store,
        String link,
        String backup) {

    static final int USUAL_DAYS = 365;
    static final int MOST_DAYS = 2_200;
    private static final String USUAL_RATE = "100";
    private static final Bytes MOST = Bytes.tib(1_024);

    Leaving {
        days = days == null ? USUAL_DAYS : days;
        by = by == null ? AgeBasis.LAST_USE : by;
        larger = larger == null ? "0" : larger.strip();
        within = within == null ? "" : within.strip();
        exclude = exclude == null ? "" : exclude.strip();
        kinds = kinds == null ? "" : kinds.strip();
        people = people == null ? "" : people.strip();
        rule = rule == null ? "" : rule;
        percent = percent == null ? "" : percent.strip();
        store = store == null ? "" : store;
        link = link == null ? USUAL_RATE : link.strip();
        backup = backup == null ? USUAL_RATE : backup.strip();
    }

    Passage overTheLink() {
        return passage("link", link);
    }

    Passage ofTheBackup() {
        return passage("backup", backup);
    }

    private static Passage passage(String field, String typed) {
        return AtField.read(field, () -> new Passage(AmountText.parse(field, typed)));
    }

    /** The rule that is asked about, in the form it has for one catalogue. */
    TierRule rule(long capacity, List<Scope> earlier) {
        return new TierRule(days, by, scope(), earlier, keepBelow(capacity));
    }

    /** All that may ever leave by it, of whichever age. */
    TierRule ofAnyAge(List<Scope> earlier) {
        return new TierRule(0, by, scope(), earlier, Optional.empty());
    }

    private Scope scope() {
        return new Scope(
                folders("within", within),
                folders("exclude", exclude),
                TypedValues.kinds("kinds", kinds),
                TypedValues.list(people),
                size());
    }

    private long size() {
        return AtField.read(
                "larger",
                () -> larger.equals("0") || larger.isEmpty()
                        ? 0
                        : SizeText.parse("size", larger, Bytes.ZERO, MOST).value());
    }

    private static List<String> folders(String field, String typed) {
        List<String> lines =
                typed.lines().map(String::strip).filter(line -> !line.isEmpty()).toList();
        IntStream.range(0, lines.size())
                .filter(i -> !lines.get(i).startsWith("/"))
                .findFirst()
                .ifPresent(i -> {
                    throw new AtField(field, "folder " + (i + 1) + " is '" + lines.get(i) + "', must begin with /");
                });
        return lines;
    }

    private Optional<KeepBelow> keepBelow(long capacity) {
        return percent.isEmpty() || capacity == 0
                ? Optional.empty()
                : AtField.read("percent", () -> {
                    try {
                        return Optional.of(new KeepBelow(new BigDecimal(percent), capacity));
                    } catch (NumberFormatException none) {
                        throw new IllegalArgumentException("'" + percent + "' is no number, must be 0 to 100", none);
                    }
                });
    }
}
