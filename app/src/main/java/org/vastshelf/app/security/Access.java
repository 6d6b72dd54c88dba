package org.vastshelf.app.security;

import java.util.EnumSet;
import java.util.Set;

/** Who may take a route. */
public enum Access {
    OPEN(EnumSet.noneOf(Role.class)),
    EVERYBODY(EnumSet.allOf(Role.class)),
    READERS(EnumSet.of(Role.ADMINISTRATOR, Role.OPERATOR, Role.AUDITOR)),
    KEEPERS(EnumSet.of(Role.ADMINISTRATOR, Role.OPERATOR, Role.AUDITOR, Role.KEEPER)),
    RUNNERS(EnumSet.of(Role.ADMINISTRATOR, Role.OPERATOR)),
    DESIGNERS(EnumSet.of(Role.ADMINISTRATOR)),
    DESKS(EnumSet.of(Role.ADMINISTRATOR, Role.OPERATOR, Role.KEEPER, Role.FILE_USER));

    private final Set<Role> roles;

    Access(Set<Role> roles) {
        this.roles = roles;
    }

    public Set<Role> roles() {
        return roles;
    }
}
