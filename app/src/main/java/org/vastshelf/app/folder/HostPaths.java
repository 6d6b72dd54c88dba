package org.vastshelf.app.folder;

import java.net.URI;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;

/** Paths of this host, which are bytes. */
final class HostPaths {

    private HostPaths() {}

    /** A path with exactly these bytes, which a {@code String} cannot carry when they are not UTF-8. */
    static Path path(byte[] bytes) {
        String text = new String(bytes, StandardCharsets.UTF_8);
        if (!text.contains("\uFFFD") && text.chars().allMatch(c -> c < 128)) {
            return Path.of(text);
        }
        StringBuilder uri = new StringBuilder("file://");
        for (byte b : bytes) {
            boolean plain = b == '/' || b >= '0' && b <= '9' || b >= 'a' && b <= 'z' || b >= 'A' && b <= 'Z';
            uri.append(plain ? String.valueOf((char) b) : String.format("%%%02X", b & 0xff));
        }
        return Path.of(URI.create(uri.toString()));
    }
}
