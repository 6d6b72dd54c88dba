package org.vastshelf.core.estate;

/** What a person, a group or everyone may do on a share. */
public record AccessRule(Subject subject, String name, Level level) {

    public enum Subject {
        PERSON,
        GROUP,
        EVERYONE
    }

    /** Each level includes the ones before. */
    public enum Level {
        READ,
        WRITE,
        OWN
    }

    public AccessRule {
        if (subject != Subject.EVERYONE && name.isBlank()) {
            throw new IllegalArgumentException("access rule names nobody, must name a person or a group");
        }
    }

    public boolean appliesTo(Person person) {
        return switch (subject) {
            case PERSON -> person.uid().equals(name);
            case GROUP -> person.groups().contains(name);
            case EVERYONE -> true;
        };
    }

    @Override
    public String toString() {
        String who = subject == Subject.EVERYONE ? "everyone" : subject == Subject.GROUP ? "group " + name : name;
        return who + " may " + level.name().toLowerCase(java.util.Locale.ROOT);
    }
}
