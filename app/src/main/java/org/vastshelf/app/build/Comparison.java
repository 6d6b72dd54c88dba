package org.vastshelf.app.build;

import java.util.List;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.vastshelf.core.layout.Advice;
import org.vastshelf.core.layout.Layout;
import org.vastshelf.core.layout.LayoutAnswer;
import org.vastshelf.core.layout.LayoutAnswer.NotPossible;
import org.vastshelf.core.layout.LayoutAnswer.Possible;
import org.vastshelf.core.layout.LayoutComparison;
import org.vastshelf.core.layout.LayoutQuestion;
import org.vastshelf.core.layout.LayoutShape;
import org.vastshelf.core.unit.Bytes;

/** The layouts side by side, as the composer shows them. */
public record Comparison(
        LayoutQuestion question, int groups, List<Line> lines, List<GroupBands> bands, Optional<Advice> advice) {

    private static final int BAR = 112;
    private static final int CELL = 42;

    /** One layout; the bar is divided into data, protection and stranded px. */
    public record Line(LayoutAnswer answer, int data, int protection, int stranded, boolean chosen, String note) {

        public boolean isPossible() {
            return answer instanceof Possible;
        }

        public Possible possible() {
            return (Possible) answer;
        }

        public NotPossible notPossible() {
            return (NotPossible) answer;
        }

        /** Share of the members' labels that becomes data. */
        public double efficiency(LayoutQuestion question) {
            return possible()
                    .data()
                    .shareOf(Bytes.sum(question.drives().stream()
                            .sorted()
                            .limit(question.members().size())
                            .toList()));
        }

        public int smallWrite(LayoutQuestion question, int groups) {
            return answer.layout().smallWriteCost(question.members().size() / groups);
        }
    }

    /** A band of a terraced layout: cells from the right, the largest drives. */
    public record BandPicture(LayoutShape.Band band, int y, int height, int x) {}

    /** The bands of one of the groups. */
    public record GroupBands(int drives, List<BandPicture> bands) {}

    /** Nothing is chosen for anybody; the bands are those of the layout chosen or else of the one advised. */
    static Comparison of(LayoutQuestion question, @Nullable Layout chosen, int groups) {
        Optional<Advice> advice = Advice.of(question);
        @Nullable Layout drawn = chosen == null ? advice.map(Advice::layout).orElse(null) : chosen;
        Bytes whole = Bytes.sum(question.members());
        List<LayoutAnswer> answers = LayoutComparison.compare(question, groups);
        List<Line> lines = answers.stream().map(a -> line(a, whole, chosen)).toList();
        List<GroupBands> bands = answers.stream()
                .filter(a -> a.layout() == drawn && a instanceof Possible)
                .flatMap(a -> LayoutComparison.parts(question, groups).stream()
                        .flatMap(part -> bands(a.layout(), part).stream()))
                .toList();
        return new Comparison(question, groups, lines, bands, advice);
    }

    private static Optional<GroupBands> bands(Layout layout, LayoutQuestion part) {
        int drives = part.members().size();
        return LayoutComparison.shape(layout, part) instanceof LayoutShape.Bands b
                ? Optional.of(new GroupBands(
                        drives, pictures(b.bands(), part.members().getLast(), drives)))
                : Optional.empty();
    }

    private static Line line(LayoutAnswer answer, Bytes whole, @Nullable Layout chosen) {
        boolean is = answer.layout() == chosen;
        return switch (answer) {
            case NotPossible not -> new Line(not, 0, 0, 0, is, not.reason() + "; " + not.remedy());
            case Possible p ->
                new Line(p, bar(p.data(), whole), bar(p.protection(), whole), bar(p.stranded(), whole), is, note(p));
        };
    }

    private static int bar(Bytes part, Bytes whole) {
        return (int) Math.round(part.shareOf(whole) * BAR);
    }

    private static String note(Possible p) {
        if (p.survives() == 0) {
            return "no protection";
        }
        return p.rebuildHours().orElse(0) > 24 ? "long rebuild" : "";
    }

    private static List<BandPicture> pictures(List<LayoutShape.Band> bands, Bytes tallest, int drives) {
        List<BandPicture> pictures = new java.util.ArrayList<>();
        int y = 150;
        for (LayoutShape.Band band : bands) {
            int height = (int) Math.max(16, Math.round(band.thickness().shareOf(tallest) * 130));
            y -= height;
            pictures.add(new BandPicture(band, y, height - 2, (drives - band.drives()) * CELL));
        }
        return pictures;
    }
}
