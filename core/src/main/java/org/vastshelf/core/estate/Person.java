package org.vastshelf.core.estate;

import java.util.Set;

/** Somebody in the directory. */
public record Person(String uid, String name, Set<String> groups) {

    public Person {
        groups = Set.copyOf(groups);
    }
}
