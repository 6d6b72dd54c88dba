package org.vastshelf.app.spare;

import java.time.LocalDate;
import java.time.YearMonth;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.NavigableMap;
import org.vastshelf.app.kit.Figures;
import org.vastshelf.core.spare.Ages;
import org.vastshelf.core.tier.AgeBand;

/**
 * Which part of the bytes that are here is how old, month by month: a pile for each month, the oldest at the bottom.
 *
 * @param piles left to right, for months of which nothing is known too
 * @param keys what stands for which age, top to bottom
 */
record AgePicture(int width, int height, List<Pile> piles, List<Key> keys, String said) {

    private static final int STEP = 28;
    private static final int WIDE = 22;
    private static final int HIGH = 110;
    private static final int FOOT = 18;

    /**
     * A month.
     *
     * @param label the year where one begins; else empty
     * @param shown what is told of it
     */
    record Pile(double x, List<Part> parts, String label, String shown) {}

    /** One age in a pile. */
    record Part(String css, double y, double height) {}

    record Key(String css, String title, String share) {}

    public String view() {
        return "0 0 " + width + " " + (height + FOOT);
    }

    public int foot() {
        return height + FOOT - 4;
    }

    public int wide() {
        return WIDE;
    }

    static AgePicture of(Figures fmt, NavigableMap<LocalDate, Ages> months, LocalDate today) {
        YearMonth first = YearMonth.from(today).minusMonths(Spares.MONTHS - 1L);
        List<Pile> piles = new ArrayList<>();
        for (int i = 0; i < Spares.MONTHS; i++) {
            YearMonth month = first.plusMonths(i);
            var known = months.subMap(month.atDay(1), true, month.atEndOfMonth(), true);
            String label = i == 0 || month.getMonthValue() == 1 ? String.valueOf(month.getYear()) : "";
            piles.add(
                    known.isEmpty()
                            ? new Pile(i * STEP, List.of(), label, "")
                            : pile(fmt, i * STEP, label, known.lastKey(), known.get(known.lastKey())));
        }
        Ages now = months.isEmpty() ? Ages.NONE : months.lastEntry().getValue();
        return new AgePicture(
                Spares.MONTHS * STEP,
                HIGH,
                piles,
                AgeBand.ALL.stream()
                        .map(band -> new Key(css(band), band.title(), fmt.percent(part(now, band))))
                        .toList(),
                "Which part of all bytes was used last how long ago, at the end of each month");
    }

    private static Pile pile(Figures fmt, int x, String label, LocalDate day, Ages ages) {
        List<Part> parts = new ArrayList<>();
        double y = 0;
        for (AgeBand band : AgeBand.ALL) {
            double height = HIGH * part(ages, band);
            parts.add(new Part(css(band), round(y), round(height)));
            y += height;
        }
        return new Pile(
                x,
                parts,
                label,
                fmt.day(day) + ": of " + fmt.size(ages.here().all().bytes()) + " " + fmt.percent(unusedPart(ages))
                        + " was not used for a year");
    }

    private static double unusedPart(Ages ages) {
        long all = ages.here().all().bytes();
        return all == 0 ? 0 : ages.unused(AgeBand.THREE_YEARS.leastDays()).all().bytes() / (double) all;
    }

    private static double part(Ages ages, AgeBand band) {
        long all = ages.here().all().bytes();
        return all == 0
                ? 0
                : ages.byUse().getOrDefault(band, Ages.Sum.NONE).all().bytes() / (double) all;
    }

    private static String css(AgeBand band) {
        return "age-" + band.name().toLowerCase(Locale.ROOT).replace('_', '-');
    }

    private static double round(double value) {
        return Math.round(value * 10) / 10.0;
    }
}
