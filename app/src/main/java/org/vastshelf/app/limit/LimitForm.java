package org.vastshelf.app.limit;

import java.time.Duration;
import java.util.Arrays;
import java.util.Collection;
import java.util.List;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.vastshelf.app.kit.AtField;
import org.vastshelf.app.kit.Field;
import org.vastshelf.app.kit.Typed;
import org.vastshelf.core.estate.Basis;
import org.vastshelf.core.estate.FilePath;
import org.vastshelf.core.estate.LimitRule;
import org.vastshelf.core.unit.Bytes;
import org.vastshelf.core.unit.SizeText;

/** What was typed about a limit rule; an empty level is none. */
record LimitForm(
        String share,
        String path,
        @Nullable Whose whose,
        @Nullable Basis basis,
        String warnAt,
        String graceAt,
        Long graceHours,
        String stopAt) {
    private static final int MOST_HOURS = 8_784;

    LimitForm {
        whose = whose == null ? Whose.FOLDER : whose;
        basis = basis == null ? Basis.AS_SEEN : basis;
        graceHours = graceHours == null ? LimitRule.DEFAULT_GRACE.toHours() : graceHours;
        path = path == null || path.isBlank() ? "/" : path.strip();
    }

    static LimitForm empty(String share) {
        return new LimitForm(share, "/", Whose.FOLDER, Basis.AS_SEEN, "", "", LimitRule.DEFAULT_GRACE.toHours(), "");
    }

    static LimitForm of(LimitRule rule) {
        return new LimitForm(
                rule.share(),
                rule.path().text(),
                Whose.of(rule),
                rule.basis(),
                typed(rule.warnAt()),
                typed(rule.graceAt()),
                rule.graceTime().toHours(),
                typed(rule.stopAt()));
    }

    private static String typed(Optional<Bytes> level) {
        return level.map(SizeText::exact).orElse("");
    }

    /** The fields in which it is typed: whose, and how much. */
    List<Field> about(Typed.Fields fields, Collection<String> shares) {
        return List.of(
                fields.select("share", "Share", shares, share),
                fields.text("path", "Folder on the share", path),
                fields.radios(
                        "whose", "Who has an account", Arrays.asList(Whose.values()), Whose::name, Whose::title, whose),
                fields.radios(
                        "basis", "What counts", Arrays.asList(Basis.values()), Basis::name, LimitForm::told, basis));
    }

    private static String told(Basis basis) {
        return switch (basis) {
            case AS_SEEN -> "bytes as people see them";
            case ON_DISK -> "what they take on disk: blocks, units that are shared once, nothing for what has left";
        };
    }

    List<Field> levels(Typed.Fields fields) {
        return List.of(
                fields.text("warnAt", "Warn at", warnAt)
                        .with("placeholder", "120 GiB")
                        .hint("tells, refuses nothing"),
                fields.text("graceAt", "Grace at", graceAt)
                        .with("placeholder", "140 GiB")
                        .hint("growth is allowed for a time, then refused"),
                fields.number("graceHours", "Grace time, hours", graceHours).between(1, MOST_HOURS),
                fields.text("stopAt", "Stop at", stopAt)
                        .with("placeholder", "150 GiB")
                        .hint("refuses what would exceed it"));
    }

    LimitRule rule() {
        return new LimitRule(
                share,
                AtField.read("path", () -> new FilePath(path)),
                whose == Whose.CHILD,
                whose.apart(),
                basis,
                AtField.read("warnAt", () -> level("warn level", warnAt)),
                AtField.read("graceAt", () -> level("grace level", graceAt)),
                Duration.ofHours(graceHours),
                AtField.read("stopAt", () -> level("stop level", stopAt)));
    }

    private static Optional<Bytes> level(String name, String typed) {
        return typed == null || typed.isBlank()
                ? Optional.empty()
                : Optional.of(SizeText.parse(name, typed, Bytes.of(1), Bytes.tib(1024)));
    }
}
