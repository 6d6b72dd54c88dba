package org.vastshelf.app.security;

import java.io.Serializable;
import java.security.Principal;
import java.util.List;
import java.util.Set;
import org.vastshelf.core.estate.AccessRule;
import org.vastshelf.core.estate.Person;
import org.vastshelf.core.estate.Share;

/** Whoever is signed in. */
public record Someone(Person person, Role role) implements Principal, Serializable {

    /** What a session keeps of somebody; core's types are not made for that. */
    private record Kept(String uid, String name, String mail, List<String> groups, Role role) implements Serializable {
        private Object readResolve() {
            return new Someone(new Person(uid, name, mail, Set.copyOf(groups)), role);
        }
    }

    private Object writeReplace() {
        return new Kept(person.uid(), person.name(), person.mail(), List.copyOf(person.groups()), role);
    }

    @Override
    public String getName() {
        return person.uid();
    }

    public boolean isAdministrator() {
        return role == Role.ADMINISTRATOR;
    }

    public boolean mayRun() {
        return Access.RUNNERS.roles().contains(role);
    }

    public boolean readsAll() {
        return Access.READERS.roles().contains(role);
    }

    /** True when the person may see how a share is doing: all readers, and keepers their own. */
    public boolean sees(Share share) {
        return readsAll()
                || role == Role.KEEPER
                        && share.access().stream()
                                .anyMatch(rule -> rule.level() == AccessRule.Level.OWN && rule.appliesTo(person));
    }

    /** True when the person may act at the desk as somebody. */
    public boolean actsAs(String uid) {
        return mayRun() || person.uid().equals(uid);
    }
}
