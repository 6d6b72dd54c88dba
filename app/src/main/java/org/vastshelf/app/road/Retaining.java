package org.vastshelf.app.road;

import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;
import org.springframework.stereotype.Component;
import org.vastshelf.app.clock.CountedClock;
import org.vastshelf.app.clock.ShelfClock;
import org.vastshelf.core.estate.FilePath;
import org.vastshelf.core.estate.LegalTag;
import org.vastshelf.core.estate.RetentionRule;
import org.vastshelf.core.gate.FileOperation;
import org.vastshelf.core.gate.GateView.Met;
import org.vastshelf.core.gate.GateView.Retention;

/** What retention rules and legal tags say about what an operation would change. */
@Component
class Retaining {

    private final RetainingStore store;
    private final CountedClock counted;

    Retaining(RetainingStore store, CountedClock counted) {
        this.store = store;
        this.counted = counted;
    }

    /** About a file, if it is there. */
    Retention of(RuleBook book, FileOperation operation, Optional<RoadStore.Found> found) {
        if (found.isEmpty()) {
            return Retention.NONE;
        }
        FilePath path = operation.path();
        return retention(
                book.retaining(operation.share(), path).stream()
                        .map(rule -> met(rule, path, RetainingStore.Age.of(found.get())))
                        .toList(),
                book.tags(operation.share(), path));
    }

    /** About a file, or a folder with all that is in it. */
    Retention of(RuleBook book, FileOperation operation, Load load, Instant now) {
        if (!load.isFolder()) {
            return of(book, operation, load.file());
        }
        String share = operation.share();
        FilePath path = operation.path();
        List<Met> met = new ArrayList<>();
        book.retaining(share, path.child("x"))
                .forEach(rule -> last(rule, load, load.tree(), now).ifPresent(met::add));
        book.retainingBelow(share, path).forEach(rule -> {
            List<TreeStore.Branch> below = load.tree().stream()
                    .filter(folder -> folder.path().isWithin(rule.folder()))
                    .toList();
            last(rule, load, below, now).ifPresent(met::add);
        });
        List<LegalTag> tags = Stream.concat(book.tags(share, path).stream(), book.tagsBelow(share, path).stream())
                .toList();
        return retention(met, tags);
    }

    /** The file that a rule holds longest, of those that it holds already. */
    private Optional<Met> last(RetentionRule rule, Load load, List<TreeStore.Branch> folders, Instant now) {
        return store.last(load.place().catalogue(), folders, rule.basis(), now.minus(rule.quiet()))
                .map(file -> met(rule, file.path(), file.age()));
    }

    private static Met met(RetentionRule rule, FilePath file, RetainingStore.Age age) {
        return new Met(
                rule, file, rule.heldFrom(age.changed()), rule.freeAt(age.changed(), age.created(), ShelfClock.ZONE));
    }

    private Retention retention(List<Met> met, List<LegalTag> tags) {
        if (met.isEmpty() && tags.isEmpty()) {
            return Retention.NONE;
        }
        boolean sealed = met.stream().anyMatch(m -> m.rule().isSealed());
        return new Retention(met, tags, sealed ? counted.instant() : Instant.EPOCH);
    }
}
