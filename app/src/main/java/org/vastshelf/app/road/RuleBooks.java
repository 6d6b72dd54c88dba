package org.vastshelf.app.road;

import java.util.Set;
import org.springframework.stereotype.Component;
import org.vastshelf.app.store.EstateStore;
import org.vastshelf.core.estate.Directory;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.Person;

/** What file operations have to know of the estate and of people. */
@Component
class RuleBooks {

    private final Directory directory;
    private volatile RuleBook known = new RuleBook(new EstateStore.Snapshot(-1, Estate.EMPTY));

    RuleBooks(Directory directory) {
        this.directory = directory;
    }

    RuleBook of(EstateStore.Snapshot snapshot) {
        RuleBook book = known;
        if (book.version() != snapshot.version()) {
            book = new RuleBook(snapshot);
            known = book;
        }
        return book;
    }

    Person person(String uid) {
        if (uid.equals(FileRoad.TIERING)) {
            return new Person(uid, "Tiering", "", Set.of());
        }
        return directory.person(uid).orElseThrow(() -> new NotThere("There is nobody '" + uid + "' in the directory"));
    }
}
