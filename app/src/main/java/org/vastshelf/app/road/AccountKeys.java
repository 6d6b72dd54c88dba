package org.vastshelf.app.road;

import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;
import org.vastshelf.app.limit.AccountStore;
import org.vastshelf.core.estate.Apart;
import org.vastshelf.core.estate.FilePath;
import org.vastshelf.core.gate.FileOperation;

/** Which accounts a file counts for. */
final class AccountKeys {

    private AccountKeys() {}

    /** The accounts for which a file of these owners counts at a path. */
    static Stream<AccountStore.Key> at(RuleBook book, String share, FilePath path, Owner owner) {
        return book.touched(share, path).stream()
                .map(t -> new AccountStore.Key(
                        t.rule(),
                        t.holder(),
                        switch (t.rule().apart()) {
                            case NOBODY -> "";
                            case PERSON -> owner.uid();
                            case GROUP -> owner.group();
                        }))
                .filter(key ->
                        key.rule().apart() == Apart.NOBODY || !key.owner().isEmpty());
    }

    /** The accounts that a save or a removal changes: of whose the file will be, and of whose it was. */
    static List<AccountStore.Key> of(
            RuleBook book, FileOperation operation, Owner next, Optional<RoadStore.Found> found) {
        Stream<AccountStore.Key> after = operation.kind().saves() || found.isEmpty()
                ? at(book, operation.share(), operation.path(), next)
                : Stream.empty();
        Stream<AccountStore.Key> before =
                found.stream().flatMap(f -> at(book, operation.share(), operation.path(), Owner.of(f.row())));
        return Stream.concat(after, before).distinct().toList();
    }
}
