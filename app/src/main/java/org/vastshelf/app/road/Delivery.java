package org.vastshelf.app.road;

import java.time.Instant;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.SortedMap;
import java.util.TreeMap;
import java.util.stream.Collectors;
import org.springframework.stereotype.Service;
import org.vastshelf.app.content.KeptStore;
import org.vastshelf.app.limit.AccountStore;
import org.vastshelf.app.store.EstateStore;
import org.vastshelf.app.store.Transactions;
import org.vastshelf.app.trace.AuditStore;
import org.vastshelf.core.content.Contents;
import org.vastshelf.core.estate.FilePath;
import org.vastshelf.core.limit.Account;
import org.vastshelf.core.unit.Bytes;

/**
 * Many new files at once, as a client brings them that copies a folder: each is asked for at the gate and
 * written down like any other, but what they have in common is looked at and changed once.
 */
@Service
public class Delivery {

    private final EstateStore estates;
    private final RuleBooks books;
    private final LivesStore lives;
    private final PlacesStore folders;
    private final NamedStore files;
    private final DeliveryStore rows;
    private final TallyStore tallies;
    private final KeptStore kept;
    private final AccountStore accounts;
    private final VolumeRoomStore rooms;
    private final Crossings crossings;
    private final AuditStore audit;
    private final Transactions transactions;

    Delivery(
            EstateStore estates,
            RuleBooks books,
            LivesStore lives,
            PlacesStore folders,
            NamedStore files,
            DeliveryStore rows,
            TallyStore tallies,
            KeptStore kept,
            AccountStore accounts,
            VolumeRoomStore rooms,
            Crossings crossings,
            AuditStore audit,
            Transactions transactions) {
        this.estates = estates;
        this.books = books;
        this.lives = lives;
        this.folders = folders;
        this.files = files;
        this.rows = rows;
        this.tallies = tallies;
        this.kept = kept;
        this.accounts = accounts;
        this.rooms = rooms;
        this.crossings = crossings;
        this.audit = audit;
        this.transactions = transactions;
    }

    /** A file that somebody brings at a moment. */
    public record Item(String person, FilePath path, Contents contents, Instant at) {}

    /**
     * Takes in what the gate lets pass; what has the path of a file or folder that is there already is left out.
     *
     * @param items in the order of their moments
     * @return how many were taken in
     */
    public int deliver(String share, List<Item> items) {
        return deliver(Map.of(share, items));
    }

    /** The same for several shares, in the order of their names. */
    public int deliver(Map<String, List<Item>> byShare) {
        SortedMap<String, List<Item>> some = new TreeMap<>(byShare);
        some.values().removeIf(List::isEmpty);
        return some.isEmpty() ? 0 : transactions.run(() -> take(some));
    }

    private int take(SortedMap<String, List<Item>> byShare) {
        RuleBook book = books.of(estates.held());
        Map<String, Epoch> epochs =
                lives.holdTrees(byShare.keySet().stream().map(book::share).toList());
        Map<String, Set<FilePath>> parents = new TreeMap<>();
        byShare.forEach((share, items) -> parents.put(
                share, items.stream().map(item -> item.path.parent()).collect(Collectors.toSet())));
        Map<String, PlacesStore.Found> places = folders.made(parents, epochs);
        Map<String, List<Item>> absent = absent(places, byShare);
        List<DeliveryRound> rounds = byShare.keySet().stream()
                .map(share -> new DeliveryRound(
                        books,
                        book,
                        book.share(share),
                        epochs.get(share),
                        places.get(share).places(),
                        absent.get(share)))
                .toList();
        Map<AccountStore.Key, Account> held = new HashMap<>();
        accounts.lock(rounds.stream()
                        .flatMap(DeliveryRound::accountKeys)
                        .distinct()
                        .toList())
                .forEach(account -> held.put(AccountStore.Key.of(account), account));
        Map<String, Bytes> room = room(
                book,
                rounds.stream()
                        .collect(Collectors.groupingBy(
                                round -> round.volume().name(),
                                TreeMap::new,
                                Collectors.summingLong(DeliveryRound::wanted))));
        rounds.forEach(round -> room.computeIfPresent(round.volume().name(), (none, left) -> round.ask(held, left)));
        apply(book, rounds);
        return rounds.stream().mapToInt(round -> round.taken().size()).sum();
    }

    /** Those whose path nobody has, and of several with the same the first. */
    private Map<String, List<Item>> absent(Map<String, PlacesStore.Found> found, Map<String, List<Item>> asked) {
        Set<NamedStore.Named> present = files.there(asked.entrySet().stream()
                .flatMap(of -> of.getValue().stream()
                        // A folder that was made just now holds nothing.
                        .filter(item -> !found.get(of.getKey()).fresh().contains(item.path.parent()))
                        .map(item -> named(found.get(of.getKey()), item)))
                .toList());
        Map<String, List<Item>> absent = new LinkedHashMap<>();
        asked.forEach((share, items) -> absent.put(
                share,
                items.stream()
                        .filter(item -> present.add(named(found.get(share), item)))
                        .toList()));
        return absent;
    }

    private static NamedStore.Named named(PlacesStore.Found found, Item item) {
        return NamedStore.Named.of(found.places().get(item.path.parent()), item.path);
    }

    /** The room there is for so much, by volume, or for as much of it as there is room for. */
    private Map<String, Bytes> room(RuleBook book, SortedMap<String, Long> wanted) {
        Map<String, Bytes> found = rooms.lock(book, wanted);
        SortedMap<String, Long> less = new TreeMap<>(wanted);
        less.keySet().removeIf(volume -> found.get(volume).value() >= wanted.get(volume));
        less.replaceAll((volume, more) -> found.get(volume).value());
        if (!less.isEmpty()) {
            found.putAll(room(book, less));
        }
        return found;
    }

    private void apply(RuleBook book, List<DeliveryRound> rounds) {
        List<DeliveryStore.Row> taken =
                rounds.stream().flatMap(round -> round.taken().stream()).toList();
        rows.add(taken);
        audit.append(rounds.stream().flatMap(round -> round.lines().stream()).toList());
        tallies.arrived(taken);
        taken.forEach(row -> {
            kept.hold(row.contents().kept());
            kept.used(row.contents().kept(), 1);
        });
        crossings.grow(
                rounds.stream().flatMap(round -> round.growing().stream()).toList());
        if (!rooms.take(
                book,
                rounds.stream()
                        .collect(Collectors.groupingBy(
                                round -> round.volume().name(),
                                TreeMap::new,
                                Collectors.summingLong(DeliveryRound::allocated))))) {
            throw new IllegalStateException("the room that was locked is gone");
        }
    }
}
