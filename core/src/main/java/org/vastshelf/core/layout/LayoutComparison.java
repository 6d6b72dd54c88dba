package org.vastshelf.core.layout;

import java.util.Arrays;
import java.util.List;
import java.util.OptionalDouble;
import java.util.stream.IntStream;
import org.vastshelf.core.layout.LayoutAnswer.NotPossible;
import org.vastshelf.core.layout.LayoutAnswer.Possible;
import org.vastshelf.core.unit.Bytes;

/** Answers what every layout gives for the same drives. */
public final class LayoutComparison {

    /** Bytes alone, without the odds, which cost far more to work out. */
    public record Space(Bytes data, Bytes protection, Bytes stranded) {}

    private LayoutComparison() {}

    /** One answer for each layout, with the members divided into so many equal groups of neighbours in size. */
    public static List<LayoutAnswer> compare(LayoutQuestion question, int groups) {
        return Arrays.stream(Layout.values())
                .map(l -> inGroups(l, question, groups))
                .toList();
    }

    /** What a layout gives when the members are divided into so many equal groups, smallest drives first. */
    public static LayoutAnswer inGroups(Layout layout, LayoutQuestion question, int groups) {
        int n = question.drives().size() - question.spares();
        if (groups == 1) {
            return answer(layout, question);
        }
        if (groups < 1 || n % groups != 0) {
            return new NotPossible(
                    layout, n + " drives do not divide into " + groups + " equal groups", "choose another number");
        }
        Possible sum = null;
        for (LayoutQuestion part : parts(question, groups)) {
            LayoutAnswer answer = answer(layout, part);
            if (!(answer instanceof Possible possible)) {
                return answer;
            }
            sum = sum == null ? possible : joined(sum, possible);
        }
        return sum;
    }

    /** The members divided into so many equal groups, smallest drives first; the spares are left out. */
    public static List<LayoutQuestion> parts(LayoutQuestion question, int groups) {
        int n = question.drives().size() - question.spares();
        List<Bytes> ascending = question.drives().stream().sorted().limit(n).toList();
        return IntStream.range(0, groups)
                .mapToObj(g -> ascending.subList(g * (n / groups), (g + 1) * (n / groups)))
                .map(part -> new LayoutQuestion(part, 0, question.driveReserve(), question.align(), question.rates()))
                .toList();
    }

    /** Both groups side by side; the odds are those that at least one loses data. */
    private static Possible joined(Possible a, Possible b) {
        return new Possible(
                a.layout(),
                a.data().plus(b.data()),
                a.protection().plus(b.protection()),
                a.stranded().plus(b.stranded()),
                Math.min(a.survives(), b.survives()),
                a.rebuildHours().isPresent()
                        ? OptionalDouble.of(Math.max(
                                a.rebuildHours().getAsDouble(), b.rebuildHours().orElse(0)))
                        : a.rebuildHours(),
                -Math.expm1(Math.log1p(-Math.min(a.yearlyLossOdds(), 1 - 1e-16))
                        + Math.log1p(-Math.min(b.yearlyLossOdds(), 1 - 1e-16))),
                b.shape());
    }

    /** One answer for each layout, in the order of {@link Layout}. */
    public static List<LayoutAnswer> compare(LayoutQuestion question) {
        return Arrays.stream(Layout.values()).map(l -> answer(l, question)).toList();
    }

    /**
     * What a layout makes of drives that are already known to fit it.
     *
     * @throws IllegalArgumentException when they do not
     */
    public static Space space(Layout layout, LayoutQuestion question) {
        return switch (answer(layout, question, false)) {
            case Possible p -> new Space(p.data(), p.protection(), p.stranded());
            case NotPossible not -> throw new IllegalArgumentException(not.reason());
        };
    }

    /**
     * How drives that are already known to fit a layout are divided.
     *
     * @throws IllegalArgumentException when they do not fit
     */
    public static LayoutShape shape(Layout layout, LayoutQuestion question) {
        return switch (answer(layout, question, false)) {
            case Possible p -> p.shape();
            case NotPossible not -> throw new IllegalArgumentException(not.reason());
        };
    }

    /** Odds that a layout of these drives, of which so many are gone in one group, loses data within so many hours. */
    public static double oddsWithin(double hours, Possible layout, LayoutQuestion question, int gone) {
        double whole = LossOdds.within(hours, group(layout, question), question.rates());
        double hurt = LossOdds.within(hours, group(layout, question), question.rates(), gone);
        return -Math.expm1((groups(layout) - 1) * Math.log1p(-Math.min(whole, 1 - 1e-16))
                + Math.log1p(-Math.min(hurt, 1 - 1e-16)));
    }

    /**
     * Odds that a layout of which so many drives are gone in one group loses data before they are rebuilt.
     *
     * @param left share of the running rebuild that is still to do, above 0 to 1; 1 where none runs
     */
    public static double oddsBeforeWhole(Possible layout, LayoutQuestion question, int gone, double left) {
        return LossOdds.beforeWholeAgain(group(layout, question), question.rates(), gone, left);
    }

    private static int groups(Possible layout) {
        return layout.shape() instanceof LayoutShape.Groups g ? g.groups() : 1;
    }

    private static LossOdds.Group group(Possible layout, LayoutQuestion question) {
        int groups = groups(layout);
        return new LossOdds.Group(
                question.members().size() / groups,
                layout.survives(),
                layout.rebuildHours().orElse(1),
                Bytes.of(layout.data().value() / groups));
    }

    public static LayoutAnswer answer(Layout layout, LayoutQuestion question) {
        return answer(layout, question, true);
    }

    private static LayoutAnswer answer(Layout layout, LayoutQuestion question, boolean odds) {
        List<Bytes> members = question.members();
        int n = members.size();
        if (n < layout.leastDrives()) {
            return tooFew(layout, n);
        }
        return switch (layout) {
            case RAID_0 -> grouped(layout, question, 1, 0, odds);
            case RAID_1 -> grouped(layout, question, 1, n - 1, odds);
            case RAID_10 -> n % 2 == 0 ? grouped(layout, question, n / 2, 1, odds) : odd(n);
            case RAID_5 -> grouped(layout, question, 1, 1, odds);
            case RAID_6 -> grouped(layout, question, 1, 2, odds);
            case RAID_TRIPLE -> grouped(layout, question, 1, 3, odds);
            case RAID_50 -> striped(layout, question, 3, 1, odds);
            case RAID_60 -> striped(layout, question, 4, 2, odds);
            case TERRACED_1 -> terraced(layout, question, 1, odds);
            case TERRACED_2 -> terraced(layout, question, 2, odds);
        };
    }

    private static NotPossible tooFew(Layout layout, int n) {
        int more = layout.leastDrives() - n;
        return new NotPossible(
                layout,
                layout.title() + " needs at least " + layout.leastDrives() + " drives, " + n + " " + taken(n),
                "choose " + more + " more");
    }

    private static NotPossible odd(int n) {
        return new NotPossible(
                Layout.RAID_10,
                "RAID 10 needs an even number of drives, " + n + " are taken",
                "choose one more, or keep one as hot spare");
    }

    private static String taken(int n) {
        return n == 1 ? "is taken" : "are taken";
    }

    /**
     * Equal groups of k drives: the fewest groups that divide the drives give the most data, since each group pays
     * its protection once.
     */
    private static LayoutAnswer striped(
            Layout layout, LayoutQuestion question, int leastEach, int parity, boolean odds) {
        int n = question.members().size();
        int groups = fewestGroups(n, leastEach);
        if (groups > 0) {
            return grouped(layout, question, groups, parity, odds);
        }
        return new NotPossible(
                layout,
                layout.title() + " needs two or more equal groups of at least " + leastEach + " drives, " + n
                        + " drives do not divide into such groups",
                "choose " + nextDivisible(n, leastEach) + " drives");
    }

    private static int nextDivisible(int n, int leastEach) {
        int more = n + 1;
        while (fewestGroups(more, leastEach) == 0) {
            more++;
        }
        return more;
    }

    /** The fewest equal groups of at least {@code leastEach} drives, two or more; 0 where none divides. */
    private static int fewestGroups(int n, int leastEach) {
        for (int groups = 2; groups * leastEach <= n; groups++) {
            if (n % groups == 0) {
                return groups;
            }
        }
        return 0;
    }

    private static Possible grouped(Layout layout, LayoutQuestion question, int groups, int parity, boolean odds) {
        List<Bytes> members = question.members();
        int n = members.size();
        int each = n / groups;
        Bytes member = members.getFirst();
        Bytes dataOfGroup = member.times(each - (long) parity);
        Bytes data = dataOfGroup.times(groups);
        Bytes stranded = Bytes.sum(members).minus(member.times(n));
        double hours = question.rates().rebuildHours(member);
        return new Possible(
                layout,
                data,
                member.times(n).minus(data),
                stranded,
                parity,
                parity == 0 ? OptionalDouble.empty() : OptionalDouble.of(hours),
                odds
                        ? LossOdds.ofGroups(
                                groups, new LossOdds.Group(each, parity, hours, dataOfGroup), question.rates())
                        : Double.NaN,
                new LayoutShape.Groups(groups, each, parity, member));
    }

    private static Possible terraced(Layout layout, LayoutQuestion question, int parity, boolean odds) {
        List<Bytes> members = question.members();
        List<LayoutShape.Band> bands = Terraces.bands(members, parity);
        Bytes data = Bytes.sum(bands.stream().map(LayoutShape.Band::data).toList());
        Bytes stranded = Bytes.sum(bands.stream()
                .filter(LayoutShape.Band::isStranded)
                .map(LayoutShape.Band::total)
                .toList());
        double hours = question.rates().rebuildHours(members.getLast());
        return new Possible(
                layout,
                data,
                Bytes.sum(members).minus(data).minus(stranded),
                stranded,
                parity,
                OptionalDouble.of(hours),
                odds
                        ? LossOdds.ofGroups(
                                1, new LossOdds.Group(members.size(), parity, hours, data), question.rates())
                        : Double.NaN,
                new LayoutShape.Bands(bands));
    }
}
