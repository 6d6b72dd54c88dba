package org.vastshelf.app.folder;

import java.time.LocalDate;
import java.time.YearMonth;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import org.vastshelf.app.catalogue.SurveyStore.Tally;
import org.vastshelf.core.catalogue.AgeBand;
import org.vastshelf.core.catalogue.SizeClass;

/** Bytes by time since last use and by size. */
public record AgeMap(List<Row> rows, long bytes, long files) {

    private static final int BAR = 160;

    /** One age: bytes, files, the bar's width in px, and the bytes of each size. */
    public record Row(AgeBand age, long bytes, long files, int bar, List<Long> bySize) {}

    static AgeMap of(List<Tally> tallies, LocalDate today) {
        long[][] bytes = new long[AgeBand.values().length][SizeClass.values().length];
        long[] files = new long[AgeBand.values().length];
        YearMonth now = YearMonth.from(today);
        for (Tally tally : tallies) {
            AgeBand age = AgeBand.of(YearMonth.of(tally.month() / 12, tally.month() % 12 + 1), now);
            bytes[age.ordinal()][tally.size().ordinal()] += tally.bytes();
            files[age.ordinal()] += tally.files();
        }
        long all = Arrays.stream(bytes).flatMapToLong(Arrays::stream).sum();
        long most = Arrays.stream(bytes)
                .mapToLong(sizes -> Arrays.stream(sizes).sum())
                .max()
                .orElse(0);
        List<Row> rows = new ArrayList<>();
        for (AgeBand age : AgeBand.values()) {
            long sum = Arrays.stream(bytes[age.ordinal()]).sum();
            rows.add(new Row(
                    age,
                    sum,
                    files[age.ordinal()],
                    most == 0 ? 0 : (int) (sum * (double) BAR / most),
                    Arrays.stream(bytes[age.ordinal()]).boxed().toList()));
        }
        return new AgeMap(rows, all, Arrays.stream(files).sum());
    }
}
