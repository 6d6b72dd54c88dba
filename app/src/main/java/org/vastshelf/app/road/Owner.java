package org.vastshelf.app.road;

import org.vastshelf.app.catalogue.FileRow;
import org.vastshelf.core.estate.Person;
import org.vastshelf.core.limit.Account;

/** Whose a file is, and the group it counts for. */
record Owner(String uid, String group) {

    static Owner of(Person person) {
        return new Owner(person.uid(), person.fileGroup());
    }

    static Owner of(FileRow file) {
        return new Owner(file.owner(), file.group());
    }

    boolean countsFor(Account account) {
        return account.counts(uid, group);
    }
}
