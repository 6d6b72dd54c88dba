package org.vastshelf.app.snapshot;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.SortedMap;
import java.util.TreeMap;
import org.springframework.stereotype.Component;
import org.vastshelf.app.content.OriginStore;
import org.vastshelf.app.road.NotThere;
import org.vastshelf.core.change.FileChange.BringBack;
import org.vastshelf.core.change.FileChange.Onto;
import org.vastshelf.core.estate.FilePath;

/** Lays what a snapshot has beside what is there now, folder by folder. */
@Component
class Laying {

    private final PastStore past;
    private final OriginStore origins;

    Laying(PastStore past, OriginStore origins) {
        this.origins = origins;
        this.past = past;
    }

    /**
     * A folder as it was, and as it is where it goes.
     *
     * @param was empty where only what is there now is to go
     */
    record Pair(FilePath to, Optional<PastStore.Place> was, boolean chosenOnly) {}

    /** What is to happen to one file. */
    record Deed(FilePath to, Kind kind, Optional<PastStore.Was> was, Optional<PastStore.Was> is) {}

    enum Kind {
        /** There already, as it was. */
        SAME,
        BRING,
        REPLACE,
        /** There already, otherwise, and left so. */
        LEAVE,
        CLEAR
    }

    /** The folders that are concerned, by where they go; in the order of their paths. */
    SortedMap<String, Pair> folders(BringBack change) {
        PastStore.Place top = past.folder(change.share(), change.snapshot(), change.from())
                .orElseThrow(() -> new NotThere("Snapshot " + change.snapshot() + " has no folder '" + change.from()
                        + "' on share " + change.share()));
        SortedMap<String, Pair> found = new TreeMap<>();
        found.put(change.to().text(), new Pair(change.to(), Optional.of(top), true));
        Map<String, PastStore.Place> children = new TreeMap<>(past.children(top));
        if (!change.names().isEmpty()) {
            children.keySet().retainAll(change.names());
        }
        children.forEach((name, child) -> below(found, change.to().child(name), child));
        if (change.onto() == Onto.EXACT) {
            past.now(change.share(), change.to(), PastStore.NOW).ifPresent(now -> {
                Map<String, PastStore.Place> there = new TreeMap<>(past.children(now));
                if (!change.names().isEmpty()) {
                    there.keySet().retainAll(change.names());
                }
                there.forEach((name, child) -> alsoThere(found, change.to().child(name), child));
            });
        }
        return found;
    }

    private void below(SortedMap<String, Pair> found, FilePath to, PastStore.Place place) {
        found.put(to.text(), new Pair(to, Optional.of(place), false));
        past.children(place).forEach((name, child) -> below(found, to.child(name), child));
    }

    private void alsoThere(SortedMap<String, Pair> found, FilePath to, PastStore.Place place) {
        found.putIfAbsent(to.text(), new Pair(to, Optional.empty(), false));
        past.children(place).forEach((name, child) -> alsoThere(found, to.child(name), child));
    }

    /** What is to happen to the files of a folder. */
    List<Deed> deeds(BringBack change, Pair pair) {
        SortedMap<String, PastStore.Was> was = pair.was.map(past::whole).orElseGet(TreeMap::new);
        SortedMap<String, PastStore.Was> is = past.now(change.share(), pair.to, PastStore.NOW)
                .map(past::whole)
                .orElseGet(TreeMap::new);
        if (pair.chosenOnly && !change.names().isEmpty()) {
            was.keySet().retainAll(change.names());
            is.keySet().retainAll(change.names());
        }
        List<Deed> deeds = new ArrayList<>();
        was.forEach((name, file) -> {
            Optional<PastStore.Was> there = Optional.ofNullable(is.get(name));
            deeds.add(new Deed(pair.to.child(name), kind(change.onto(), file, there), Optional.of(file), there));
        });
        if (change.onto() == Onto.EXACT) {
            is.keySet().removeAll(was.keySet());
            is.forEach((name, file) ->
                    deeds.add(new Deed(pair.to.child(name), Kind.CLEAR, Optional.empty(), Optional.of(file))));
        }
        return deeds;
    }

    private Kind kind(Onto onto, PastStore.Was was, Optional<PastStore.Was> is) {
        if (is.isEmpty()) {
            return Kind.BRING;
        }
        if (same(was, is.get())) {
            return Kind.SAME;
        }
        return onto == Onto.KEEP ? Kind.LEAVE : Kind.REPLACE;
    }

    /** One that has left since, or came back, is the same. */
    private boolean same(PastStore.Was was, PastStore.Was is) {
        return origins.of(was.contents()).equals(origins.of(is.contents()))
                && was.row().owner().equals(is.row().owner())
                && was.row().modified() == is.row().modified();
    }
}
