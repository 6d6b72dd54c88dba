package org.vastshelf.app.road;

import java.time.Duration;
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
import org.springframework.stereotype.Service;
import org.vastshelf.app.catalogue.FileRow;
import org.vastshelf.app.limit.AccountStore;
import org.vastshelf.app.store.EstateStore;
import org.vastshelf.app.store.Transactions;
import org.vastshelf.app.trace.AuditEntry;
import org.vastshelf.app.trace.AuditStore;
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
 * Many reads and looks into folders at once: each is asked for at the gate and written down like any other, but what
 * they have in common is looked at once. They are noted, and bring no bytes.
 */
@Service
public class Perusal {

    private final EstateStore estates;
    private final RuleBooks books;
    private final LivesStore lives;
    private final PlacesStore folders;
    private final NamedStore files;
    private final TallyStore tallies;
    private final AccountStore accounts;
    private final VolumeRoomStore rooms;
    private final AuditStore audit;
    private final Transactions transactions;

    Perusal(
            EstateStore estates,
            RuleBooks books,
            LivesStore lives,
            PlacesStore folders,
            NamedStore files,
            TallyStore tallies,
            AccountStore accounts,
            VolumeRoomStore rooms,
            AuditStore audit,
            Transactions transactions) {
        this.estates = estates;
        this.books = books;
        this.lives = lives;
        this.folders = folders;
        this.files = files;
        this.tallies = tallies;
        this.accounts = accounts;
        this.rooms = rooms;
        this.audit = audit;
        this.transactions = transactions;
    }

    /** A file that somebody reads at a moment, or a folder into which somebody looks. */
    public record Item(Kind kind, String person, String share, FilePath path, Instant at) {

        public Item {
            if (kind != Kind.READ && kind != Kind.LIST) {
                throw new IllegalArgumentException("kind is " + kind + ", must be READ or LIST");
            }
        }

        public static Item read(String person, String share, FilePath path, Instant at) {
            return new Item(Kind.READ, person, share, path, at);
        }

        /** The same after so long. */
        public Item later(Duration by) {
            return new Item(kind, person, share, path, at.plus(by));
        }

        private boolean isRead() {
            return kind == Kind.READ;
        }

        private FilePath folder() {
            return isRead() ? path.parent() : path;
        }
    }

    /**
     * Reads files and looks into folders; what is not there is passed over.
     *
     * @param items in the order of their moments
     * @return how many the gate let pass
     */
    public int read(List<Item> items) {
        return items.isEmpty() ? 0 : transactions.run(() -> look(items));
    }

    private int look(List<Item> items) {
        RuleBook book = books.of(estates.snapshot());
        SortedMap<String, Set<FilePath>> parents = new TreeMap<>(items.stream()
                .collect(Collectors.groupingBy(Item::share, Collectors.mapping(Item::folder, Collectors.toSet()))));
        List<Share> shares = parents.keySet().stream().map(book::share).toList();
        lives.holdTrees(shares);
        Round round = new Round(book, folders.there(parents));
        round.files.putAll(files.locked(
                items.stream()
                        .filter(Item::isRead)
                        .flatMap(item -> round.named(item).stream())
                        .distinct()
                        .toList(),
                round.volumes(shares)));
        List<AccountStore.Key> keys = items.stream()
                .flatMap(item -> round.keys(item).stream())
                .distinct()
                .toList();
        accounts.read(keys).forEach(account -> round.accounts.put(AccountStore.Key.of(account), account));
        round.rooms.putAll(rooms.read(book, shares.stream().map(Share::volume).collect(Collectors.toSet())));
        items.forEach(round::ask);
        audit.append(round.lines);
        files.use(round.used.entrySet().stream()
                .collect(Collectors.toMap(
                        Map.Entry::getKey, of -> of.getValue().after().accessed())));
        tallies.used(round.used.values().stream()
                .filter(used -> used.before().month() != used.after().month())
                .toList());
        return round.allowed;
    }

    /** What is known of all, and what comes of each. */
    private final class Round {

        private final RuleBook book;
        private final Map<String, Map<FilePath, RoadStore.Place>> places;
        private final Map<NamedStore.Named, RoadStore.Found> files = new HashMap<>();
        private final Map<AccountStore.Key, Account> accounts = new HashMap<>();
        private final Map<String, Bytes> rooms = new HashMap<>();
        private final List<AuditEntry> lines = new ArrayList<>();
        private final Map<NamedStore.Named, TallyStore.Used> used = new LinkedHashMap<>();
        private int allowed;

        Round(RuleBook book, Map<String, Map<FilePath, RoadStore.Place>> places) {
            this.book = book;
            this.places = places;
        }

        private Optional<RoadStore.Place> place(Item item) {
            return Optional.ofNullable(places.getOrDefault(item.share, Map.of()).get(item.folder()));
        }

        Optional<NamedStore.Named> named(Item item) {
            return place(item).map(place -> NamedStore.Named.of(place, item.path));
        }

        /** By catalogue. */
        Map<Integer, Volume> volumes(List<Share> shares) {
            Map<Integer, Volume> volumes = new HashMap<>();
            shares.forEach(share -> places.getOrDefault(share.name(), Map.of()).values().stream()
                    .findFirst()
                    .ifPresent(place -> volumes.put(place.catalogue(), book.volume(share))));
            return volumes;
        }

        List<AccountStore.Key> keys(Item item) {
            return AccountKeys.at(book, item.share, item.path, Owner.of(books.person(item.person)))
                    .toList();
        }

        void ask(Item item) {
            Share share = book.share(item.share);
            Person person = books.person(item.person);
            Optional<RoadStore.Found> found = item.isRead() ? named(item).map(files::get) : Optional.empty();
            FileOperation operation = new FileOperation(
                    item.kind, item.person, item.share, item.path, Bytes.ZERO, Workstations.of(share, item.person));
            GateView view = Looking.view(
                    book,
                    share,
                    person,
                    keys(item).stream().map(accounts::get).toList(),
                    rooms.get(share.volume()),
                    found);
            boolean passes = Gate.refusedAt(operation, view, item.at).isEmpty();
            if (passes && (item.isRead() ? found.isEmpty() : place(item).isEmpty())) {
                return;
            }
            String reason =
                    passes ? "allowed" : Gate.decide(operation, view, item.at).reason();
            lines.add(Notes.line(operation, item.at, passes, reason));
            if (passes) {
                allowed++;
                found.ifPresent(
                        file -> use(named(item).orElseThrow(), place(item).orElseThrow(), file.row(), item.at));
            }
        }

        private void use(NamedStore.Named file, RoadStore.Place place, FileRow before, Instant at) {
            FileRow last = used.containsKey(file) ? used.get(file).after() : before;
            Looking.used(last, at).ifPresent(after -> used.put(file, new TallyStore.Used(place, before, after)));
        }
    }
}
