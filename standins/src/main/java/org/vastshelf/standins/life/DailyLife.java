package org.vastshelf.standins.life;

import java.time.LocalDate;
import java.util.List;
import java.util.Optional;
import java.util.function.IntFunction;
import org.vastshelf.core.unit.Bytes;

/**
 * How a share goes on.
 *
 * @param yearly bytes that people add in a year
 * @param swing by how much of that a day in midsummer brings more, and one in midwinter less
 * @param trials saves after which it is known what one brings on average: some have to be of what is seldom, and large
 * @param instruments whether it is instruments that save, each day of the week
 */
record DailyLife(
        String share, double yearly, double swing, int trials, boolean instruments, IntFunction<ShareMaker> makers) {

    /** Most sheets come when plants are pressed. */
    private static final double PRESSING = 0.9;

    private static final int MIDSUMMER = 180;
    private static final int FEW = 500;
    private static final int MANY = 20_000;

    private static final List<DailyLife> ALL = List.of(
            new DailyLife(
                    "herbarium", 7.3 * Bytes.TIB, PRESSING, FEW, false, day -> new Herbarium(180_000 + day * 150)),
            new DailyLife("film", 2.4 * Bytes.TIB, 0, FEW, false, day -> new Film(140 + day / 3)),
            new DailyLife("sequences", 3.9 * Bytes.TIB, 0, FEW, false, day -> new Sequences(290 + day)),
            new DailyLife("homes", 5.4 * Bytes.TIB, 0, FEW, false, day -> new Homes()),
            new DailyLife("office", 290.0 * Bytes.GIB, 0, MANY, false, day -> Office.ofDays()),
            new DailyLife("plans", 290.0 * Bytes.GIB, 0, FEW, false, day -> new Plans()),
            new DailyLife("press", 320.0 * Bytes.GIB, 0, FEW, false, day -> new Press(40_000 + day * 40)),
            new DailyLife("fieldlogs", 0, 0, 0, true, day -> new FieldLogs()),
            new DailyLife("specimens-db", 0, 0, 0, true, day -> new Database()));

    static Optional<DailyLife> of(String share) {
        return ALL.stream().filter(life -> life.share.equals(share)).findFirst();
    }

    /** Bytes of a year at the pace of one of its days. */
    double yearly(LocalDate day) {
        return yearly * (1 + swing * Math.cos(2 * Math.PI * (day.getDayOfYear() - MIDSUMMER) / 365));
    }

    /** A maker whose numbers go on from those of the days before. */
    ShareMaker maker(int day) {
        return makers.apply(day);
    }
}
