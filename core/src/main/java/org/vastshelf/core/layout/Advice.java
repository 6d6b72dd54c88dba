package org.vastshelf.core.layout;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import org.vastshelf.core.layout.LayoutAnswer.Possible;
import org.vastshelf.core.unit.Bytes;
import org.vastshelf.core.unit.UnitSystem;

/**
 * Which layout to take, and why. Rules of thumb that are stated with their figures, never a silent default: two
 * failures have to be survived when a rebuild takes longer than a day, when there are more than eight drives or when
 * one-safe odds of loss are worse than one in ten thousand a year; of what is left, the one with the most data.
 *
 * @param layout the layout recommended
 * @param reasons sentences, most important first
 */
public record Advice(Layout layout, List<String> reasons) {

    private static final double DAY = 24;
    private static final int MANY = 8;
    private static final double WORST_ODDS = 1e-4;

    public Advice {
        reasons = List.copyOf(reasons);
    }

    /** Advice for these drives; empty where only layouts without protection are possible. */
    public static Optional<Advice> of(LayoutQuestion question, UnitSystem units) {
        List<Possible> possible = LayoutComparison.compare(question).stream()
                .filter(Possible.class::isInstance)
                .map(Possible.class::cast)
                .filter(p -> p.survives() > 0)
                .toList();
        if (possible.isEmpty()) {
            return Optional.empty();
        }
        List<String> reasons = new ArrayList<>();
        int wanted = wanted(question, possible, reasons);
        Possible best = possible.stream()
                .filter(p -> p.survives() >= Math.min(wanted, most(possible)))
                .max(Comparator.comparing(Possible::data).thenComparing(p -> -p.yearlyLossOdds()))
                .orElseThrow();
        if (best.survives() < wanted) {
            reasons.add("of these drives no layout survives " + wanted + " failures");
        }
        sizes(question, best, units, reasons);
        oneMore(question, best, units).ifPresent(reasons::add);
        return Optional.of(new Advice(best.layout(), reasons));
    }

    private static int most(List<Possible> possible) {
        return possible.stream().mapToInt(Possible::survives).max().orElse(0);
    }

    private static int wanted(LayoutQuestion question, List<Possible> possible, List<String> reasons) {
        double hours = question.rates().rebuildHours(question.members().getLast());
        int n = question.members().size();
        double oneSafe = possible.stream()
                .filter(p -> p.survives() == 1)
                .mapToDouble(Possible::yearlyLossOdds)
                .min()
                .orElse(0);
        if (hours > DAY) {
            reasons.add(String.format(
                    Locale.ROOT, "a rebuild takes %.0f hours, more than a day: survive two failures", hours));
        }
        if (n > MANY) {
            reasons.add(n + " drives are more than " + MANY + ": survive two failures");
        }
        if (oneSafe > WORST_ODDS) {
            reasons.add(String.format(
                    Locale.ROOT,
                    "surviving one failure leaves odds of loss of 1 in %,.0f a year, worse than 1 in 10,000",
                    1 / oneSafe));
        }
        if (reasons.isEmpty()) {
            reasons.add("surviving one failure is enough: a rebuild is short and the drives are few");
        }
        return hours > DAY || n > MANY || oneSafe > WORST_ODDS ? 2 : 1;
    }

    private static void sizes(LayoutQuestion question, Possible best, UnitSystem units, List<String> reasons) {
        boolean mixed = question.members().stream().distinct().count() > 1;
        if (mixed && best.layout().isTerraced()) {
            reasons.add("the drives have different sizes: bands use what equal groups would strand");
        } else if (!best.stranded().isZero()) {
            reasons.add(units.format(best.stranded()) + " stay stranded");
        }
        reasons.add("of the layouts that survive as much it gives the most data, " + units.format(best.data()));
    }

    /** What one drive more, as large as the largest, would add. */
    private static Optional<String> oneMore(LayoutQuestion question, Possible best, UnitSystem units) {
        if (question.drives().size() == LayoutQuestion.MOST_DRIVES) {
            return Optional.empty();
        }
        List<Bytes> more = new ArrayList<>(question.drives());
        Bytes largest = more.stream().max(Comparator.naturalOrder()).orElseThrow();
        more.add(largest);
        LayoutQuestion next = new LayoutQuestion(
                more, question.spares(), question.driveReserve(), question.align(), question.rates());
        String drive = "one drive more of " + UnitSystem.DECIMAL.format(largest);
        return switch (LayoutComparison.answer(best.layout(), next)) {
            case Possible p ->
                Optional.of(drive + " would add " + units.format(p.data().minusOrZero(best.data())) + " of data");
            case LayoutAnswer.NotPossible not -> Optional.of(drive + " would not fit it: " + not.reason());
        };
    }
}
