package org.vastshelf.app.kit;

import java.math.BigDecimal;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneOffset;
import java.time.format.DateTimeFormatter;
import java.util.Locale;
import java.util.Objects;
import org.springframework.ui.Model;
import org.vastshelf.core.unit.Bytes;
import org.vastshelf.core.unit.Counted;
import org.vastshelf.core.unit.UnitSystem;

/** How figures are written for one reader. */
public record Figures(UnitSystem units) {

    private static final int TIB = 4;
    private static final long TB = 1_000_000_000_000L;
    private static final DateTimeFormatter DAY = DateTimeFormatter.ofPattern("d MMM uuuu", Locale.UK);
    private static final DateTimeFormatter SHORT_DAY = DateTimeFormatter.ofPattern("d MMM", Locale.UK);
    private static final DateTimeFormatter MOMENT = DateTimeFormatter.ofPattern("d MMM uuuu HH:mm:ss", Locale.UK);
    private static final DateTimeFormatter CLOCK = DateTimeFormatter.ofPattern("EEE d MMM HH:mm", Locale.UK);

    /** Names a figure, so that the same one elsewhere can be held against it: whose, and which. */
    public String key(String kind, String name, String figure) {
        return kind + " " + name + " " + figure;
    }

    /** How they are written for whoever a page is for. */
    public static Figures of(Model model) {
        return (Figures) Objects.requireNonNull(model.getAttribute("fmt"), "fmt");
    }

    /** A size under a name by which it is found elsewhere. */
    public Figure figure(String key, Bytes bytes) {
        return new Figure(key, String.valueOf(bytes.value()), size(bytes), "");
    }

    /** The same, in a column that carries the unit in its head. */
    public Figure largeFigure(String key, Bytes bytes) {
        return new Figure(key, String.valueOf(bytes.value()), large(bytes), "");
    }

    public String size(Bytes bytes) {
        return units.format(bytes);
    }

    public String size(long bytes) {
        return bytes < 0 ? "−" + units.format(Bytes.of(-bytes)) : units.format(Bytes.of(bytes));
    }

    /** In TiB or TB, for columns that carry the unit in their head. */
    public String large(Bytes bytes) {
        return units.figure(bytes, TIB);
    }

    public String large(long bytes) {
        return bytes < 0 ? "−" + large(Bytes.of(-bytes)) : large(Bytes.of(bytes));
    }

    public String largeUnit() {
        return units.unitName(TIB);
    }

    /** The size of a drive as it is printed on it, whichever units the reader has chosen. */
    public static String printed(Bytes label) {
        return label.value() / TB + " TB";
    }

    public String exact(Bytes bytes) {
        return count(bytes.value());
    }

    public String count(long value) {
        return String.format(Locale.ROOT, "%,d", value);
    }

    /** "one drive", "2 drives". */
    public String counted(long count, String thing) {
        return Counted.of(count, thing);
    }

    public String whole(double value) {
        return count(Math.round(value));
    }

    /** An amount of money given in cents. */
    public String money(long cents) {
        return String.format(Locale.ROOT, "%,d.%02d", cents / 100, cents % 100);
    }

    /** An amount of money, with all its decimals and at least two. */
    public String money(BigDecimal amount) {
        return String.format(Locale.ROOT, "%,." + Math.max(2, amount.scale()) + "f", amount);
    }

    public String percent(double share) {
        return String.format(Locale.ROOT, "%.1f %%", share * 100);
    }

    public String hours(double hours) {
        return hours < 10 ? String.format(Locale.ROOT, "%.1f", hours) : String.format(Locale.ROOT, "%,.0f", hours);
    }

    /** Odds as "1 in so many", the way people compare them. */
    public String odds(double odds) {
        if (odds <= 0) {
            return "none seen";
        }
        double in = 1 / odds;
        if (in < 10) {
            return String.format(Locale.ROOT, "%.1f %%", odds * 100);
        }
        if (in < 1e6) {
            double step = Math.pow(10, Math.max(0, Math.floor(Math.log10(in)) - 1));
            return String.format(Locale.ROOT, "1 in %,.0f", Math.round(in / step) * step);
        }
        if (in < 1e9) {
            return String.format(Locale.ROOT, "1 in %,.0f million", in / 1e6);
        }
        return in < 1e12 ? String.format(Locale.ROOT, "1 in %,.0f billion", in / 1e9) : "below 1 in 10¹²";
    }

    public String day(LocalDate day) {
        return DAY.format(day);
    }

    public String shortDay(LocalDate day) {
        return SHORT_DAY.format(day);
    }

    public String moment(Instant instant) {
        return MOMENT.format(instant.atOffset(ZoneOffset.UTC));
    }

    public String clock(Instant instant) {
        return CLOCK.format(instant.atOffset(ZoneOffset.UTC));
    }

    public String duration(Duration duration) {
        long seconds = duration.toSeconds();
        if (seconds < 120) {
            return seconds + " s";
        }
        if (seconds < 7_200) {
            return seconds / 60 + " min";
        }
        return seconds < 172_800 ? seconds / 3_600 + " h" : seconds / 86_400 + " days";
    }
}
