package org.vastshelf.app.retention;

import java.time.Duration;
import java.time.LocalDate;
import java.time.Period;
import java.util.Arrays;
import java.util.Collection;
import java.util.List;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.vastshelf.app.kit.AtField;
import org.vastshelf.app.kit.Days;
import org.vastshelf.app.kit.Field;
import org.vastshelf.app.kit.Typed;
import org.vastshelf.app.kit.WholeNumbers;
import org.vastshelf.core.change.RetentionChange;
import org.vastshelf.core.change.RetentionPlans;
import org.vastshelf.core.estate.FilePath;
import org.vastshelf.core.estate.RetentionRule;
import org.vastshelf.core.estate.RetentionRule.Basis;
import org.vastshelf.core.estate.RetentionRule.Seal;

/** What was typed about a retention rule; what is left empty is none. */
record RetentionForm(
        String share,
        String folder,
        @Nullable Basis basis,
        String years,
        String months,
        String days,
        String until,
        String quietHours,
        String typedYears) {

    private static final int USUAL_QUIET = 24;

    RetentionForm {
        folder = folder == null || folder.isBlank() ? "/" : folder.strip();
        basis = basis == null ? Basis.CHANGED : basis;
    }

    static RetentionForm empty(String share) {
        return new RetentionForm(share, "/", Basis.CHANGED, "", "", "", "", String.valueOf(USUAL_QUIET), "");
    }

    static RetentionForm of(RetentionRule rule) {
        return new RetentionForm(
                rule.share(),
                rule.folder().text(),
                rule.basis(),
                figure(rule.length().getYears()),
                figure(rule.length().getMonths()),
                figure(rule.length().getDays()),
                rule.until().map(LocalDate::toString).orElse(""),
                figure((int) rule.quiet().toHours()),
                "");
    }

    private static String figure(int number) {
        return number == 0 ? "" : String.valueOf(number);
    }

    List<Field> where(Typed.Fields fields, Collection<String> shares) {
        return List.of(
                fields.select("share", "Share", shares, share).width("w-48"),
                fields.text("folder", "Folder on the share", folder).width("w-64"));
    }

    List<Field> term(Typed.Fields fields) {
        return List.of(
                fields.select("basis", "Counted from", Arrays.asList(Basis.values()), Basis::name, Basis::title, basis)
                        .width("w-44"),
                fields.text("years", "Years", years).width("w-20"),
                fields.text("months", "Months", months).width("w-20"),
                fields.text("days", "Days", days).width("w-20"),
                fields.day("until", "or until", until).width("w-44"),
                fields.text("quietHours", "Quiet hours", quietHours)
                        .hint("so long after its last change a file can still be changed")
                        .width("w-44"),
                fields.text("typedYears", "Years, typed again", typedYears)
                        .hint("only beyond " + RetentionPlans.PLAIN_YEARS + " years")
                        .width("w-44"));
    }

    /**
     * The change that was typed.
     *
     * @param seal of the rule that is there
     * @throws AtField naming what can't be
     */
    RetentionChange.SetRetention change(Optional<Seal> seal) {
        Period length = Period.of(whole("years", years), whole("months", months), whole("days", days));
        FilePath at = AtField.read("folder", () -> new FilePath(folder));
        RetentionRule rule = AtField.read(
                basis == Basis.DATE ? "until" : "years",
                () -> new RetentionRule(
                        share,
                        at,
                        basis,
                        length,
                        Days.typed("until", until),
                        Duration.ofHours(whole("quietHours", quietHours)),
                        seal));
        return new RetentionChange.SetRetention(rule, typed("typedYears", typedYears));
    }

    static Optional<Integer> typed(String name, String years) {
        return blank(years) ? Optional.empty() : Optional.of(whole(name, years));
    }

    private static int whole(String name, String typed) {
        return blank(typed) ? 0 : AtField.read(name, () -> WholeNumbers.whole(name, typed.strip()));
    }

    private static boolean blank(@Nullable String text) {
        return text == null || text.isBlank();
    }
}
