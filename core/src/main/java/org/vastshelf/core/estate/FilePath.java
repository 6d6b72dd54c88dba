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
        int length = bytes(text);
        if (length > LONGEST) {
            throw new IllegalArgumentException("path has " + length + " bytes, must be at most " + LONGEST);
        }
        text = text.length() > 1 && text.endsWith("/") ? text.substring(0, text.length() - 1) : text;
        for (String part :
                text.length() == 1 ? new String[0] : text.substring(1).split("/", -1)) {
            requirePart(part);
        }
    }

    private static void requirePart(String part) {
        if (part.isEmpty() || part.equals(".") || part.equals("..") || part.indexOf('\0') >= 0) {
            throw new IllegalArgumentException(
                    "path has the part '" + part.replace('\0', '?') + "', must not be empty, '.', '..' or hold NUL");
        }
        if (bytes(part) > LONGEST_PART) {
            throw new IllegalArgumentException("path has the part '" + shorten(part) + "' of " + bytes(part)
                    + " bytes, must be at most " + LONGEST_PART);
        }
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
        return isRoot() ? "" : parts().getLast();
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
