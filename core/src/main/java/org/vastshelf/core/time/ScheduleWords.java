package org.vastshelf.core.time;

import java.time.format.DateTimeFormatter;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.stream.Collectors;

/** Schedules in words. Rules that are more than a rhythm and a time of day are given as they are written. */
public final class ScheduleWords {

    private static final Map<String, String> UNITS = Map.of(
            "MINUTELY", "minute",
            "HOURLY", "hour",
            "DAILY", "day",
            "WEEKLY", "week",
            "MONTHLY", "month",
            "YEARLY", "year");
    private static final Map<String, String> DAYS = new LinkedHashMap<>();
    private static final Set<String> OF_THE_DAY = Set.of("DAILY", "WEEKLY", "MONTHLY", "YEARLY");
    private static final Set<String> SAID = Set.of("FREQ", "INTERVAL", "BYDAY");

    static {
        List.of("Monday", "Tuesday", "Wednesday", "Thursday", "Friday", "Saturday", "Sunday")
                .forEach(day -> DAYS.put(day.substring(0, 2).toUpperCase(Locale.ROOT), day));
    }

    private ScheduleWords() {}

    /** Such as "every 2 weeks on Saturday at 03:00". */
    public static String of(Schedule schedule) {
        Map<String, String> parts = parts(schedule.rule());
        String frequency = parts.getOrDefault("FREQ", "");
        String byDay = parts.getOrDefault("BYDAY", "");
        if (!SAID.containsAll(parts.keySet()) || !UNITS.containsKey(frequency) || !plainDays(frequency, byDay)) {
            return "by the rule " + schedule.rule();
        }
        return rhythm(frequency, parts.getOrDefault("INTERVAL", "1"))
                + days(schedule, frequency, byDay)
                + timeOfDay(schedule, frequency);
    }

    private static boolean plainDays(String frequency, String byDay) {
        return byDay.isEmpty() || frequency.equals("WEEKLY") && DAYS.keySet().containsAll(List.of(byDay.split(",")));
    }

    private static String rhythm(String frequency, String interval) {
        String unit = UNITS.get(frequency);
        return interval.equals("1") ? "every " + unit : "every " + interval + " " + unit + "s";
    }

    private static String days(Schedule schedule, String frequency, String byDay) {
        String text = switch (frequency) {
            case "WEEKLY" ->
                byDay.isEmpty()
                        ? DAYS.get(schedule.from().getDayOfWeek().name().substring(0, 2))
                        : List.of(byDay.split(",")).stream().map(DAYS::get).collect(Collectors.joining(", "));
            case "MONTHLY" -> "the " + ordinal(schedule.from().getDayOfMonth());
            case "YEARLY" -> schedule.from().format(DateTimeFormatter.ofPattern("d MMMM", Locale.ENGLISH));
            default -> "";
        };
        return text.isEmpty() ? "" : " on " + text;
    }

    private static String ordinal(int day) {
        String ending = switch (day % 100 / 10 == 1 ? 0 : day % 10) {
            case 1 -> "st";
            case 2 -> "nd";
            case 3 -> "rd";
            default -> "th";
        };
        return day + ending;
    }

    private static String timeOfDay(Schedule schedule, String frequency) {
        return OF_THE_DAY.contains(frequency)
                ? " at " + schedule.from().toLocalTime().format(DateTimeFormatter.ofPattern("HH:mm"))
                : "";
    }

    private static Map<String, String> parts(String rule) {
        Map<String, String> parts = new TreeMap<>();
        for (String part : rule.toUpperCase(Locale.ROOT).split(";")) {
            int equals = part.indexOf('=');
            parts.put(equals < 0 ? part : part.substring(0, equals), equals < 0 ? "" : part.substring(equals + 1));
        }
        return parts;
    }
}
