package org.vastshelf.app.road;

import java.time.Instant;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import org.springframework.stereotype.Service;
import org.vastshelf.app.catalogue.FileRow;
import org.vastshelf.app.catalogue.PathBytes;
import org.vastshelf.app.content.KeptStore;
import org.vastshelf.app.limit.AccountStore;
import org.vastshelf.app.store.EstateStore;
import org.vastshelf.app.store.Transactions;
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
 * Many new files for one share at once, as a client brings them that copies a folder: each is asked for at the gate and
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
        return items.isEmpty() ? 0 : transactions.run(() -> new Round(share, items).run());
    }

    /** One delivery while it is under way. */
    private final class Round {

        private final RuleBook book = books.of(estates.held());
        private final Share share;
        private final Volume volume;
        private final Epoch epoch;
        private final Map<FilePath, RoadStore.Place> places;
        private final Map<String, Account> held = new LinkedHashMap<>();
        private final Map<String, Long> growths = new HashMap<>();
        private final List<DeliveryStore.Row> taken = new ArrayList<>();
        private final List<DeliveryStore.Line> lines = new ArrayList<>();
        private final List<Item> items;
        private Bytes room = Bytes.ZERO;

        Round(String name, List<Item> asked) {
            this.share = book.share(name);
            this.volume = book.volume(share);
            this.epoch = lives.holdTree(share);
            this.places = folders.made(
                    name, asked.stream().map(item -> item.path.parent()).collect(Collectors.toSet()), epoch);
            Set<FilePath> present =
                    rows.present(places, asked.stream().map(Item::path).toList());
            this.items = asked.stream().filter(item -> present.add(item.path)).toList();
        }

        int run() {
            lockAccounts();
            room = room(items.stream().mapToLong(this::allocated).sum());
            items.forEach(this::ask);
            apply();
            return taken.size();
        }

        /** The room there is for so much, or for as much of it as there is room for. */
        private Bytes room(long wanted) {
            Bytes found = rooms.lock(book, volume, wanted);
            return found.value() < wanted ? room(found.value()) : found;
        }

        private long allocated(Item item) {
            return volume.allocatedBytes(item.contents.here());
        }

        private void lockAccounts() {
            List<AccountStore.Key> keys = items.stream()
                    .flatMap(item -> AccountKeys.at(book, share.name(), item.path, owner(item)))
                    .distinct()
                    .toList();
            accounts.lock(keys).forEach(account -> held.put(key(account), account));
        }

        private Owner owner(Item item) {
            return Owner.of(books.person(item.person));
        }

        private static String key(Account account) {
            return account.rule().key() + "\n" + account.folder() + "\n" + account.owner();
        }

        private void ask(Item item) {
            Person person = books.person(item.person);
            Owner owner = Owner.of(person);
            List<String> touched = AccountKeys.at(book, share.name(), item.path, owner)
                    .map(key -> key.rule().key() + "\n" + key.folder() + "\n" + key.owner())
                    .toList();
            FileOperation operation = new FileOperation(
                    Kind.WRITE,
                    item.person,
                    share.name(),
                    item.path,
                    Bytes.of(item.contents.length()),
                    Workstations.of(share, item.person));
            GateView view = new GateView(
                    book.reach(share),
                    new GateView.Access(share, person),
                    GateView.Limits.of(touched.stream().map(this::asItIsNow).toList()),
                    new GateView.Space(volume, room, Optional.empty()));
            boolean allowed = Gate.refusedAt(operation, view, item.at).isEmpty();
            lines.add(new DeliveryStore.Line(
                    operation,
                    item.at,
                    allowed,
                    allowed ? "allowed" : Gate.decide(operation, view, item.at).reason()));
            if (allowed) {
                touched.forEach(key -> growths.merge(key, item.contents.length(), Long::sum));
                room = room.minus(Bytes.of(allocated(item)));
                taken.add(new DeliveryStore.Row(places.get(item.path.parent()), file(item, owner), item.contents));
            }
        }

        private Account asItIsNow(String key) {
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

        private void apply() {
            rows.add(taken, epoch);
            rows.note(lines);
            tallies.arrived(taken);
            taken.forEach(row -> {
                kept.hold(row.contents().kept());
                kept.used(row.contents().kept(), 1);
            });
            if (!items.isEmpty()) {
                Map<Account, Long> grown = new LinkedHashMap<>();
                growths.forEach((key, bytes) -> grown.put(held.get(key), bytes));
                FileOperation last = lines.getLast().operation();
                crossings.grow(last, grown, items.getLast().at);
            }
            long allocated =
                    taken.stream().mapToLong(row -> row.file().allocated()).sum();
            if (!rooms.take(book, volume, allocated, 0)) {
                throw new IllegalStateException("the room that was locked is gone");
            }
        }
    }
}
