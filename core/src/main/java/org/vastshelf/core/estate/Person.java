package org.vastshelf.core.estate;

import java.util.Collections;
import java.util.Set;

/**
 * Somebody in the directory.
 *
 * @param mail where notices go; empty for nowhere
 */
public record Person(String uid, String name, String mail, Set<String> groups) {

    public Person {
        groups = Set.copyOf(groups);
    }

    /** The group that files of this person get; empty for somebody in none. */
    public String fileGroup() {
        return groups.isEmpty() ? "" : Collections.min(groups);
    }
}
