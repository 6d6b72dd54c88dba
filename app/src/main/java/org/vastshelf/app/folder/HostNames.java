package org.vastshelf.app.folder;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.HashMap;
import java.util.Map;

/** Names of the host's users and groups by number; an unknown number stands for itself. */
final class HostNames {

    private final Map<Integer, String> users;
    private final Map<Integer, String> groups;

    HostNames() {
        users = read(Path.of("/etc/passwd"));
        groups = read(Path.of("/etc/group"));
    }

    private static Map<Integer, String> read(Path table) {
        Map<Integer, String> names = new HashMap<>();
        try {
            for (String line : Files.readAllLines(table, StandardCharsets.ISO_8859_1)) {
                String[] parts = line.split(":");
                if (parts.length > 2 && parts[2].matches("[0-9]{1,9}")) {
                    names.putIfAbsent(Integer.parseInt(parts[2]), parts[0]);
                }
            }
        } catch (IOException unreadable) {
            return Map.of();
        }
        return names;
    }

    String user(int uid) {
        return users.getOrDefault(uid, Integer.toUnsignedString(uid));
    }

    String group(int gid) {
        return groups.getOrDefault(gid, Integer.toUnsignedString(gid));
    }
}
