package org.vastshelf.core.forecast;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import org.vastshelf.core.forecast.FillForecast.Finding;
import org.vastshelf.core.unit.Bytes;

/**
 * A history that was brought in, with what had to be mended: days out of order are put in order, of several values for a
 * day the last is taken, and gaps that are short and few are filled on a straight line.
 *
 * @param findings what was mended; each day that was missing, with the bytes put there
 */
public record MendedHistory(History history, List<Finding> findings) {

    /** Days missing in a row that are still filled. */
    public static final int LONGEST_GAP = 14;
    /** Of so many days, one may be missing. */
    public static final int ONE_IN = 10;

    public MendedHistory {
        findings = List.copyOf(findings);
    }

    /**
     * @param days in the order in which they came
     * @throws IllegalArgumentException where a gap is too long, or too many days are missing, with the bound
     */
    public static MendedHistory of(List<History.DayUse> days) {
        List<Finding> findings = new ArrayList<>();
        TreeMap<LocalDate, Bytes> byDay = new TreeMap<>();
        LocalDate latest = LocalDate.MIN;
        for (History.DayUse day : days) {
            if (day.day().isBefore(latest)) {
                findings.add(
                        new Finding(Finding.Kind.DISORDER, day.day(), day.used().value()));
            } else {
                latest = day.day();
            }
            Bytes before = byDay.put(day.day(), day.used());
            if (before != null) {
                findings.add(new Finding(Finding.Kind.REPEAT, day.day(), before.value()));
            }
        }
        List<Bytes> used = filled(byDay, findings);
        LocalDate first = byDay.isEmpty() ? LocalDate.EPOCH : byDay.firstKey();
        return new MendedHistory(new History(first, used), findings);
    }

    private static List<Bytes> filled(TreeMap<LocalDate, Bytes> byDay, List<Finding> findings) {
        List<Bytes> used = new ArrayList<>();
        long missing = 0;
        Map.Entry<LocalDate, Bytes> before = null;
        for (Map.Entry<LocalDate, Bytes> day : byDay.entrySet()) {
            if (before != null) {
                long gap = day.getKey().toEpochDay() - before.getKey().toEpochDay() - 1;
                missing += gap;
                requireShort(before.getKey().plusDays(1), day.getKey().minusDays(1), gap);
                if (gap > 0) {
                    fill(used, before, day, gap, findings);
                }
            }
            used.add(day.getValue());
            before = day;
        }
        if (missing * ONE_IN > used.size()) {
            throw new IllegalArgumentException(
                    "history lacks " + missing + " of " + used.size() + " days, may lack at most one in " + ONE_IN);
        }
        return used;
    }

    private static void requireShort(LocalDate from, LocalDate to, long gap) {
        if (gap > LONGEST_GAP) {
            throw new IllegalArgumentException("history lacks the " + gap + " days from " + from + " to " + to
                    + ", a gap may have at most " + LONGEST_GAP);
        }
    }

    private static void fill(
            List<Bytes> used,
            Map.Entry<LocalDate, Bytes> before,
            Map.Entry<LocalDate, Bytes> after,
            long gap,
            List<Finding> findings) {
        long from = before.getValue().value();
        long rise = after.getValue().value() - from;
        for (long i = 1; i <= gap; i++) {
            // In whole bytes, and without passing 2^63 on the way.
            long put = from + rise / (gap + 1) * i + rise % (gap + 1) * i / (gap + 1);
            used.add(Bytes.of(put));
            findings.add(new Finding(Finding.Kind.GAP, before.getKey().plusDays(i), put));
        }
    }
}
