package org.vastshelf.core.estate;

import java.io.Serializable;
import java.util.Set;

/**
 * Somebody in the directory; serializable, since sessions hold who is signed in.
 *
 * @param mail where notices go; empty for nowhere
 */
public record Person(String uid, String name, String mail, Set<String> groups) implements Serializable {

    public Person {
        groups = Set.copyOf(groups);
    }

    /** The group that files of this person get; empty for somebody in none. */
    public String fileGroup() {
        return groups.stream().min(String::compareTo).orElse("");
    }
}
