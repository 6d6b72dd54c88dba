package org.vastshelf.core.unit;

import java.math.BigDecimal;
import java.math.RoundingMode;
import java.util.List;

/**
 * The two ways in which the trade writes sizes: powers of 1,024 (KiB, MiB, …; IEC 80000-13) and powers of
 * 1,000 (kB, MB, …). Figures are rounded half up, at the edge only.
 */
public enum UnitSystem {
    BINARY(1024, List.of("B", "KiB", "MiB", "GiB", "TiB", "PiB", "EiB")),
    DECIMAL(1000, List.of("B", "kB", "MB", "GB", "TB", "PB", "EB"));

    private final long base;
    private final List<String> names;

    UnitSystem(long base, List<String> names) {
        this.base = base;
        this.names = names;
    }

    /** The size with two decimals in the largest unit in which it rounds to at least 1, such as {@code 10.91 TiB}. */
    public String format(Bytes bytes) {
        int power = power(bytes.value());
        return figure(bytes, power) + " " + names.get(power);
    }

    /** The figure alone, in the unit with this power of the base. */
    public String figure(Bytes bytes, int power) {
        return grouped(
                power == 0
                        ? String.valueOf(bytes.value())
                        : scaled(bytes, power).toPlainString());
    }

    /** Thousands apart. Each save says sizes, and a general formatter takes twenty times as long. */
    private static String grouped(String plain) {
        int point = plain.indexOf('.');
        StringBuilder grouped = new StringBuilder(plain);
        for (int at = (point < 0 ? plain.length() : point) - 3; at > 0; at -= 3) {
            grouped.insert(at, ',');
        }
        return grouped.toString();
    }

    private BigDecimal scaled(Bytes bytes, int power) {
        return BigDecimal.valueOf(bytes.value()).divide(BigDecimal.valueOf(base).pow(power), 2, RoundingMode.HALF_UP);
    }

    public String unitName(int power) {
        return names.get(power);
    }

    /** The power of the base whose unit suits this size: 0 for bytes, 4 for TiB or TB. */
    public int power(long bytes) {
        int power = 0;
        for (long rest = bytes; rest >= base && power < names.size() - 1; rest /= base) {
            power++;
        }
        boolean roundsUp = power > 0
                && power < names.size() - 1
                && scaled(Bytes.of(bytes), power).compareTo(BigDecimal.valueOf(base)) >= 0;
        return roundsUp ? power + 1 : power;
    }
}
