package org.vastshelf.app.snapshot;

import java.util.List;
import java.util.Optional;
import org.vastshelf.app.kit.AtField;
import org.vastshelf.app.kit.Field;
import org.vastshelf.app.kit.Typed;
import org.vastshelf.app.kit.WholeNumbers;
import org.vastshelf.app.rule.ScheduleForm;
import org.vastshelf.core.estate.SnapshotRule;
import org.vastshelf.core.snapshot.KeepRule;

/** What was typed about which snapshots of a schedule stay, and what they are called; what is left empty is none. */
public record RuleForm(
        String newest, String hourly, String daily, String weekly, String monthly, String yearly, String pattern) {

    private static final KeepRule USUAL = new KeepRule(0, 0, 14, 8, 0, 0);
    private static final String PATTERN = "nightly {day}";

    /** The fields, as a rule has them. */
    static List<Field> fields(Typed.Fields typed, Optional<SnapshotRule> rule) {
        KeepRule keep = rule.map(SnapshotRule::keep).orElse(USUAL);
        return List.of(
                figure(typed, "newest", "keep the newest", keep.newest()),
                figure(typed, "hourly", "one an hour", keep.hourly()),
                figure(typed, "daily", "a day", keep.daily()),
                figure(typed, "weekly", "a week", keep.weekly()),
                figure(typed, "monthly", "a month", keep.monthly()),
                figure(typed, "yearly", "a year", keep.yearly()),
                typed.text("pattern", "called", rule.map(SnapshotRule::pattern).orElse(PATTERN))
                        .hint("{day}, {time} and {number} stand for its own")
                        .width("w-64"));
    }

    private static Field figure(Typed.Fields typed, String name, String label, int kept) {
        return typed.text(name, label, kept == 0 ? "" : String.valueOf(kept)).width("w-28");
    }

    /** @throws IllegalArgumentException naming what can't be */
    SnapshotRule rule(String volume, ScheduleForm when) {
        KeepRule keep = new KeepRule(
                whole("newest", newest),
                whole("hourly", hourly),
                whole("daily", daily),
                whole("weekly", weekly),
                whole("monthly", monthly),
                whole("yearly", yearly));
        return new SnapshotRule(
                volume,
                when.schedule()
                        .orElseThrow(() -> new AtField("often", "how often is never; drop the schedule instead")),
                keep,
                pattern == null ? "" : pattern.strip());
    }

    private static int whole(String name, String typed) {
        return typed == null || typed.isBlank()
                ? 0
                : AtField.read(name, () -> WholeNumbers.whole("figure of " + name, typed.strip()));
    }
}
