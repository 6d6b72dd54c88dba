package org.vastshelf.app.tier;

import java.math.BigDecimal;
import java.time.Duration;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import org.vastshelf.app.cold.ColdStores;
import org.vastshelf.app.kit.Figures;
import org.vastshelf.app.spare.Spares;
import org.vastshelf.core.catalogue.AgeBasis;
import org.vastshelf.core.estate.ColdPrices;
import org.vastshelf.core.spare.Departure;
import org.vastshelf.core.tier.AgeCurve;
import org.vastshelf.core.tier.ColdCost;
import org.vastshelf.core.tier.FileSum;
import org.vastshelf.core.tier.Passage;
import org.vastshelf.core.tier.Standing;
import org.vastshelf.core.tier.TierPlan;

/**
 * What would leave, as its page shows it.
 *
 * @param picture how much is how old
 * @param costs what the cold store that was chosen would ask
 * @param times how long things would take
 * @param because why what stays stays
 * @param ages by age, the oldest first
 * @param more how many folders are not shown
 * @param counted the moment of which files are told
 */
record LeavingView(
        String said,
        String leaving,
        String staying,
        String left,
        String because,
        Picture picture,
        List<Cost> costs,
        List<Cost> times,
        List<Row> ages,
        List<Row> rows,
        String more,
        String counted) {

    private static final int SHOWN = 100;

    record Row(String what, String leaving, String files, String share, String staying, String because, String left) {}

    record Cost(String what, String amount) {}

    /**
     * Bytes by age as stairs that fall to the right.
     *
     * @param most what the full height is
     * @param area and {@code cold}: points of polygons; all bytes, and those beyond the age that is asked about
     * @param years where the lines of years stand, with what is written there
     */
    record Picture(int width, int height, String most, String area, String cold, double cut, List<Year> years) {

        private static final int WIDE = 720;
        private static final int HIGH = 110;
        private static final int STEPS = 180;
        private static final int YEAR = 365;

        private static final int FOOT = 18;

        record Year(double x, String text) {}

        public String view() {
            return "0 0 " + width + " " + (height + FOOT);
        }

        public int foot() {
            return height + FOOT - 4;
        }

        static Picture of(Figures fmt, AgeCurve curve, int days) {
            double most = Math.max(1, curve.atLeast(0));
            return new Picture(
                    WIDE,
                    HIGH,
                    fmt.size(curve.atLeast(0)),
                    polygon(curve, most, 0),
                    polygon(curve, most, days),
                    x(days),
                    IntStream.rangeClosed(1, Leaving.MOST_DAYS / YEAR)
                            .mapToObj(year -> new Year(x(year * YEAR), year == 1 ? "1 year" : year + " years"))
                            .toList());
        }

        private static double x(double days) {
            return Math.min(WIDE, days * WIDE / Leaving.MOST_DAYS);
        }

        private static String polygon(AgeCurve curve, double most, int from) {
            String top = IntStream.rangeClosed(0, STEPS)
                    .mapToObj(i -> from + (Leaving.MOST_DAYS - from) * (long) i / STEPS)
                    .map(days -> point(x(days), HIGH - HIGH * curve.atLeast(days) / most))
                    .collect(Collectors.joining(" "));
            return point(x(from), HIGH) + " " + top + " " + point(WIDE, HIGH);
        }

        private static String point(double x, double y) {
            return String.format(Locale.ROOT, "%.1f,%.1f", x, y);
        }
    }

    static LeavingView of(
            Figures fmt, Leaving asked, TierPlanning.Answer answer, Optional<ColdStores.Known> store, String currency) {
        TierPlan plan = answer.plan();
        return new LeavingView(
                fmt.counted(asked.days(), "day")
                        + (asked.by() == AgeBasis.LAST_USE ? " without use" : " without a change"),
                sum(fmt, plan.leaving()),
                sum(fmt, plan.staying()),
                plan.left().files() == 0 ? "" : sum(fmt, plan.left()) + " left before.",
                plan.because().isEmpty() ? "" : "Of what stays: " + because(fmt, plan.because()) + ".",
                Picture.of(fmt, answer.curve(), asked.days()),
                store.map(ColdStores.Known::store)
                        .map(s -> new Costs(fmt, currency, plan.leaving(), s.prices())
                                .told(answer.standing(), asked.days()))
                        .orElse(List.of()),
                times(fmt, asked, plan, store),
                plan.byAge().reversed().stream()
                        .map(age ->
                                row(fmt, age.age().title(), age.leaving(), age.staying(), age.left(), age.because()))
                        .toList(),
                plan.byFolder().stream()
                        .sorted(Comparator.comparing((TierPlan.Folder folder) ->
                                        folder.leaving().bytes())
                                .reversed()
                                .thenComparing(TierPlan.Folder::folder))
                        .limit(SHOWN)
                        .map(folder -> row(fmt, folder))
                        .toList(),
                plan.byFolder().size() > SHOWN
                        ? "and " + fmt.counted(plan.byFolder().size() - SHOWN, "folder") + " of which less leaves"
                        : "",
                "Files are told as they were at " + fmt.clock(answer.at()) + ".");
    }

    private static List<Cost> times(Figures fmt, Leaving asked, TierPlan plan, Optional<ColdStores.Known> store) {
        Passage backup = asked.ofTheBackup();
        Stream<Cost> nights = Stream.of(
                new Cost(
                        "the nightly backup takes now",
                        hours(
                                fmt,
                                backup.of(
                                        plan.leaving().bytes() + plan.staying().bytes()))),
                new Cost(
                        "and then, if it leaves alone what has left",
                        hours(fmt, backup.of(plan.staying().bytes()))));
        return Stream.concat(
                        store.stream()
                                .flatMap(known -> Stream.of(
                                        new Cost(
                                                "over the link",
                                                hours(
                                                        fmt,
                                                        asked.overTheLink()
                                                                .of(plan.leaving()
                                                                        .bytes()))),
                                        new Cost("first byte of what has left", firstByte(fmt, known)))),
                        nights)
                .toList();
    }

    private static String hours(Figures fmt, Duration time) {
        return time.toSeconds() < 360
                ? fmt.duration(time)
                : fmt.hours(time.toSeconds() / (double) Duration.ofHours(1).toSeconds()) + " h";
    }

    private static String firstByte(Figures fmt, ColdStores.Known known) {
        return known.firstByte()
                .map(time -> "after " + fmt.count(time.toMillis()) + " ms, when "
                        + known.store().name() + " was checked last")
                .orElse("not known: check " + known.store().name());
    }

    private static String sum(Figures fmt, FileSum sum) {
        return fmt.size(sum.bytes()) + " in " + fmt.counted(sum.files(), "file");
    }

    /** What the departure of some files costs, and spares. */
    private record Costs(Figures fmt, String currency, FileSum leaving, ColdPrices prices) {

        List<Cost> told(Spares.Standing standing, int days) {
            ColdCost cold = ColdCost.of(leaving, prices);
            Stream<Cost> spared = standing
                    .perTib()
                    .map(here -> Departure.of(
                            leaving,
                            leaving.bytes(),
                            here,
                            prices,
                            standing.ages().monthlyChance(days)))
                    .stream()
                    .flatMap(this::spared);
            return Stream.concat(
                            spared,
                            Stream.of(
                                    cost("there, each month", cold.monthly()),
                                    cost("once, for " + fmt.counted(cold.requests(), "request"), cold.once()),
                                    cost("if all of it were recalled", cold.allBack())))
                    .toList();
        }

        private Stream<Cost> spared(Departure departure) {
            boolean less = departure.saves().signum() >= 0;
            return Stream.of(
                    cost(
                            less ? "less each month" : "more each month",
                            departure.saves().abs()),
                    new Cost(
                            "it has paid",
                            departure
                                    .paidInMonth()
                                    .map(month -> "in month " + month)
                                    .orElse("never")),
                    cost("here, each month", departure.here()),
                    cost("recalls each month, at most: " + fmt.percent(departure.chance()), departure.recalls()));
        }

        private Cost cost(String what, BigDecimal amount) {
            return new Cost(what, currency + " " + fmt.money(amount));
        }
    }

    private static Row row(Figures fmt, TierPlan.Folder folder) {
        return row(
                fmt,
                folder.folder().equals("/") ? "files beside the folders" : folder.folder(),
                folder.leaving(),
                folder.staying(),
                folder.left(),
                folder.because());
    }

    private static Row row(
            Figures fmt, String what, FileSum leaving, FileSum staying, FileSum left, Map<Standing, FileSum> because) {
        long all = leaving.bytes() + staying.bytes();
        return new Row(
                what,
                fmt.size(leaving.bytes()),
                fmt.count(leaving.files()),
                all == 0 ? "" : fmt.percent(leaving.bytes() / (double) all),
                fmt.size(staying.bytes()),
                because(fmt, because),
                left.files() == 0 ? "" : fmt.size(left.bytes()));
    }

    private static String because(Figures fmt, Map<Standing, FileSum> because) {
        return because.entrySet().stream()
                .sorted(Map.Entry.comparingByValue(
                        Comparator.comparingLong(FileSum::bytes).reversed()))
                .map(reason -> fmt.size(reason.getValue().bytes()) + " "
                        + reason.getKey().title())
                .collect(Collectors.joining(", "));
    }
}
