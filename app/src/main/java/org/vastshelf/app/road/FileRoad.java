package org.vastshelf.app.road;

import java.time.Instant;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Function;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;
import org.vastshelf.app.catalogue.FileRow;
import org.vastshelf.app.clock.ShelfClock;
import org.vastshelf.app.limit.AccountStore;
import org.vastshelf.app.store.EstateStore;
import org.vastshelf.app.store.Transactions;
import org.vastshelf.app.trace.AuditStore;
import org.vastshelf.core.estate.Directory;
import org.vastshelf.core.estate.FilePath;
import org.vastshelf.core.estate.Person;
import org.vastshelf.core.estate.Share;
import org.vastshelf.core.estate.Volume;
import org.vastshelf.core.gate.ClientSpace;
import org.vastshelf.core.gate.FileOperation;
import org.vastshelf.core.gate.FileOperation.Kind;
import org.vastshelf.core.gate.Gate;
import org.vastshelf.core.gate.GateView;
import org.vastshelf.core.limit.Account;
import org.vastshelf.core.unit.Bytes;

/**
 * The one road for file operations: look, ask the gate, apply, write the audit line, in one transaction. Reading locks
 * nothing. A save or a removal locks the file and the accounts it counts for; what all saves on a volume share comes
 * last, so that they wait for each other's end only. Where a volume's room may not suffice, the save is begun again and
 * locks the volume first.
 */
@Service
public class FileRoad {

    private final EstateStore estates;
    private final RoadStore files;
    private final ContentStore contents;
    private final AccountStore accounts;
    private final VolumeRoomStore rooms;
    private final AuditStore audit;
    private final Crossings crossings;
    private final Directory directory;
    private final ShelfClock clock;
    private final Transactions transactions;
    private volatile RuleBook known =
            new RuleBook(new EstateStore.Snapshot(-1, org.vastshelf.core.estate.Estate.EMPTY));

    FileRoad(
            EstateStore estates,
            RoadStore files,
            ContentStore contents,
            AccountStore accounts,
            VolumeRoomStore rooms,
            AuditStore audit,
            Crossings crossings,
            Directory directory,
            ShelfClock clock,
            Transactions transactions) {
        this.estates = estates;
        this.files = files;
        this.contents = contents;
        this.accounts = accounts;
        this.rooms = rooms;
        this.audit = audit;
        this.crossings = crossings;
        this.directory = directory;
        this.clock = clock;
        this.transactions = transactions;
    }

    public Outcome perform(FileOperation operation) {
        return perform(operation, clock.instant());
    }

    /** Performs an operation that a client asked for at a given time, which a jump of the clock may have passed. */
    public Outcome perform(FileOperation operation, Instant now) {
        return operation.kind().needsWrite()
                ? changed(exact -> change(operation, now, null, exact))
                : transactions.run(() -> read(operation, now));
    }

    /** What a volume may take without asking did not suffice. */
    private static final class Tight extends RuntimeException {}

    /** At first without locking the volume; as part of another transaction, which can't be begun again, with it. */
    private Outcome changed(Function<Boolean, Outcome> change) {
        if (transactions.isUnderWay()) {
            return change.apply(true);
        }
        try {
            return transactions.run(() -> change.apply(false));
        } catch (Tight tight) {
            return transactions.run(() -> change.apply(true));
        }
    }

    /** Saves a file with its contents. */
    public Outcome save(FileOperation operation, ContentStore.Source source) {
        Instant now = clock.instant();
        return changed(exact -> {
            // Written before anything is locked: however long they are, nobody waits for them.
            long content = source.keep(contents, operation.bytes().value());
            Outcome outcome = change(operation, now, content, exact);
            if (!outcome.allowed()) {
                contents.remove(content);
            }
            return outcome;
        });
    }

    private RuleBook book(EstateStore.Snapshot snapshot) {
        RuleBook book = known;
        if (book.version() != snapshot.version()) {
            book = new RuleBook(snapshot);
            known = book;
        }
        return book;
    }

    private Person person(String uid) {
        return directory.person(uid).orElseThrow(() -> new NotThere("There is nobody '" + uid + "' in the directory"));
    }

    private Outcome read(FileOperation operation, Instant now) {
        RuleBook book = book(estates.snapshot());
        Share share = book.share(operation.share());
        Volume volume = book.volume(share);
        Optional<RoadStore.Found> found = operation.kind() == Kind.LIST
                ? Optional.empty()
                : files.place(share.name(), operation.path())
                        .filter(RoadStore.Place::complete)
                        .flatMap(place -> files.file(place, operation.path(), false));
        Person person = person(operation.person());
        GateView view = new GateView(
                book.reach(share),
                new GateView.Access(share, person),
                GateView.Limits.of(accounts.read(AccountKeys.of(book, operation, person))),
                new GateView.Space(volume, rooms.read(book, volume), present(found)));
        boolean allowed = Gate.refusedAt(operation, view, now).isEmpty();
        if (operation.kind() == Kind.READ && found.isEmpty() && allowed) {
            throw missing(operation);
        }
        return new Outcome(
                operation,
                view,
                now,
                allowed,
                space(view, operation),
                note(operation, view, now, allowed),
                allowed ? content(found) : Optional.empty());
    }

    private static Optional<Outcome.Content> content(Optional<RoadStore.Found> found) {
        return found.filter(f -> f.content() != null)
                .map(f -> new Outcome.Content(f.content(), f.row().bytes()));
    }

    private static NotThere missing(FileOperation operation) {
        return new NotThere("There is no file '" + operation.path() + "' on share " + operation.share());
    }

    private static Optional<GateView.Present> present(Optional<RoadStore.Found> found) {
        return found.map(RoadStore.Found::row)
                .map(row -> new GateView.Present(
                        Bytes.of(row.bytes()), Bytes.of(row.allocated()), row.owner(), row.group()));
    }

    private Outcome change(FileOperation operation, Instant now, @Nullable Long content, boolean exact) {
        RuleBook book = book(estates.held());
        Share share = book.share(operation.share());
        Volume volume = book.volume(share);
        Person person = person(operation.person());
        Optional<RoadStore.Place> place = files.place(share.name(), operation.path());
        Optional<RoadStore.Found> found =
                place.filter(RoadStore.Place::complete).flatMap(p -> files.file(p, operation.path(), true));
        List<Account> touched = accounts.lock(AccountKeys.of(book, operation, person, found));
        GateView.Access access = new GateView.Access(share, person);
        GateView.Limits limits = GateView.Limits.of(touched.stream()
                .filter(a -> a.counts(person.uid(), person.fileGroup()))
                .toList());
        GateView.Space space = new GateView.Space(volume, Bytes.ZERO, present(found));
        Bytes room = exact ? rooms.lock(book, volume, growth(operation, volume, space)) : rooms.read(book, volume);
        GateView view =
                new GateView(book.reach(share), access, limits, new GateView.Space(volume, room, space.present()));
        boolean allowed = Gate.refusedAt(operation, view, now).isEmpty();
        if (operation.kind() == Kind.DELETE && found.isEmpty() && allowed) {
            throw missing(operation);
        }
        long receipt = note(operation, view, now, allowed);
        GateView after =
                allowed ? apply(new Change(operation, person, view, found, content, now), place, touched, book) : view;
        return new Outcome(operation, view, now, allowed, space(after, operation), receipt, Optional.empty());
    }

    private static long growth(FileOperation operation, Volume volume, GateView.Space space) {
        long after = operation.kind() == Kind.WRITE
                ? volume.allocatedBytes(operation.bytes().value())
                : 0;
        return after - space.present().map(p -> p.allocated().value()).orElse(0L);
    }

    private GateView apply(Change change, Optional<RoadStore.Place> found, List<Account> touched, RuleBook book) {
        FileOperation operation = change.operation();
        Volume volume = change.view().space().volume();
        Optional<FileRow> before = change.found().map(RoadStore.Found::row);
        Optional<FileRow> after = operation.kind() == Kind.WRITE ? Optional.of(change.row(volume)) : Optional.empty();
        RoadStore.Place place = operation.kind() == Kind.WRITE
                ? files.made(operation.share(), operation.path(), found)
                : found.orElseThrow();
        write(place, before, after, change.content());
        change.found().map(RoadStore.Found::content).ifPresent(contents::remove);
        files.tally(place, before, after);
        long bytes = after.map(FileRow::bytes).orElse(0L)
                - before.map(FileRow::bytes).orElse(0L);
        long allocated = after.map(FileRow::allocated).orElse(0L)
                - before.map(FileRow::allocated).orElse(0L);
        Map<Account, Long> growths = new LinkedHashMap<>();
        touched.forEach(a -> growths.put(a, counted(a, after) - counted(a, before)));
        accounts.add(growths);
        List<Account> now = touched.stream()
                .map(a -> a.holding(Bytes.of(a.used().value() + growths.get(a))))
                .toList();
        now.forEach(account -> crossings.after(operation, account, change.now()));
        int files = (after.isPresent() ? 1 : 0) - (before.isPresent() ? 1 : 0);
        this.files.sums(place, files, bytes, allocated);
        if (!rooms.take(book, volume, allocated)) {
            throw new Tight();
        }
        return new GateView(
                change.view().reach(),
                change.view().access(),
                GateView.Limits.of(now.stream()
                        .filter(a ->
                                a.counts(change.person().uid(), change.person().fileGroup()))
                        .toList()),
                new GateView.Space(
                        volume,
                        Bytes.of(Math.max(0, change.view().space().room().value() - allocated)),
                        Optional.empty()));
    }

    private static long counted(Account account, Optional<FileRow> row) {
        return row.filter(r -> account.counts(r.owner(), r.group()))
                .map(FileRow::bytes)
                .orElse(0L);
    }

    private void write(
            RoadStore.Place place, Optional<FileRow> before, Optional<FileRow> after, @Nullable Long content) {
        if (after.isEmpty()) {
            files.remove(place, before.orElseThrow());
        } else if (before.isEmpty()) {
            files.add(place, after.get(), content);
        } else {
            files.replace(place, after.get(), content);
        }
    }

    private long note(FileOperation operation, GateView view, Instant now, boolean allowed) {
        return audit.append(new AuditStore.Entry(
                now,
                operation.person(),
                operation.client().address(),
                operation.share(),
                operation.kind().name(),
                operation.path().text(),
                operation.bytes().value(),
                allowed,
                allowed ? "allowed" : Gate.decide(operation, view, now).reason()));
    }

    private static ClientSpace space(GateView view, FileOperation operation) {
        return ClientSpace.of(view.limits(), view.space().volume(), view.space().room(), operation.path());
    }

    /** What a person's client sees of the space at a folder of a share; empty for who has no access there. */
    public Optional<ClientSpace> space(String shareName, String uid, FilePath folder) {
        RuleBook book = book(estates.snapshot());
        Share share = book.share(shareName);
        FileOperation look =
                new FileOperation(Kind.LIST, uid, shareName, folder, Bytes.ZERO, Workstations.of(share, uid));
        Volume volume = book.volume(share);
        FilePath inside = folder.child("x");
        Person person = person(uid);
        FileOperation save = new FileOperation(Kind.WRITE, uid, shareName, inside, Bytes.ZERO, look.client());
        GateView view = new GateView(
                book.reach(share),
                new GateView.Access(share, person),
                GateView.Limits.of(accounts.read(AccountKeys.of(book, save, person))),
                new GateView.Space(volume, rooms.read(book, volume), Optional.empty()));
        return Gate.refusedAt(look, view, clock.instant()).isEmpty()
                ? Optional.of(ClientSpace.of(view.limits(), volume, view.space().room(), inside))
                : Optional.empty();
    }
}
