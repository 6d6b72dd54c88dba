package org.vastshelf.app.build;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.vastshelf.app.kit.Figures;
import org.vastshelf.core.estate.Drive;
import org.vastshelf.core.layout.Advice;
import org.vastshelf.core.layout.Layout;
import org.vastshelf.core.layout.LayoutAnswer;
import org.vastshelf.core.layout.LayoutAnswer.NotPossible;
import org.vastshelf.core.layout.LayoutAnswer.Possible;
import org.vastshelf.core.layout.LayoutComparison;
import org.vastshelf.core.layout.LayoutQuestion;
import org.vastshelf.core.layout.LayoutShape;
import org.vastshelf.core.unit.Counted;

/**
 * The layouts side by side, as the composer shows them.
 *
 * @param chosen how many drives of which size
 * @param spares which of them are kept; empty for none
 * @param advice what is advised, with its reasons; no reasons where nothing can be
 */
public record Comparison(
        String chosen,
        String sizes,
        String spares,
        String advice,
        List<String> reasons,
        List<LayoutRow> rows,
        List<BandsPicture> bands) {

    /** Nothing is chosen for anybody; the bands are those of the layout chosen or else of the one advised. */
    static Comparison of(
            Figures fmt,
            List<Drive> drives,
            List<Drive> spares,
            LayoutQuestion question,
            @Nullable Layout chosen,
            int groups) {
        Optional<Advice> advice = Advice.of(question, fmt.units());
        @Nullable Layout drawn = chosen == null ? advice.map(Advice::layout).orElse(null) : chosen;
        List<LayoutAnswer> answers = LayoutComparison.compare(question, groups);
        return new Comparison(
                Counted.of(drives.size(), "drive") + " chosen:",
                sizes(drives, groups),
                spares(spares),
                advice.map(a -> "Advice: " + a.layout().title())
                        .orElse("Advice: these drives allow no protection; choose more."),
                advice.map(Advice::reasons).orElse(List.of()),
                answers.stream()
                        .map(a -> row(fmt, a, question, groups, a.layout() == chosen))
                        .toList(),
                answers.stream()
                        .filter(a -> a.layout() == drawn && a instanceof Possible)
                        .flatMap(a -> bands(fmt, a.layout(), LayoutComparison.parts(question, groups)).stream())
                        .toList());
    }

    private static String sizes(List<Drive> drives, int groups) {
        Map<String, Long> sizes = new LinkedHashMap<>();
        drives.stream()
                .sorted(Comparator.comparing(Drive::label))
                .forEach(d -> sizes.merge(Figures.printed(d.label()), 1L, Long::sum));
        String each = sizes.entrySet().stream()
                .map(e -> e.getValue() + " × " + e.getKey())
                .collect(Collectors.joining(", "));
        return each + "." + (groups > 1 ? " In " + groups + " equal groups." : "")
                + " The layout of a pool can't be changed later ∎";
    }

    private static String spares(List<Drive> spares) {
        return spares.isEmpty()
                ? ""
                : spares.stream()
                                .map(d -> d.enclosure() + "/" + d.bay() + " (" + Figures.printed(d.label()) + ")")
                                .collect(Collectors.joining(", "))
                        + ", the largest, since a spare has to be able to stand in for any member.";
    }

    private static LayoutRow row(Figures fmt, LayoutAnswer answer, LayoutQuestion question, int groups, boolean is) {
        return switch (answer) {
            case NotPossible not -> LayoutRow.of(not, is);
            case Possible possible -> LayoutRow.of(fmt, possible, question, groups, is);
        };
    }

    private static List<BandsPicture> bands(Figures fmt, Layout layout, List<LayoutQuestion> parts) {
        List<BandsPicture> pictures = new ArrayList<>();
        for (int i = 0; i < parts.size(); i++) {
            if (LayoutComparison.shape(layout, parts.get(i)) instanceof LayoutShape.Bands cut) {
                pictures.add(BandsPicture.draw(fmt, parts.get(i), cut.bands(), i + 1, parts.size()));
            }
        }
        return pictures;
    }
}
