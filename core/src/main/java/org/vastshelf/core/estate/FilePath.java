package org.vastshelf.core.estate;

import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.stream.Stream;

/**
 * A path on a share: begins with a slash, has no empty, {@code .} or {@code ..} part, at most 4,096 bytes of UTF-8 in
 * all and 255 in each part.
 */
public record FilePath(String text) {

    public static final FilePath ROOT = new FilePath("/");
    private static final int LONGEST = 4_096;
    private static final int LONGEST_PART = 255;

    public FilePath {
        if (!text.startsWith("/")) {
            throw new IllegalArgumentException("path is '" + shorten(text) + "', must begin with '/'");
        }
        if (mayBeLonger(text, LONGEST) && bytes(text) > LONGEST) {
            throw new IllegalArgumentException("path has " + bytes(text) + " bytes, must be at most " + LONGEST);
        }
        text = text.length() > 1 && text.endsWith("/") ? text.substring(0, text.length() - 1) : text;
        for (int from = 1, to; from <= text.length() && text.length() > 1; from = to + 1) {
            int slash = text.indexOf('/', from);
            to = slash < 0 ? text.length() : slash;
            requirePart(text.substring(from, to));
        }
    }

    private static void requirePart(String part) {
        if (part.isEmpty() || part.equals(".") || part.equals("..") || part.indexOf('\0') >= 0) {
            throw new IllegalArgumentException(
                    "path has the part '" + part.replace('\0', '?') + "', must not be empty, '.', '..' or hold NUL");
        }
        if (mayBeLonger(part, LONGEST_PART) && bytes(part) > LONGEST_PART) {
            throw new IllegalArgumentException("path has the part '" + shorten(part) + "' of " + bytes(part)
                    + " bytes, must be at most " + LONGEST_PART);
        }
    }

    /** No character takes more than three bytes; a pair of them takes four. */
    private static boolean mayBeLonger(String text, int bytes) {
        return 3 * text.length() > bytes;
    }

    private static int bytes(String text) {
        return text.getBytes(StandardCharsets.UTF_8).length;
    }

    private static String shorten(String text) {
        return text.length() <= 60 ? text : text.substring(0, 60) + "…";
    }

    public boolean isRoot() {
        return text.length() == 1;
    }

    public List<String> parts() {
        return isRoot() ? List.of() : List.of(text.substring(1).split("/"));
    }

    public String name() {
        return text.substring(text.lastIndexOf('/') + 1);
    }

    /** The folder that holds this; the root holds itself. */
    public FilePath parent() {
        int slash = text.lastIndexOf('/');
        return slash <= 0 ? ROOT : new FilePath(text.substring(0, slash));
    }

    public FilePath child(String name) {
        return new FilePath(isRoot() ? "/" + name : text + "/" + name);
    }

    /** True for the folder itself and all that lies below it. */
    public boolean isWithin(FilePath folder) {
        return folder.isRoot() || text.equals(folder.text) || text.startsWith(folder.text + "/");
    }

    /** All enclosing folders, from the root down to the parent. */
    public List<FilePath> ancestors() {
        return isRoot()
                ? List.of()
                : Stream.iterate(this, p -> !p.isRoot(), FilePath::parent)
                        .map(FilePath::parent)
                        .toList()
                        .reversed();
    }

    @Override
    public String toString() {
        return text;
    }
}
