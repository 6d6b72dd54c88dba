package org.vastshelf.standins.life;

import java.time.LocalDate;
import java.time.temporal.ChronoUnit;
import java.util.List;

/** The collection database: table spaces that are written to all day, its log, and a copy each night for a fortnight. */
final class Database implements ShareMaker {

    private static final List<String> TABLES = List.of(
            "sheet", "taxon", "collector", "locality", "loan", "picture", "history", "label", "audit", "search");
    private static final int LOGS = 16;
    private static final int NIGHTS_KEPT = 14;
    private static final double YEARLY = 0.07;
    /** Where the copies are. */
    static final String BACKUP = "/backup";

    /** A copy of one night; from one year to the next there is more to copy. */
    @Override
    public void save(Filing filing, LocalDate day) {
        Staffer host = filing.crew.named("dbhost", "living-collections");
        double grown = 1 + YEARLY * Math.max(0, Ages.LAST.until(day, ChronoUnit.DAYS)) / 365;
        Sizes whole = new Sizes(96e9 * grown, 0.01, (long) (90e9 * grown), (long) (102e9 * grown));
        filing.add(BACKUP, copy(day), whole, host, Hours.night(filing.random, day));
    }

    @Override
    public String instrument() {
        return "dbhost";
    }

    @Override
    public List<String> deleted(LocalDate day) {
        return List.of(BACKUP + "/" + copy(day.minusDays(NIGHTS_KEPT)));
    }

    /** Name of the copy of a night. */
    static String copy(LocalDate night) {
        return night + ".bak";
    }

    @Override
    public void found(Filing filing) {
        Staffer host = filing.crew.named("dbhost", "living-collections");
        long morning = LocalDate.of(2026, 3, 2).toEpochDay() * 86_400 + 7 * 3_600;
        for (String table : TABLES) {
            for (int part = 0; part < 6; part++) {
                String name = "%s-%d.ibd".formatted(table, part);
                long begun = LocalDate.of(2022, 4, 4).toEpochDay() * 86_400 + 11 * 3_600;
                filing.add("/data", name, Sizes.TABLE_SPACE, host, begun)
                        .rewritten(host, morning - filing.between(20, 3_400));
            }
        }
        for (int i = 0; i < LOGS; i++) {
            String name = "write-%04d.wal".formatted(i);
            long begun = LocalDate.of(2022, 4, 4).toEpochDay() * 86_400 + 11 * 3_600;
            filing.add("/log", name, filing.fresh(name, 1L << 30), host, begun)
                    .rewritten(host, morning - (LOGS - i) * 500L);
        }
        for (int night = 0; night < NIGHTS_KEPT; night++) {
            save(filing, Ages.LAST.minusDays(night));
        }
    }
}
