package org.vastshelf.app.foresee;

import java.io.IOException;
import java.io.Reader;
import java.math.BigDecimal;
import java.math.RoundingMode;
import java.time.LocalDate;
import java.time.format.DateTimeParseException;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import org.apache.commons.csv.CSVFormat;
import org.apache.commons.csv.CSVParser;
import org.apache.commons.csv.CSVRecord;
import org.vastshelf.core.forecast.History;
import org.vastshelf.core.unit.Bytes;

/**
 * A history as a table (RFC 4180): a column {@code day} with days such as 2026-03-02, and one of used bytes that has its unit
 * in its name, such as {@code used_tib}.
 */
public final class HistoryTable {

    private static final Map<String, BigDecimal> UNITS = Map.of(
            "used_bytes", BigDecimal.ONE,
            "used_kib", binary(1),
            "used_mib", binary(2),
            "used_gib", binary(3),
            "used_tib", binary(4),
            "used_kb", BigDecimal.TEN.pow(3),
            "used_mb", BigDecimal.TEN.pow(6),
            "used_gb", BigDecimal.TEN.pow(9),
            "used_tb", BigDecimal.TEN.pow(12));
    private static final BigDecimal MOST = BigDecimal.valueOf(Long.MAX_VALUE);

    private HistoryTable() {}

    private static BigDecimal binary(int power) {
        return BigDecimal.valueOf(1_024).pow(power);
    }

    /** @throws IllegalArgumentException naming the line and what is wrong in it */
    public static List<History.DayUse> read(Reader table) throws IOException {
        CSVFormat format = CSVFormat.RFC4180
                .builder()
                .setHeader()
                .setSkipHeaderRecord(true)
                .setTrim(true)
                .setIgnoreEmptyLines(true)
                .get();
        try (CSVParser csv = format.parse(table)) {
            String unit = csv.getHeaderNames().stream()
                    .filter(name -> UNITS.containsKey(name.toLowerCase(Locale.ROOT)))
                    .findFirst()
                    .orElseThrow(() -> new IllegalArgumentException("the header is '"
                            + shorten(String.join(",", csv.getHeaderNames())) + "', must have a column day and one of "
                            + UNITS.keySet().stream().sorted().toList()));
            if (!csv.getHeaderMap().containsKey("day")) {
                throw new IllegalArgumentException("the header is '" + shorten(String.join(",", csv.getHeaderNames()))
                        + "', must have a column day");
            }
            List<History.DayUse> days = new ArrayList<>();
            for (CSVRecord row : csv) {
                if (days.size() == History.MOST_DAYS) {
                    throw new IllegalArgumentException("the table has more than " + History.MOST_DAYS + " days");
                }
                days.add(day(row, unit));
            }
            return days;
        }
    }

    private static History.DayUse day(CSVRecord row, String unit) {
        if (!row.isConsistent()) {
            throw new IllegalArgumentException("line " + (row.getRecordNumber() + 1) + " has " + row.size()
                    + " fields, must have as many as the header");
        }
        return new History.DayUse(date(row), used(row, unit));
    }

    private static LocalDate date(CSVRecord row) {
        try {
            return LocalDate.parse(row.get("day"));
        } catch (DateTimeParseException none) {
            throw wrong(row, "day", "a day such as 2026-03-02");
        }
    }

    private static Bytes used(CSVRecord row, String unit) {
        try {
            BigDecimal bytes = new BigDecimal(row.get(unit)).multiply(UNITS.get(unit.toLowerCase(Locale.ROOT)));
            if (bytes.signum() >= 0 && bytes.compareTo(MOST) <= 0) {
                return Bytes.of(bytes.setScale(0, RoundingMode.HALF_UP).longValueExact());
            }
        } catch (NumberFormatException | ArithmeticException none) {
            // Told below, with the line.
        }
        throw wrong(row, unit, "a number from 0 to " + MOST + " bytes, with a point before its fraction");
    }

    private static IllegalArgumentException wrong(CSVRecord row, String column, String wanted) {
        return new IllegalArgumentException("line " + (row.getRecordNumber() + 1) + ": " + column + " is '"
                + shorten(row.get(column)) + "', must be " + wanted);
    }

    private static String shorten(String text) {
        return text.length() <= 60 ? text : text.substring(0, 60) + "…";
    }
}
