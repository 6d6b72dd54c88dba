package org.vastshelf.app.road;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Stream;
import org.vastshelf.app.catalogue.FileRow;
import org.vastshelf.app.catalogue.PathBytes;
import org.vastshelf.app.limit.AccountStore;
import org.vastshelf.app.trace.AuditEntry;
import org.vastshelf.core.catalogue.FileKind;
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

/** What a delivery asks for one share, and what comes of it. */
final class DeliveryRound {

    private final RuleBooks books;
    private final RuleBook book;
    private final Share share;
    private final Volume volume;
    private final Epoch epoch;
    private final Map<FilePath, RoadStore.Place> places;
    private final List<Delivery.Item> items;
    private final Map<AccountStore.Key, Long> growths = new HashMap<>();
    private final List<DeliveryStore.Row> taken = new ArrayList<>();
    private final List<AuditEntry> lines = new ArrayList<>();
    private Map<AccountStore.Key, Account> held = Map.of();
    private Bytes room = Bytes.ZERO;

    DeliveryRound(
            RuleBooks books,
            RuleBook book,
            Share share,
            Epoch epoch,
            Map<FilePath, RoadStore.Place> places,
            List<Delivery.Item> items) {
        this.books = books;
        this.book = book;
        this.share = share;
        this.volume = book.volume(share);
        this.epoch = epoch;
        this.places = places;
        this.items = items;
    }

    Volume volume() {
        return volume;
    }

    List<DeliveryStore.Row> taken() {
        return taken;
    }

    List<AuditEntry> lines() {
        return lines;
    }

    Stream<AccountStore.Key> accountKeys() {
        return items.stream().flatMap(this::keys);
    }

    private Stream<AccountStore.Key> keys(Delivery.Item item) {
        return AccountKeys.at(book, share.name(), item.path(), owner(item));
    }

    /** What all would take. */
    long wanted() {
        return items.stream().mapToLong(this::allocated).sum();
    }

    /** Asks for each at the gate; returns the room that is left of what there was. */
    Bytes ask(Map<AccountStore.Key, Account> accounts, Bytes there) {
        held = accounts;
        room = there;
        items.forEach(this::ask);
        return room;
    }

    private long allocated(Delivery.Item item) {
        return volume.allocatedBytes(item.contents().here());
    }

    private Owner owner(Delivery.Item item) {
        return Owner.of(books.person(item.person()));
    }

    private void ask(Delivery.Item item) {
        Person person = books.person(item.person());
        Owner owner = Owner.of(person);
        List<AccountStore.Key> touched = keys(item).toList();
        FileOperation operation = operation(item);
        GateView view = Looking.view(
                book, share, person, touched.stream().map(this::asItIsNow).toList(), room, Optional.empty());
        boolean allowed = Gate.refusedAt(operation, view, item.at()).isEmpty();
        String reason =
                allowed ? "allowed" : Gate.decide(operation, view, item.at()).reason();
        lines.add(Notes.line(operation, item.at(), allowed, reason));
        if (allowed) {
            long seen = item.contents().length();
            touched.forEach(key -> growths.merge(key, key.rule().basis().of(seen, allocated(item)), Long::sum));
            room = room.minus(Bytes.of(allocated(item)));
            taken.add(new DeliveryStore.Row(
                    places.get(item.path().parent()), file(item, owner), item.contents(), epoch.taken()));
        }
    }

    private FileOperation operation(Delivery.Item item) {
        return new FileOperation(
                Kind.WRITE,
                item.person(),
                share.name(),
                item.path(),
                Bytes.of(item.contents().length()),
                Workstations.of(share, item.person()));
    }

    private Account asItIsNow(AccountStore.Key key) {
        Account account = held.get(key);
        return account.holding(Bytes.of(account.used().value() + growths.getOrDefault(key, 0L)));
    }

    private FileRow file(Delivery.Item item, Owner owner) {
        long at = item.at().getEpochSecond();
        String name = item.path().name();
        return new FileRow(
                PathBytes.of(name),
                item.contents().length(),
                allocated(item),
                owner.uid(),
                owner.group(),
                at,
                at,
                at,
                FileKind.of(name));
    }

    /** For whom they count. */
    Optional<Crossings.Growing> growing() {
        if (growths.isEmpty()) {
            return Optional.empty();
        }
        Map<Account, Long> grown = new LinkedHashMap<>();
        growths.forEach((key, bytes) -> grown.put(held.get(key), bytes));
        Delivery.Item last = items.getLast();
        return Optional.of(new Crossings.Growing(operation(last), grown, last.at()));
    }

    /** What those take that were taken in. */
    long allocated() {
        return taken.stream().mapToLong(row -> row.file().allocated()).sum();
    }
}
