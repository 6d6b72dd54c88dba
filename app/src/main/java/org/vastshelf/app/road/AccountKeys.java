package org.vastshelf.app.road;

import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;
import org.vastshelf.app.limit.AccountStore;
import org.vastshelf.core.estate.Apart;
import org.vastshelf.core.estate.Person;
import org.vastshelf.core.gate.FileOperation;
import org.vastshelf.core.gate.FileOperation.Kind;

/** Which accounts a file counts for. */
final class AccountKeys {

    private AccountKeys() {}

    /** The accounts that this person would save for. */
    static List<AccountStore.Key> of(RuleBook book, FileOperation operation, Person person) {
        return keys(book, operation, person.uid(), person.fileGroup()).toList();
    }

    /** The accounts for which a file of these owners counts. */
    private static Stream<AccountStore.Key> keys(RuleBook book, FileOperation operation, String owner, String group) {
        return book.touched(operation.share(), operation.path()).stream()
                .map(t -> new AccountStore.Key(
                        t.rule(),
                        t.holder(),
                        switch (t.rule().apart()) {
                            case NOBODY -> "";
                            case PERSON -> owner;
                            case GROUP -> group;
                        }));
    }

    /** The accounts that a save or a removal changes: of whose the file will be, and of whose it was. */
    static List<AccountStore.Key> of(
            RuleBook book, FileOperation operation, Person person, Optional<RoadStore.Found> found) {
        Stream<AccountStore.Key> next = operation.kind() == Kind.WRITE || found.isEmpty()
                ? keys(book, operation, person.uid(), person.fileGroup())
                : Stream.empty();
        Stream<AccountStore.Key> before = found.stream()
                .flatMap(f -> keys(book, operation, f.row().owner(), f.row().group()));
        return Stream.concat(next, before)
                .filter(key ->
                        key.rule().apart() == Apart.NOBODY || !key.owner().isEmpty())
                .distinct()
                .toList();
    }
}
