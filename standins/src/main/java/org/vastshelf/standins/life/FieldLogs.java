package org.vastshelf.standins.life;

import java.time.LocalDate;
import java.time.YearMonth;
import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.IntStream;

/**
 * Each instrument hands in a small file a quarter of an hour; what is older than a month is packed. Since March they do
 * so each third hour, and one station packs in a night; the last month of quarters is packed in summer, one instrument in a night.
 */
final class FieldLogs implements ShareMaker {

    private static final List<String> STATIONS = List.of("heath-north", "heath-south", "bog", "ridge");
    private static final List<String> INSTRUMENTS =
            List.of("air", "soil-1", "soil-2", "water", "wind", "light", "rain", "leaf-wetness", "snow");
    private static final LocalDate FIRST = LocalDate.of(2019, 7, 1);
    /** The month of which nothing is packed yet. */
    static final LocalDate RUNNING = LocalDate.of(2026, 2, 1);

    /** Day of the month in whose night the first station packs the month before the last; the others follow. */
    private static final int PACKING = 2;

    /** When the first of the instruments packs the month of which nothing is packed yet. */
    private static final LocalDate SUMMER = LocalDate.of(2026, 6, 8);

    static final int QUARTERS = 96;
    private static final int QUARTER = 900;
    private static final List<String> NAMES = IntStream.range(0, QUARTERS)
            .mapToObj(quarter -> "%02d%02d.csv".formatted(quarter / 4, quarter % 4 * 15))
            .toList();

    /** Tables that people make of the readings. */
    @Override
    public void save(Filing filing, LocalDate day) {
        Staffer who = filing.one("living-collections");
        long at = filing.at(day, who);
        filing.add("/tables/" + day.getYear(), "summary " + day + ".ods", Sizes.SHEET, who, at);
        if (filing.oneIn(3)) {
            filing.add("/grids", "moor-" + day + ".nc", Sizes.AERIAL, who, at + 60);
        }
    }

    @Override
    public void found(Filing filing) {
        Staffer stations = filing.crew.named("stations", "living-collections");
        for (LocalDate month = FIRST; month.isBefore(RUNNING); month = month.plusMonths(1)) {
            save(filing, Hours.workday(month.plusDays(filing.random.nextInt(20))));
            pack(filing, stations, YearMonth.from(month), packing(YearMonth.from(month)));
        }
        for (LocalDate day = RUNNING; !day.isAfter(Ages.LAST); day = day.plusDays(1)) {
            for (String station : STATIONS) {
                for (String instrument : INSTRUMENTS) {
                    readings(filing, stations, station, instrument, day);
                }
            }
        }
    }

    @Override
    public void daily(Filing filing, LocalDate day) {
        Staffer stations = filing.crew.named("stations", "living-collections");
        packed(day)
                .forEach(one -> one.instruments.forEach(
                        instrument -> pack(filing, stations, one.station, instrument, one.month, day)));
        for (String station : STATIONS) {
            for (String instrument : INSTRUMENTS) {
                thirdHourly(filing, stations, station, instrument, day);
            }
        }
    }

    /** Since the first day of March the stations hand in what they have each third hour, in one folder a month. */
    private static void thirdHourly(Filing filing, Staffer by, String station, String instrument, LocalDate day) {
        String folder = folder(station, instrument, YearMonth.from(day));
        String prefix = "%02d-".formatted(day.getDayOfMonth());
        for (int hour = 0; hour < 24; hour += 3) {
            long at = day.toEpochDay() * 86_400 + hour * 3_600L + 30 + filing.random.nextInt(300);
            filing.add(folder, prefix + name(hour * 4), Sizes.READING, by, at);
        }
    }

    @Override
    public String instrument() {
        return "stations";
    }

    @Override
    public List<String> removed(LocalDate day) {
        return packed(day).stream().map(Packed::folder).toList();
    }

    /**
     * What is packed in one night.
     *
     * @param folder what is removed for it
     */
    private record Packed(YearMonth month, String station, List<String> instruments, String folder) {

        static Packed of(YearMonth month, String station) {
            // With the last station goes the whole month.
            String all = FieldLogs.folder(month);
            return new Packed(
                    month, station, INSTRUMENTS, station.equals(STATIONS.getLast()) ? all : all + "/" + station);
        }

        static Packed ofQuarters(int turn) {
            YearMonth month = YearMonth.from(RUNNING);
            List<String> folders = folders(month);
            return new Packed(
                    month,
                    STATIONS.get(turn / INSTRUMENTS.size()),
                    List.of(INSTRUMENTS.get(turn % INSTRUMENTS.size())),
                    turn == folders.size() - 1 ? FieldLogs.folder(month) : folders.get(turn));
        }
    }

    /** What is packed on a day, of what the demo lives through. */
    private static List<Packed> packed(LocalDate day) {
        List<Packed> some = new ArrayList<>();
        YearMonth month = YearMonth.from(day).minusMonths(2);
        int night = day.getDayOfMonth() - PACKING;
        if (month.atDay(1).isAfter(RUNNING) && night >= 0 && night < STATIONS.size()) {
            some.add(Packed.of(month, STATIONS.get(night)));
        }
        long turn = SUMMER.until(day, ChronoUnit.DAYS);
        if (turn >= 0 && turn < (long) STATIONS.size() * INSTRUMENTS.size()) {
            some.add(Packed.ofQuarters((int) turn));
        }
        return some;
    }

    /** The day in whose night the first readings of a month are packed: all of them are a month old by then. */
    static LocalDate packing(YearMonth month) {
        return month.plusMonths(2).atDay(PACKING);
    }

    private static void pack(Filing filing, Staffer by, YearMonth month, LocalDate night) {
        STATIONS.forEach(
                station -> INSTRUMENTS.forEach(instrument -> pack(filing, by, station, instrument, month, night)));
    }

    private static void pack(
            Filing filing, Staffer by, String station, String instrument, YearMonth month, LocalDate night) {
        String name = "%s-%s-%d-%02d.csv.gz".formatted(station, instrument, month.getYear(), month.getMonthValue());
        String folder = "/packed/" + station + "/" + month.getYear();
        filing.add(folder, name, Sizes.PACKED_READINGS, by, Hours.night(filing.random, night));
    }

    private static String folder(String station, String instrument, LocalDate day) {
        return "%s/%02d".formatted(folder(station, instrument, YearMonth.from(day)), day.getDayOfMonth());
    }

    static String name(int quarter) {
        return NAMES.get(quarter);
    }

    private static String folder(String station, String instrument, YearMonth month) {
        return "%s/%s/%s".formatted(folder(month), station, instrument);
    }

    /** Of a month's readings, as they are before they are packed. */
    static String folder(YearMonth month) {
        return "/" + month;
    }

    /** Those of single instruments in that folder. */
    static List<String> folders(YearMonth month) {
        return STATIONS.stream()
                .flatMap(station -> INSTRUMENTS.stream().map(instrument -> folder(station, instrument, month)))
                .toList();
    }

    private static void readings(Filing filing, Staffer by, String station, String instrument, LocalDate day) {
        String folder = folder(station, instrument, day);
        long midnight = day.toEpochDay() * 86_400;
        long delay = 20 + Math.floorMod(station.hashCode() + instrument.hashCode(), 400);
        for (int quarter = 0; quarter < QUARTERS; quarter++) {
            String name = name(quarter);
            long at = midnight + (long) quarter * QUARTER + delay + filing.random.nextInt(9);
            filing.add(folder, name, Sizes.READING, by, at);
        }
    }

    @Override
    public double opened() {
        return 0.1;
    }
}
