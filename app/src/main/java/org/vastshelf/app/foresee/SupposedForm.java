package org.vastshelf.app.foresee;

import java.lang.reflect.RecordComponent;
import java.net.URLEncoder;
import java.nio.charset.StandardCharsets;
import java.time.LocalDate;
import java.time.format.DateTimeParseException;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import org.vastshelf.app.kit.AtField;
import org.vastshelf.app.kit.Field;
import org.vastshelf.app.kit.Typed;
import org.vastshelf.core.forecast.Supposition;
import org.vastshelf.core.unit.Bytes;
import org.vastshelf.core.unit.SizeText;

/** What is supposed, as it is typed: each part is left out where its amount is. */
public record SupposedForm(
        @Nullable String people,
        @Nullable String each,
        @Nullable String yearly,
        @Nullable String peopleFrom,
        @Nullable String project,
        @Nullable String projectFrom,
        @Nullable String projectDays,
        @Nullable String gone,
        @Nullable String goneOn,
        @Nullable String spared,
        @Nullable String sparedMost,
        @Nullable String sparedFrom,
        @Nullable String level,
        @Nullable String step,
        @Nullable String ceiling) {

    private static final Bytes MOST = Bytes.tib(100_000);
    private static final int MOST_PEOPLE = 1_000_000;
    private static final int MOST_DAYS = 3_650;
    private static final int DEFAULT_DAYS = 90;

    /** The fields, one group of them for each kind of supposition. */
    record Group(String title, List<Field> fields) {}

    /** @throws AtField naming the field, what it is and what it must be */
    public List<Supposition> suppositions(LocalDate today, Bytes capacity) {
        List<Supposition> all = new ArrayList<>();
        given(people)
                .ifPresent(count -> all.add(new Supposition.People(
                        number("people", count, 1, MOST_PEOPLE),
                        size("each", or(each, "0")),
                        size("yearly", or(yearly, "0")),
                        day("peopleFrom", peopleFrom, today))));
        given(project)
                .ifPresent(bytes -> all.add(new Supposition.Project(
                        size("project", bytes),
                        day("projectFrom", projectFrom, today),
                        number("projectDays", or(projectDays, "1"), 1, MOST_DAYS))));
        given(gone)
                .ifPresent(
                        bytes -> all.add(new Supposition.Removal(size("gone", bytes), day("goneOn", goneOn, today))));
        given(spared)
                .ifPresent(rate -> all.add(new Supposition.Sparing(
                        size("spared", rate),
                        given(sparedMost).map(most -> size("sparedMost", most)).orElse(MOST),
                        day("sparedFrom", sparedFrom, today))));
        given(step).ifPresent(bytes -> all.add(growth(bytes, capacity)));
        return all;
    }

    private Supposition growth(String bytes, Bytes capacity) {
        Bytes by = size("step", bytes);
        if (by.isZero()) {
            throw new AtField("step", "step is 0 bytes, must be at least 1");
        }
        Bytes most = given(ceiling).map(text -> size("ceiling", text)).orElse(capacity.times(2));
        return new Supposition.Growth(number("level", or(level, "85"), 50, 99), by, most);
    }

    private static Optional<String> given(@Nullable String text) {
        return Optional.ofNullable(text).map(String::strip).filter(t -> !t.isEmpty());
    }

    private static String or(@Nullable String text, String otherwise) {
        return given(text).orElse(otherwise);
    }

    private static Bytes size(String field, String text) {
        if (text.equals("0")) {
            return Bytes.ZERO;
        }
        try {
            return SizeText.parse(field, text, Bytes.ZERO, MOST);
        } catch (IllegalArgumentException wrong) {
            throw new AtField(field, String.valueOf(wrong.getMessage()));
        }
    }

    private static int number(String field, String text, int least, int most) {
        try {
            int value = Integer.parseInt(text);
            if (value >= least && value <= most) {
                return value;
            }
        } catch (NumberFormatException none) {
            throw new AtField(field, field + " is '" + text + "', must be a whole number " + least + " to " + most);
        }
        throw new AtField(field, field + " is " + text + ", must be " + least + " to " + most);
    }

    private static LocalDate day(String field, @Nullable String text, LocalDate today) {
        try {
            return given(text).map(LocalDate::parse).orElse(today);
        } catch (DateTimeParseException none) {
            throw new AtField(field, field + " is '" + text + "', must be a day such as 2026-03-02");
        }
    }

    static List<Group> groups(Typed.Fields fields, LocalDate today, SupposedForm form) {
        String day = today.toString();
        return List.of(
                new Group(
                        "More people",
                        List.of(
                                fields.text("people", "So many more", or(form.people, "")),
                                fields.text("each", "each brings", or(form.each, ""))
                                        .hint("such as 20 GiB"),
                                fields.text("yearly", "and adds in a year", or(form.yearly, "")),
                                fields.day("peopleFrom", "from", or(form.peopleFrom, day)))),
                new Group(
                        "A project",
                        List.of(
                                fields.text("project", "brings", or(form.project, ""))
                                        .hint("such as 5 TiB"),
                                fields.day("projectFrom", "from", or(form.projectFrom, day)),
                                fields.text(
                                        "projectDays",
                                        "over days",
                                        or(form.projectDays, String.valueOf(DEFAULT_DAYS))))),
                new Group(
                        "An archive removed",
                        List.of(
                                fields.text("gone", "takes away", or(form.gone, "")),
                                fields.day("goneOn", "on", or(form.goneOn, day)))),
                new Group(
                        "Deduplication or tiering",
                        List.of(
                                fields.text("spared", "spares a month", or(form.spared, "")),
                                fields.text("sparedMost", "at most in all", or(form.sparedMost, "")),
                                fields.day("sparedFrom", "from", or(form.sparedFrom, day)))),
                new Group(
                        "A growth rule",
                        List.of(
                                fields.text("step", "adds each time", or(form.step, "")),
                                fields.text("level", "above per cent used", or(form.level, "85")),
                                fields.text("ceiling", "up to", or(form.ceiling, ""))
                                        .hint("else twice as much as now"))));
    }

    /** What was typed, without what is left out. */
    Map<String, String> typed() {
        Map<String, String> typed = new LinkedHashMap<>();
        Stream.of(getClass().getRecordComponents())
                .forEach(part -> given(value(part)).ifPresent(v -> typed.put(part.getName(), v)));
        return typed;
    }

    /** The same as the query of an address. */
    String query() {
        return typed().entrySet().stream()
                .map(part -> part.getKey() + "=" + URLEncoder.encode(part.getValue(), StandardCharsets.UTF_8))
                .collect(Collectors.joining("&"));
    }

    private @Nullable String value(RecordComponent part) {
        try {
            return (String) part.getAccessor().invoke(this);
        } catch (ReflectiveOperationException impossible) {
            throw new IllegalStateException(impossible);
        }
    }
}
