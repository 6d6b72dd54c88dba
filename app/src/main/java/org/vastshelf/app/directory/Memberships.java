package org.vastshelf.app.directory;

import java.util.ArrayDeque;
import java.util.Deque;
import java.util.HashMap;
import java.util.HashSet;
import java.util.Map;
import java.util.Set;

/** Who is in which group, also by way of groups that are members of groups, and whatever circles they form. */
final class Memberships {

    private final Map<String, Set<String>> direct = new HashMap<>();
    private final Map<String, String> names = new HashMap<>();

    /** Notes that a person or a group, by distinguished name, is a member of a group. */
    void add(String member, String group, String name) {
        direct.computeIfAbsent(member, m -> new HashSet<>()).add(group);
        names.put(group, name);
    }

    /** Names of all groups that somebody is in. */
    Set<String> of(String member) {
        Set<String> seen = new HashSet<>();
        Deque<String> open = new ArrayDeque<>(direct.getOrDefault(member, Set.of()));
        while (!open.isEmpty()) {
            String group = open.pop();
            if (seen.add(group)) {
                open.addAll(direct.getOrDefault(group, Set.of()));
            }
        }
        Set<String> found = new HashSet<>();
        seen.forEach(group -> found.add(names.get(group)));
        return found;
    }
}
