package org.vastshelf.core.unit;

import java.math.BigDecimal;
import java.util.Locale;
import java.util.Map;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/** Reads a size as a person types it: {@code 750 GiB}, {@code 1.5TB}, {@code 4096}. */
public final class SizeText {

    private static final Pattern SIZE = Pattern.compile("([0-9][0-9 ,_]*(?:\\.[0-9]+)?)\\s*([A-Za-z]*)");
    private static final Map<String, Long> UNITS = Map.ofEntries(
            Map.entry("", 1L),
            Map.entry("b", 1L),
            Map.entry("kb", 1_000L),
            Map.entry("mb", 1_000_000L),
            Map.entry("gb", 1_000_000_000L),
            Map.entry("tb", 1_000_000_000_000L),
            Map.entry("pb", 1_000_000_000_000_000L),
            Map.entry("kib", Bytes.KIB),
            Map.entry("mib", Bytes.MIB),
            Map.entry("gib", Bytes.GIB),
            Map.entry("tib", Bytes.TIB),
            Map.entry("pib", Bytes.TIB << 10));

    /** From here on sizes are shown in a unit that nobody types. */
    private static final long EXBIBYTE = Bytes.TIB << 20;

    private SizeText() {}

    /**
     * Parses a size and checks it against its bounds.
     *
     * @param name what the size is called in a message
     * @throws IllegalArgumentException naming the value and the bound
     */
    public static Bytes parse(String name, String text, Bytes least, Bytes most) {
        String typed = text == null ? "" : text.strip();
        Matcher match = SIZE.matcher(typed);
        if (typed.length() > 40 || !match.matches()) {
            throw new IllegalArgumentException(
                    name + " is '" + shorten(typed) + "', must be a size such as 750 GiB or 1.5 TB");
        }
        Long unit = UNITS.get(match.group(2).toLowerCase(Locale.ROOT));
        if (unit == null) {
            throw new IllegalArgumentException(name + " has the unit '" + shorten(match.group(2))
                    + "', must be one of B, kB, MB, GB, TB, PB, KiB, MiB, GiB, TiB, PiB");
        }
        BigDecimal exact = new BigDecimal(match.group(1).replaceAll("[ ,_]", "")).multiply(BigDecimal.valueOf(unit));
        BigDecimal whole = exact.setScale(0, java.math.RoundingMode.FLOOR);
        if (whole.compareTo(BigDecimal.valueOf(least.value())) < 0) {
            throw new IllegalArgumentException(name + " is " + typed + ", must be at least " + describe(least));
        }
        if (whole.compareTo(BigDecimal.valueOf(most.value())) > 0) {
            throw new IllegalArgumentException(name + " is " + typed + ", must be at most " + describe(most));
        }
        return Bytes.of(whole.longValueExact());
    }

    /** A size as one would type it to get exactly this one again. */
    public static String exact(Bytes bytes) {
        String rounded = UnitSystem.BINARY.format(bytes);
        boolean isExact = bytes.value() < EXBIBYTE
                && parse("size", rounded, Bytes.ZERO, Bytes.of(EXBIBYTE)).equals(bytes);
        return isExact ? rounded : String.valueOf(bytes.value());
    }

    private static String describe(Bytes bytes) {
        return bytes.value() < Bytes.KIB ? bytes.value() + " bytes" : UnitSystem.BINARY.format(bytes);
    }

    private static String shorten(String text) {
        return text.length() <= 40 ? text : text.substring(0, 40) + "…";
    }
}
