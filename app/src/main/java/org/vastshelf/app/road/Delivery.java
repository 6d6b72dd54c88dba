package org.vastshelf.app.road;

import java.time.Instant;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.SortedMap;
import java.util.TreeMap;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.springframework.stereotype.Service;
import org.vastshelf.app.catalogue.FileRow;
import org.vastshelf.app.catalogue.PathBytes;
import org.vastshelf.app.content.KeptStore;
import org.vastshelf.app.limit.AccountStore;
import org.vastshelf.app.store.EstateStore;
import org.vastshelf.app.store.Transactions;
import org.vastshelf.app.trace.AuditStore;
import org.vastshelf.core.catalogue.FileKind;
import org.vastshelf.core.content.Contents;
import org.vastshelf.core.estate.FilePath;
import org.vastshelf.core.estate.Person;
import org.vastshelf.core.estate.Share;
import org.vastshelf.core.estate.Volume;
import org.vastshelf.core.gate.FileOperation;
import org.vastshelf.core.gate.FileOperation.Kind;
import org.vastshelf.core.gate.Gate;
import org.vastshelf.core.gate.GateView;
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
        Map<String, Map<FilePath, RoadStore.Place>> places = folders.made(parents, epochs);
        List<Round> rounds = byShare.entrySet().stream()
                .map(of -> new Round(
                        book,
                        book.share(of.getKey()),
                        epochs.get(of.getKey()),
                        places.get(of.getKey()),
                        absent(places.get(of.getKey()), of.getValue())))
                .toList();
        Map<AccountStore.Key, Account> held = new HashMap<>();
        accounts.lock(rounds.stream().flatMap(Round::accountKeys).distinct().toList())
                .forEach(account -> held.put(AccountStore.Key.of(account), account));
        rounds.forEach(round -> round.ask(held));
        apply(rounds);
        return rounds.stream().mapToInt(round -> round.taken.size()).sum();
    }

    /** Those whose path nobody has, and of several with the same the first. */
    private List<Item> absent(Map<FilePath, RoadStore.Place> places, List<Item> asked) {
        Map<Item, DeliveryStore.Present> where = new LinkedHashMap<>();
        asked.forEach(item -> where.put(item, DeliveryStore.Present.of(places.get(item.path.parent()), item.path)));
        Set<DeliveryStore.Present> present = rows.present(where.values());
        return asked.stream().filter(item -> present.add(where.get(item))).toList();
    }

    private void apply(List<Round> rounds) {
        List<DeliveryStore.Row> taken =
                rounds.stream().flatMap(round -> round.taken.stream()).toList();
        rows.add(taken);
        audit.append(rounds.stream().flatMap(round -> round.lines.stream()).toList());
        tallies.arrived(taken);
        taken.forEach(row -> {
            kept.hold(row.contents().kept());
            kept.used(row.contents().kept(), 1);
        });
        rounds.forEach(Round::settle);
    }

    /** What is asked for one share. */
    private final class Round {

        private final RuleBook book;
        private final Share share;
        private final Volume volume;
        private final Epoch epoch;
        private final Map<FilePath, RoadStore.Place> places;
        private final List<Item> items;
        private final Map<AccountStore.Key, Long> growths = new HashMap<>();
        private final List<DeliveryStore.Row> taken = new ArrayList<>();
        private final List<AuditStore.Entry> lines = new ArrayList<>();
        private Map<AccountStore.Key, Account> held = Map.of();
        private Bytes room = Bytes.ZERO;

        Round(RuleBook book, Share share, Epoch epoch, Map<FilePath, RoadStore.Place> places, List<Item> items) {
            this.book = book;
            this.share = share;
            this.volume = book.volume(share);
            this.epoch = epoch;
            this.places = places;
            this.items = items;
        }

        Stream<AccountStore.Key> accountKeys() {
            return items.stream().flatMap(this::keys);
        }

        private Stream<AccountStore.Key> keys(Item item) {
            return AccountKeys.at(book, share.name(), item.path, owner(item));
        }

        void ask(Map<AccountStore.Key, Account> accounts) {
            held = accounts;
            room = room(items.stream().mapToLong(this::allocated).sum());
            items.forEach(this::ask);
        }

        /** The room there is for so much, or for as much of it as there is room for. */
        private Bytes room(long wanted) {
            Bytes found = rooms.lock(book, volume, wanted);
            return found.value() < wanted ? room(found.value()) : found;
        }

        private long allocated(Item item) {
            return volume.allocatedBytes(item.contents.here());
        }

        private Owner owner(Item item) {
            return Owner.of(books.person(item.person));
        }

        private void ask(Item item) {
            Person person = books.person(item.person);
            Owner owner = Owner.of(person);
            List<AccountStore.Key> touched = keys(item).toList();
            FileOperation operation = operation(item);
            GateView view = new GateView(
                    book.reach(share),
                    new GateView.Access(share, person),
                    GateView.Limits.of(touched.stream().map(this::asItIsNow).toList()),
                    new GateView.Space(volume, room, Optional.empty()));
            boolean allowed = Gate.refusedAt(operation, view, item.at).isEmpty();
            String reason =
                    allowed ? "allowed" : Gate.decide(operation, view, item.at).reason();
            lines.add(Notes.line(operation, item.at, allowed, reason));
            if (allowed) {
                touched.forEach(key -> growths.merge(key, item.contents.length(), Long::sum));
                room = room.minus(Bytes.of(allocated(item)));
                taken.add(new DeliveryStore.Row(
                        places.get(item.path.parent()), file(item, owner), item.contents, epoch.taken()));
            }
        }

        private FileOperation operation(Item item) {
            return new FileOperation(
                    Kind.WRITE,
                    item.person,
                    share.name(),
                    item.path,
                    Bytes.of(item.contents.length()),
                    Workstations.of(share, item.person));
        }

        private Account asItIsNow(AccountStore.Key key) {
            Account account = held.get(key);
            return account.holding(Bytes.of(account.used().value() + growths.getOrDefault(key, 0L)));
        }

        private FileRow file(Item item, Owner owner) {
            long at = item.at.getEpochSecond();
            String name = item.path.name();
            return new FileRow(
                    PathBytes.of(name),
                    item.contents.length(),
                    allocated(item),
                    owner.uid(),
                    owner.group(),
                    at,
                    at,
                    at,
                    FileKind.of(name));
        }

        /** Counts for whom they are, and the room they take. */
        void settle() {
            if (!growths.isEmpty()) {
                Map<Account, Long> grown = new LinkedHashMap<>();
                growths.forEach((key, bytes) -> grown.put(held.get(key), bytes));
                Item last = items.getLast();
                crossings.grow(operation(last), grown, last.at);
            }
            long allocated =
                    taken.stream().mapToLong(row -> row.file().allocated()).sum();
            if (!rooms.take(book, volume, allocated, 0)) {
                throw new IllegalStateException("the room that was locked is gone");
            }
        }
    }
}
