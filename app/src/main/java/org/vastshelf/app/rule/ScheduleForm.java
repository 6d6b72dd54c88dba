package org.vastshelf.app.rule;

import java.time.LocalDateTime;
import java.time.format.DateTimeParseException;
import java.time.temporal.ChronoUnit;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import org.vastshelf.app.kit.AtField;
import org.vastshelf.app.kit.Field;
import org.vastshelf.app.kit.Typed;
import org.vastshelf.core.time.Schedule;
import org.vastshelf.core.unit.ShortText;

/**
 * What was typed about a schedule.
 *
 * @param often name of one of {@link Often}
 * @param first its first moment, as date inputs give it
 * @param recurrence the rule itself; what is typed here counts instead of the choice
 */
public record ScheduleForm(String often, String first, String recurrence) {

    private static final int LONGEST_SHOWN = 40;

    public ScheduleForm {
        often = often == null || often.isBlank() ? Often.NEVER.name() : often;
        first = first == null ? "" : first.strip();
        recurrence = recurrence == null ? "" : recurrence.strip();
    }

    /** Usual rhythms. */
    public enum Often {
        NEVER("never by itself", ""),
        TEN_MINUTES("every ten minutes", "FREQ=MINUTELY;INTERVAL=10"),
        HOUR("every hour", "FREQ=HOURLY"),
        DAY("every day", "FREQ=DAILY"),
        WEEK("every week", "FREQ=WEEKLY"),
        FORTNIGHT("every two weeks", "FREQ=WEEKLY;INTERVAL=2"),
        MONTH("every month", "FREQ=MONTHLY"),
        QUARTER("every three months", "FREQ=MONTHLY;INTERVAL=3"),
        OTHER("by the rule beside", "");

        private final String title;
        private final String rule;

        Often(String title, String rule) {
            this.title = title;
            this.rule = rule;
        }

        public String title() {
            return title;
        }
    }

    /** A schedule as it would have been typed. */
    public static ScheduleForm of(Optional<Schedule> schedule) {
        return schedule.map(s -> {
                    Often often = Arrays.stream(Often.values())
                            .filter(o -> o.rule.equals(s.rule()))
                            .findFirst()
                            .orElse(Often.OTHER);
                    return new ScheduleForm(often.name(), s.from().toString(), often == Often.OTHER ? s.rule() : "");
                })
                .orElseGet(() -> new ScheduleForm(Often.NEVER.name(), "", ""));
    }

    /** The fields in which a schedule is typed. */
    public static List<Field> fields(Typed.Fields typed, Optional<Schedule> kept, List<Often> rhythms) {
        ScheduleForm form = of(kept);
        return List.of(
                typed.select("often", "How often", rhythms, Often::name, Often::title, Often.valueOf(form.often))
                        .width("w-48"),
                typed.moment("first", "Counted from", form.first).width("w-52"),
                typed.text("recurrence", "Rule of its own (RFC 5545)", form.recurrence)
                        .with("placeholder", "FREQ=WEEKLY;BYDAY=SA,SU")
                        .width("w-72"));
    }

    /** Rhythms that fit what is not to come more often than every hour. */
    public static List<Often> hourly() {
        return Arrays.stream(Often.values()).filter(o -> o != Often.TEN_MINUTES).toList();
    }

    /** Rhythms of what comes once a day at most. */
    public static List<Often> daily() {
        return hourly().stream().filter(o -> o != Often.HOUR).toList();
    }

    /** Rhythms of what has to come at all. */
    public static List<Often> always() {
        return Arrays.stream(Often.values()).filter(o -> o != Often.NEVER).toList();
    }

    /**
     * The schedule that is meant; empty for never.
     *
     * @throws IllegalArgumentException naming what can't be read
     */
    public Optional<Schedule> schedule() {
        if (!recurrence.isEmpty()) {
            LocalDateTime from = beginning();
            return Optional.of(AtField.read("recurrence", () -> new Schedule(from, recurrence)));
        }
        Often chosen = Arrays.stream(Often.values())
                .filter(o -> o.name().equals(often))
                .findFirst()
                .orElseThrow(() -> new AtField(
                        "often",
                        "how often is '" + ShortText.of(often, LONGEST_SHOWN) + "', must be one of the choices"));
        return switch (chosen) {
            case NEVER -> Optional.empty();
            case OTHER ->
                throw new AtField("recurrence", "recurrence rule is missing, must be such as FREQ=WEEKLY;BYDAY=SA");
            default -> Optional.of(new Schedule(beginning(), chosen.rule));
        };
    }

    private LocalDateTime beginning() {
        if (first.isEmpty()) {
            return Schedule.BEGINNING;
        }
        try {
            return LocalDateTime.parse(first).truncatedTo(ChronoUnit.MINUTES);
        } catch (DateTimeParseException unreadable) {
            throw new AtField(
                    "first",
                    "first moment is '" + ShortText.of(first, LONGEST_SHOWN)
                            + "', must be a date and a time such as 2026-03-07T02:30");
        }
    }
}
