package org.vastshelf.app.security;

import java.util.Set;

/** Roles, by group of the directory; whoever is in none is a file user. Strongest first. */
public enum Role {
    ADMINISTRATOR("shelf-administrators", "administrator"),
    OPERATOR("shelf-operators", "operator"),
    AUDITOR("shelf-auditors", "auditor"),
    KEEPER("shelf-keepers", "share keeper"),
    FILE_USER("", "file user");

    private final String group;
    private final String title;

    Role(String group, String title) {
        this.group = group;
        this.title = title;
    }

    public String title() {
        return title;
    }

    public static Role of(Set<String> groups) {
        for (Role role : values()) {
            if (groups.contains(role.group)) {
                return role;
            }
        }
        return FILE_USER;
    }
}
