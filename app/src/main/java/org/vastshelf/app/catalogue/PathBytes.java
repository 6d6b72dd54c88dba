package org.vastshelf.app.catalogue;

import java.nio.ByteBuffer;
import java.nio.charset.CharacterCodingException;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import org.vastshelf.app.store.Digests;

/** Paths as the bytes that file systems keep. */
public final class PathBytes {

    private PathBytes() {}

    public static byte[] of(String text) {
        return text.getBytes(StandardCharsets.UTF_8);
    }

    public static byte[] child(byte[] folder, byte[] name) {
        boolean root = folder.length == 1;
        byte[] path = Arrays.copyOf(folder, folder.length + name.length + (root ? 0 : 1));
        path[root ? 0 : folder.length] = '/';
        System.arraycopy(name, 0, path, path.length - name.length, name.length);
        return path;
    }

    /** For the unique look-up of paths that are longer than an index key may be. */
    public static byte[] hash(byte[] path) {
        return Digests.sixteen(path);
    }

    /** Readable and reversible: control characters, backslashes and bytes that are not UTF-8 become {@code \xHH}. */
    public static String shown(byte[] path) {
        try {
            String text = StandardCharsets.UTF_8
                    .newDecoder()
                    .decode(ByteBuffer.wrap(path))
                    .toString();
            if (text.chars().noneMatch(c -> c < ' ' || c == '\\' || c == 127)) {
                return text;
            }
            StringBuilder shown = new StringBuilder();
            text.chars().forEach(c -> {
                if (c < ' ' || c == '\\' || c == 127) {
                    shown.append(String.format("\\x%02X", c));
                } else {
                    shown.append((char) c);
                }
            });
            return shown.toString();
        } catch (CharacterCodingException notUtf8) {
            StringBuilder shown = new StringBuilder();
            for (byte b : path) {
                boolean plain = b >= ' ' && b != '\\' && b != 127;
                shown.append(plain ? String.valueOf((char) b) : String.format("\\x%02X", b & 0xff));
            }
            return shown.toString();
        }
    }

    /** The reverse of {@link #shown}. */
    public static byte[] parse(String shown) {
        byte[] from = of(shown);
        byte[] to = new byte[from.length];
        int length = 0;
        for (int i = 0; i < from.length; i++) {
            if (isEscape(from, i)) {
                to[length++] = (byte) (Character.digit(from[i + 2], 16) * 16 + Character.digit(from[i + 3], 16));
                i += 3;
            } else {
                to[length++] = from[i];
            }
        }
        return Arrays.copyOf(to, length);
    }

    private static boolean isEscape(byte[] text, int at) {
        return at + 3 < text.length
                && text[at] == '\\'
                && text[at + 1] == 'x'
                && Character.digit(text[at + 2], 16) >= 0
                && Character.digit(text[at + 3], 16) >= 0;
    }
}
