package org.vastshelf.app.limit;

import org.vastshelf.core.estate.Apart;
import org.vastshelf.core.estate.LimitRule;

/** Who gets an account, as one choice. */
enum Whose {
    FOLDER("the folder as a whole"),
    CHILD("each child folder for itself"),
    PERSON("each person, for the files they own below it"),
    GROUP("each group, for the files it owns below it");

    private final String title;

    Whose(String title) {
        this.title = title;
    }

    String title() {
        return title;
    }

    static Whose of(LimitRule rule) {
        return switch (rule.apart()) {
            case NOBODY -> rule.eachChild() ? CHILD : FOLDER;
            case PERSON -> PERSON;
            case GROUP -> GROUP;
        };
    }

    Apart apart() {
        return switch (this) {
            case FOLDER, CHILD -> Apart.NOBODY;
            case PERSON -> Apart.PERSON;
            case GROUP -> Apart.GROUP;
        };
    }
}
