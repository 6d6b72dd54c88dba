package org.vastshelf.app.rule;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Set;
import java.util.TreeSet;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.vastshelf.app.kit.AtField;
import org.vastshelf.core.catalogue.FileKind;
import org.vastshelf.core.estate.FilePath;
import org.vastshelf.core.estate.SharePlace;
import org.vastshelf.core.unit.Bytes;
import org.vastshelf.core.unit.ShortText;
import org.vastshelf.core.unit.SizeText;

/** Reads what is typed about rules; what can't be read is refused at its field. */
public final class TypedValues {

    private static final Bytes MOST = Bytes.tib(1 << 20);
    private static final int LONGEST_SHOWN = 60;

    private TypedValues() {}

    /** Without blanks around it; nothing for nothing. */
    public static String text(@Nullable String typed) {
        return typed == null ? "" : typed.strip();
    }

    /** A whole number, or what is meant where nothing is typed. */
    public static int number(String field, @Nullable String typed, String otherwise) {
        String given = text(typed).isEmpty() ? otherwise : text(typed);
        return AtField.read(field, () -> {
            try {
                return Integer.parseInt(given);
            } catch (NumberFormatException none) {
                throw new IllegalArgumentException(
                        "'" + ShortText.of(given, LONGEST_SHOWN) + "' is no whole number", none);
            }
        });
    }

    /** A size in bytes; 0 where nothing is typed. */
    public static long size(String field, @Nullable String typed) {
        String given = text(typed);
        return AtField.read(
                field,
                () -> given.isEmpty() || given.equals("0")
                        ? 0
                        : SizeText.parse("size", given, Bytes.ZERO, MOST).value());
    }

    /** What stands between commas or on lines. */
    public static List<String> list(@Nullable String typed) {
        return Arrays.stream(text(typed).split("[,\\n]"))
                .map(String::strip)
                .filter(part -> !part.isEmpty())
                .toList();
    }

    /** Shares or folders of them, one a line, such as press:/issues. */
    public static List<SharePlace> places(String field, @Nullable String typed) {
        return AtField.read(field, () -> {
            List<SharePlace> found = new ArrayList<>();
            for (String line : text(typed)
                    .lines()
                    .map(String::strip)
                    .filter(l -> !l.isEmpty())
                    .toList()) {
                int colon = line.indexOf(':');
                found.add(
                        colon < 0
                                ? new SharePlace(line, FilePath.ROOT)
                                : new SharePlace(line.substring(0, colon), new FilePath(line.substring(colon + 1))));
            }
            return found;
        });
    }

    /** Kinds of files, by their titles. */
    public static Set<FileKind> kinds(String field, @Nullable String typed) {
        return AtField.read(field, () -> {
            Set<FileKind> found = new TreeSet<>();
            for (String title : list(typed)) {
                found.add(Arrays.stream(FileKind.values())
                        .filter(kind -> kind.title().equals(title))
                        .findFirst()
                        .orElseThrow(() -> new IllegalArgumentException("'" + ShortText.of(title, LONGEST_SHOWN)
                                + "' is no kind, must be of "
                                + Arrays.stream(FileKind.values())
                                        .map(FileKind::title)
                                        .collect(Collectors.joining(", ")))));
            }
            return found;
        });
    }

    /** Kinds as they are typed. */
    public static String said(Set<FileKind> kinds) {
        return kinds.stream().sorted().map(FileKind::title).collect(Collectors.joining(", "));
    }

    /** Places as they are typed, one a line. */
    public static String lines(List<SharePlace> places) {
        return places.stream()
                .map(place -> place.folder().isRoot() ? place.share() : place.toString())
                .collect(Collectors.joining("\n"));
    }
}
