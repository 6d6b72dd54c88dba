package org.vastshelf.app.build;

import org.jspecify.annotations.Nullable;
import org.vastshelf.app.kit.Figure;
import org.vastshelf.app.kit.Figures;
import org.vastshelf.core.layout.Layout;
import org.vastshelf.core.layout.LayoutAnswer.NotPossible;
import org.vastshelf.core.layout.LayoutAnswer.Possible;
import org.vastshelf.core.layout.LayoutQuestion;
import org.vastshelf.core.unit.Bytes;

/**
 * A layout in the comparison.
 *
 * @param why it is not possible; empty where it is
 * @param answer null where it is not possible
 */
public record LayoutRow(
        Layout layout, boolean chosen, String why, @Nullable Answer answer) {

    private static final int BAR = 112;
    private static final int LONG_REBUILD = 24;
    private static final String SMALL_WRITE =
            "Reads and writes on drives that one small write costs: old data and parity are read, new ones written; a"
                    + " mirror writes every copy.";
    private static final String ODDS =
            "Markov chain on the number of failed drives over 8,760 hours: failures at −ln(1 − yearly failure"
                    + " rate)/8760 each hour and drive, one rebuild at a time, and an unrecoverable read met by the last"
                    + " rebuild loses too.";

    /** What it would give; the bar is divided into data, protection and stranded px. */
    public record Answer(
            Figure data,
            int dataBar,
            int protectionBar,
            int strandedFrom,
            int strandedBar,
            String ofLabels,
            int survives,
            Figure smallWrite,
            String rebuild,
            Figure odds,
            String stranded,
            String note) {}

    static LayoutRow of(NotPossible not, boolean chosen) {
        return new LayoutRow(not.layout(), chosen, not.reason() + "; " + not.remedy(), null);
    }

    static LayoutRow of(Figures fmt, Possible possible, LayoutQuestion question, int groups, boolean chosen) {
        Bytes whole = Bytes.sum(question.members());
        int data = bar(possible.data(), whole);
        int protection = bar(possible.protection(), whole);
        int cost = possible.layout().smallWriteCost(question.members().size() / groups);
        return new LayoutRow(
                possible.layout(),
                chosen,
                "",
                new Answer(
                        Figure.of(fmt.large(possible.data())).why(exact(fmt, possible)),
                        data,
                        protection,
                        data + protection,
                        bar(possible.stranded(), whole),
                        fmt.percent(possible.data().shareOf(labels(question))),
                        possible.survives(),
                        Figure.of(cost + " ×").why(SMALL_WRITE),
                        possible.rebuildHours().stream()
                                .mapToObj(fmt::hours)
                                .findFirst()
                                .orElse("—"),
                        Figure.of(fmt.odds(possible.yearlyLossOdds())).why(ODDS),
                        possible.stranded().isZero() ? "0" : fmt.large(possible.stranded()),
                        note(possible)));
    }

    private static String exact(Figures fmt, Possible possible) {
        return fmt.exact(possible.data()) + " bytes of data, " + fmt.exact(possible.protection()) + " of protection, "
                + fmt.exact(possible.stranded())
                + " stranded. Each drive gives floor((label − 2 GiB) / 1 MiB) × 1 MiB.";
    }

    /** What the labels of the members say, smallest first as spares are the largest. */
    private static Bytes labels(LayoutQuestion question) {
        return Bytes.sum(question.drives().stream()
                .sorted()
                .limit(question.members().size())
                .toList());
    }

    private static int bar(Bytes part, Bytes whole) {
        return (int) Math.round(part.shareOf(whole) * BAR);
    }

    private static String note(Possible possible) {
        if (possible.survives() == 0) {
            return "no protection";
        }
        return possible.rebuildHours().orElse(0) > LONG_REBUILD ? "long rebuild" : "";
    }

    public String css() {
        return chosen ? "chosen" : "";
    }

    public boolean isPossible() {
        return answer != null;
    }
}
