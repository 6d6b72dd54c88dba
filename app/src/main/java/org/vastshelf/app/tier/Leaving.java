package org.vastshelf.app.tier;

import java.math.BigDecimal;
import java.util.List;
import java.util.Optional;
import java.util.stream.IntStream;
import org.vastshelf.app.kit.AmountText;
import org.vastshelf.app.kit.AtField;
import org.vastshelf.core.catalogue.AgeBasis;
import org.vastshelf.core.tier.KeepBelow;
import org.vastshelf.core.tier.Passage;
import org.vastshelf.core.tier.TierRule;
import org.vastshelf.core.unit.Bytes;
import org.vastshelf.core.unit.SizeText;

/**
 * What is asked on the page, as it was typed; what was not typed is as usual.
 *
 * @param percent empty for all that may leave
 * @param store name of a cold store; empty for none
 * @param link MiB a second that go over to the store
 * @param backup MiB a second that the nightly backup reads
 */
record Leaving(
        Integer days,
        AgeBasis by,
        String larger,
        String exclude,
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
        exclude = exclude == null ? "" : exclude.strip();
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

    /** The rule that is asked about. */
    TierRule rule(long capacity) {
        return new TierRule(days, by, size(), folders(), keepBelow(capacity));
    }

    /** All that may ever leave by it, of whichever age. */
    TierRule ofAnyAge() {
        return new TierRule(0, by, size(), folders(), Optional.empty());
    }

    private long size() {
        return AtField.read(
                "larger",
                () -> larger.equals("0") || larger.isEmpty()
                        ? 0
                        : SizeText.parse("size", larger, Bytes.ZERO, MOST).value());
    }

    private List<String> folders() {
        List<String> lines = exclude.lines()
                .map(String::strip)
                .filter(line -> !line.isEmpty())
                .toList();
        IntStream.range(0, lines.size())
                .filter(i -> !lines.get(i).startsWith("/"))
                .findFirst()
                .ifPresent(i -> {
                    throw new AtField("exclude", "folder " + (i + 1) + " is '" + lines.get(i) + "', must begin with /");
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
