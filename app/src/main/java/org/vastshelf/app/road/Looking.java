package org.vastshelf.app.road;

import java.time.Instant;
import java.util.List;
import java.util.Optional;
import org.springframework.stereotype.Component;
import org.vastshelf.app.catalogue.FileRow;
import org.vastshelf.app.limit.AccountStore;
import org.vastshelf.app.store.EstateStore;
import org.vastshelf.core.content.Contents;
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

/** Operations that change nothing but the time of a file's last use. They lock nothing else. */
@Component
class Looking {

    /** A time of use that is younger than this is left as it is, as file servers do to spare themselves the writing. */
    private static final long FRESH_SECONDS = 86_400;

    private final EstateStore estates;
    private final RuleBooks books;
    private final RoadStore files;
    private final LivesStore lives;
    private final TallyStore tallies;
    private final AccountStore accounts;
    private final VolumeRoomStore rooms;
    private final Notes notes;

    Looking(
            EstateStore estates,
            RuleBooks books,
            RoadStore files,
            LivesStore lives,
            TallyStore tallies,
            AccountStore accounts,
            VolumeRoomStore rooms,
            Notes notes) {
        this.estates = estates;
        this.books = books;
        this.files = files;
        this.lives = lives;
        this.tallies = tallies;
        this.accounts = accounts;
        this.rooms = rooms;
        this.notes = notes;
    }

    Outcome look(FileOperation operation, Instant now) {
        RuleBook book = books.of(estates.snapshot());
        Share share = book.share(operation.share());
        Volume volume = book.volume(share);
        boolean reads = operation.kind() == Kind.READ;
        if (reads) {
            lives.holdTree(share);
        }
        Optional<RoadStore.Place> place = reads
                ? files.place(share.name(), operation.path()).filter(RoadStore.Place::complete)
                : Optional.empty();
        Optional<RoadStore.Found> found = place.flatMap(p -> files.file(p, operation.path(), volume, false));
        Person person = books.person(operation.person());
        GateView view = view(
                book,
                share,
                person,
                accounts.read(AccountKeys.at(book, share.name(), operation.path(), Owner.of(person))
                        .toList()),
                rooms.read(book, volume),
                found);
        boolean allowed = Gate.refusedAt(operation, view, now).isEmpty();
        if (reads && found.isEmpty() && allowed) {
            throw NotThere.file(operation);
        }
        if (reads && allowed) {
            use(place.orElseThrow(), volume, operation, found.orElseThrow().row(), now);
        }
        return new Outcome(
                operation,
                view,
                now,
                allowed,
                space(view, operation),
                notes.note(operation, view, now, allowed),
                allowed ? found.map(RoadStore.Found::contents) : Optional.empty());
    }

    static GateView view(
            RuleBook book,
            Share share,
            Person person,
            List<Account> accounts,
            Bytes room,
            Optional<RoadStore.Found> found) {
        return new GateView(
                book.reach(share),
                new GateView.Access(share, person),
                GateView.Limits.of(accounts),
                new GateView.Space(book.volume(share), room, found.map(f -> f.present(0))));
    }

    /** A file after somebody used it; empty where that leaves it as it is. */
    static Optional<FileRow> used(FileRow before, Instant now) {
        return now.getEpochSecond() - before.accessed() < FRESH_SECONDS
                ? Optional.empty()
                : Optional.of(before.usedAt(now.getEpochSecond()));
    }

    /** What a file holds, whoever asks. */
    Contents contents(FileOperation operation) {
        RuleBook book = books.of(estates.snapshot());
        Share share = book.share(operation.share());
        return files.place(share.name(), operation.path())
                .filter(RoadStore.Place::complete)
                .flatMap(place -> files.file(place, operation.path(), book.volume(share), false))
                .orElseThrow(() -> NotThere.file(operation))
                .contents();
    }

    private void use(RoadStore.Place place, Volume volume, FileOperation operation, FileRow seen, Instant now) {
        if (used(seen, now).isEmpty()) {
            return;
        }
        files.file(place, operation.path(), volume, true)
                .map(RoadStore.Found::row)
                .ifPresent(before -> used(before, now).ifPresent(after -> {
                    files.use(place, after);
                    if (before.month() != after.month()) {
                        tallies.tally(place, Optional.of(before), Optional.of(after));
                    }
                }));
    }

    static ClientSpace space(GateView view, FileOperation operation) {
        return ClientSpace.of(view.limits(), view.space().volume(), view.space().room(), operation.place());
    }

    /** What a person's client sees of the space at a folder of a share; empty for who has no access there. */
    Optional<ClientSpace> space(String shareName, String uid, FilePath folder, Instant now) {
        RuleBook book = books.of(estates.snapshot());
        Share share = book.share(shareName);
        FileOperation look =
                new FileOperation(Kind.LIST, uid, shareName, folder, Bytes.ZERO, Workstations.of(share, uid));
        Volume volume = book.volume(share);
        FilePath inside = folder.child("x");
        Person person = books.person(uid);
        GateView view = view(
                book,
                share,
                person,
                accounts.read(AccountKeys.at(book, shareName, inside, Owner.of(person))
                        .toList()),
                rooms.read(book, volume),
                Optional.empty());
        return Gate.refusedAt(look, view, now).isEmpty()
                ? Optional.of(ClientSpace.of(view.limits(), volume, view.space().room(), inside))
                : Optional.empty();
    }
}
