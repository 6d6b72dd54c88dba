package org.vastshelf.app.serve;

import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;
import java.util.stream.Collectors;
import org.vastshelf.app.kit.AtField;
import org.vastshelf.app.kit.Field;
import org.vastshelf.app.kit.Typed;
import org.vastshelf.core.estate.AccessRule;
import org.vastshelf.core.estate.Cidr;
import org.vastshelf.core.estate.Directory;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.ExportRule;
import org.vastshelf.core.estate.FilePath;
import org.vastshelf.core.estate.Share;
import org.vastshelf.core.unit.ShortText;

/**
 * What was typed about a share.
 *
 * @param access lines such as {@code group education-film write}, {@code suki read}, {@code everyone read}
 * @param exports lines such as {@code 10.20.0.0/16 write}
 */
record ShareForm(
        String name,
        String volume,
        Boolean smb,
        Boolean nfs,
        Boolean hiddenEntries,
        String access,
        String exports,
        String ownFolders) {
    private static final int MOST_GROUPS = 60;
    private static final int LONGEST = 60;

    ShareForm {
        ownFolders = ownFolders == null ? "" : ownFolders.strip();
        smb = Boolean.TRUE.equals(smb);
        nfs = Boolean.TRUE.equals(nfs);
        hiddenEntries = Boolean.TRUE.equals(hiddenEntries);
        name = name == null ? "" : name.strip();
        volume = volume == null ? "" : volume;
        access = access == null ? "" : access;
        exports = exports == null ? "" : exports;
    }

    static ShareForm of(Share share) {
        String access =
                String.join("\n", share.access().stream().map(ShareForm::text).toList());
        String exports = String.join(
                "\n",
                share.exports().stream()
                        .map(e -> e.clients().text() + (e.mayWrite() ? " write" : " read"))
                        .toList());
        return new ShareForm(
                share.name(),
                share.volume(),
                share.smb(),
                share.nfs(),
                share.hiddenEntries(),
                access,
                exports,
                share.ownFolders().map(FilePath::text).orElse(""));
    }

    private static String text(AccessRule rule) {
        String level = rule.level().name().toLowerCase(Locale.ROOT);
        return switch (rule.subject()) {
            case EVERYONE -> "everyone " + level;
            case GROUP -> "group " + rule.name() + " " + level;
            case PERSON -> rule.name() + " " + level;
        };
    }

    /** The fields in which it is typed: what it is, and who reaches it. */
    List<Field> about(Typed.Fields fields, Estate estate) {
        Set<String> served =
                estate.shares().values().stream().map(Share::volume).collect(Collectors.toSet());
        return List.of(
                fields.first(fields.text("name", "Name of the share, as clients see it", name)),
                fields.select(
                        "volume",
                        "Volume",
                        estate.volumes().keySet(),
                        Function.identity(),
                        v -> v + " on " + estate.volumes().get(v).pool()
                                + (served.contains(v) ? ", served already" : ""),
                        volume),
                fields.tick("smb", "over SMB", smb),
                fields.tick("nfs", "over NFS", nfs),
                fields.tick("hiddenEntries", "Hidden entries: leave out what a reader may not open", hiddenEntries),
                fields.text("ownFolders", "Own folders", ownFolders)
                        .with("placeholder", "/")
                        .hint("Each child folder of this one belongs to the person of its name; empty for none."));
    }

    List<Field> reach(Typed.Fields fields, Directory directory) {
        String groups = directory.people().stream()
                .flatMap(p -> p.groups().stream())
                .distinct()
                .sorted()
                .limit(MOST_GROUPS)
                .collect(Collectors.joining(", "));
        return List.of(
                fields.area("access", "Access, one a line", access)
                        .with("rows", 5)
                        .hint("such as: group education-film write · suki read · everyone read"),
                fields.area("exports", "Export rules for NFS, one a line", exports)
                        .with("rows", 4)
                        .hint("such as: 10.20.0.0/16 write. Groups in the directory: " + groups));
    }

    Share share(Directory directory) {
        return new Share(
                name,
                volume,
                smb,
                nfs,
                hiddenEntries,
                AtField.read("access", () -> lines(access, line -> rule(line, directory))),
                AtField.read("exports", () -> lines(exports, ShareForm::export)),
                AtField.read("ownFolders", this::own));
    }

    private static <T> List<T> lines(String text, Function<String, T> reading) {
        return text.lines()
                .map(String::strip)
                .filter(line -> !line.isEmpty())
                .map(reading)
                .toList();
    }

    private Optional<FilePath> own() {
        return ownFolders.isEmpty() ? Optional.empty() : Optional.of(new FilePath(ownFolders));
    }

    private static AccessRule rule(String line, Directory directory) {
        String[] words = line.split("\\s+");
        boolean group = words[0].equals("group");
        if (words.length != (group ? 3 : 2)) {
            throw new IllegalArgumentException("access line is '" + ShortText.of(line, LONGEST)
                    + "', must be like 'group education-film write', 'suki read' or 'everyone read'");
        }
        String name = words[group ? 1 : 0];
        AccessRule.Level level = level(words[words.length - 1]);
        if (!group && name.equals("everyone")) {
            return new AccessRule(AccessRule.Subject.EVERYONE, "", level);
        }
        boolean known = group
                ? directory.people().stream().anyMatch(p -> p.groups().contains(name))
                : directory.person(name).isPresent();
        if (!known) {
            throw new IllegalArgumentException((group ? "There is no group '" : "There is nobody '")
                    + ShortText.of(name, LONGEST) + "' in the directory");
        }
        return new AccessRule(group ? AccessRule.Subject.GROUP : AccessRule.Subject.PERSON, name, level);
    }

    private static AccessRule.Level level(String word) {
        try {
            return AccessRule.Level.valueOf(word.toUpperCase(Locale.ROOT));
        } catch (IllegalArgumentException none) {
            throw new IllegalArgumentException(
                    "access level is '" + ShortText.of(word, LONGEST) + "', must be read, write or own");
        }
    }

    private static ExportRule export(String line) {
        String[] words = line.split("\\s+");
        boolean write = words.length == 2 && words[1].equals("write");
        if (words.length > 2 || words.length == 2 && !write && !words[1].equals("read")) {
            throw new IllegalArgumentException(
                    "export line is '" + ShortText.of(line, LONGEST) + "', must be like '10.20.0.0/16 write'");
        }
        return new ExportRule(new Cidr(words[0]), write);
    }
}
