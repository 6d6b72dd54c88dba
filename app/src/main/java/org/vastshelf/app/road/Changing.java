package org.vastshelf.app.road;

import java.time.Instant;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.ToLongFunction;
import org.springframework.stereotype.Component;
import org.vastshelf.app.catalogue.FileRow;
import org.vastshelf.app.common.CommonChangeStore;
import org.vastshelf.app.content.KeptStore;
import org.vastshelf.app.limit.AccountStore;
import org.vastshelf.app.store.EstateStore;
import org.vastshelf.core.content.Contents;
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
 * Saves, edits and removals of single files: look, ask the gate, apply, write the audit line. They lock the file and
 * the accounts it counts for; what all saves on a volume share comes last, so that they wait for each other's end only.
 */
@Component
class Changing {

    private final EstateStore estates;
    private final RuleBooks books;
    private final RoadStore files;
    private final LivesStore lives;
    private final KeptStore kept;
    private final CommonChangeStore common;
    private final TallyStore tallies;
    private final AccountStore accounts;
    private final Retaining retaining;
    private final VolumeRoomStore rooms;
    private final Crossings crossings;
    private final Pieces pieces;
    private final Notes notes;

    Changing(
            EstateStore estates,
            RuleBooks books,
            RoadStore files,
            LivesStore lives,
            KeptStore kept,
            CommonChangeStore common,
            TallyStore tallies,
            AccountStore accounts,
            Retaining retaining,
            VolumeRoomStore rooms,
            Crossings crossings,
            Pieces pieces,
            Notes notes) {
        this.estates = estates;
        this.books = books;
        this.files = files;
        this.lives = lives;
        this.kept = kept;
        this.common = common;
        this.tallies = tallies;
        this.accounts = accounts;
        this.retaining = retaining;
        this.rooms = rooms;
        this.crossings = crossings;
        this.pieces = pieces;
        this.notes = notes;
    }

    /** What a volume may take without asking did not suffice. */
    static final class Tight extends RuntimeException {}

    /** What a file holds lies in a cold store, and has to come back before it is edited. */
    static final class Away extends RuntimeException {
        private final Contents contents;

        Away(Contents contents) {
            this.contents = contents;
        }

        Contents contents() {
            return contents;
        }
    }

    /**
     * Carries an operation out if the gate lets it.
     *
     * @param exact whether the volume's room is locked first
     * @throws Tight when it was not, and its room may not suffice
     * @throws Away when it is an edit of a file that has left
     * @throws ChangedMeanwhile when the file is not what it was meant for
     */
    Outcome change(FileOperation asked, Instant now, Draft draft, boolean exact) {
        RuleBook book = books.of(estates.held());
        Share share = book.share(asked.share());
        Epoch epoch = lives.holdTree(share);
        Volume volume = book.volume(share);
        Person person = books.person(asked.person());
        Optional<RoadStore.Place> place = files.place(share.name(), asked.path());
        Optional<RoadStore.Found> found =
                place.filter(RoadStore.Place::complete).flatMap(p -> files.file(p, asked.path(), volume, true));
        if ((asked.kind() == Kind.EDIT || asked.kind().keepsContents()) && found.isEmpty()) {
            throw NotThere.file(asked);
        }
        if (found.filter(file -> !draft.fits(file)).isPresent()) {
            throw new ChangedMeanwhile(asked);
        }
        Optional<Contents> contents = draft.after(found).map(pieces::fewer);
        FileOperation operation =
                asked.of(Bytes.of(contents.map(Contents::length).orElse(0L)));
        Owner owner = draft.owner(found, person);
        List<Account> touched = accounts.lock(AccountKeys.of(book, operation, owner, found));
        GateView.Limits limits =
                GateView.Limits.of(touched.stream().filter(owner::countsFor).toList());
        long here = contents.map(Contents::here).orElse(0L);
        Passing passing = draft.passing(found, here, volume, epoch);
        Optional<GateView.Present> present = found.map(f -> f.present(passing.heldBytes()));
        long growth = operation.kind().saves()
                ? volume.allocatedBytes(here)
                        - present.map(p -> p.allocated().value()).orElse(0L)
                        + passing.heldBytes()
                : 0;
        Bytes room = exact
                ? rooms.lock(book, volume, growth, passing.heldBytes())
                : rooms.read(book, volume, passing.heldBytes());
        GateView view = new GateView(
                book.reach(share),
                new GateView.Access(share, person),
                retaining.of(book, operation, found),
                limits,
                new GateView.Space(
                        volume,
                        room,
                        present,
                        GateView.Arriving.NOTHING,
                        operation.bytes().minus(Bytes.of(here))));
        boolean allowed = Gate.refusedAt(operation, view, now).isEmpty();
        if (operation.kind() != Kind.EDIT
                && operation.kind().saves()
                && allowed
                && place.filter(RoadStore.Place::isFolder).isPresent()) {
            throw new Taken("'" + operation.path() + "' is a folder, and can't be saved to");
        }
        if (draft.needsFreePlace() && found.isPresent() && allowed) {
            throw new Taken("There is a file '" + operation.path() + "' on share " + share.name()
                    + " already; choose another name, or let it give way");
        }
        if ((operation.kind() == Kind.DELETE || operation.kind() == Kind.CLEAR) && found.isEmpty() && allowed) {
            throw NotThere.file(operation);
        }
        if (allowed
                && draft instanceof Draft.Patch
                && found.filter(f -> f.contents().isCold()).isPresent()) {
            throw new Away(found.get().contents());
        }
        long receipt = notes.note(operation, view, now, allowed);
        GateView after = allowed
                ? apply(
                        new Change(operation, owner, view, found, contents, passing, epoch, draft.modified(now), now),
                        place,
                        touched,
                        book)
                : view;
        return new Outcome(operation, view, now, allowed, Looking.space(after, operation), receipt, Optional.empty());
    }

    private GateView apply(Change change, Optional<RoadStore.Place> found, List<Account> touched, RuleBook book) {
        FileOperation operation = change.operation();
        Volume volume = change.view().space().volume();
        Optional<FileRow> before = change.before();
        Optional<FileRow> after = change.after(volume);
        RoadStore.Place place = after.isPresent()
                ? files.made(operation.share(), operation.path(), found, change.epoch())
                : found.orElseThrow();
        change.past().ifPresent(was -> lives.past(place, was, change.epoch()));
        write(place, change, after);
        kept.hold(change.taken());
        if (change.past().isEmpty()) {
            change.found()
                    .ifPresent(was -> common.note(volume.name(), was.lived().common(), was.contents(), -1));
        }
        kept.used(change.released(), -1);
        kept.used(change.taken(), 1);
        tallies.tally(place, before, after);
        long allocated = sum(after, FileRow::allocated) - sum(before, FileRow::allocated);
        Map<Account, Long> growths = new LinkedHashMap<>();
        touched.forEach(a -> growths.put(a, counted(a, after) - counted(a, before)));
        List<Account> now = crossings.grow(operation, growths, change.now());
        tallies.sums(
                place,
                (after.isPresent() ? 1 : 0) - (before.isPresent() ? 1 : 0),
                sum(after, FileRow::bytes) - sum(before, FileRow::bytes),
                allocated);
        lives.hold(volume.name(), change.passing().held(), change.epoch());
        if (!rooms.take(book, volume, allocated, change.passing().heldBytes())) {
            throw new Tight();
        }
        return new GateView(
                change.view().reach(),
                change.view().access(),
                change.view().retention(),
                GateView.Limits.of(
                        now.stream().filter(change.owner()::countsFor).toList()),
                new GateView.Space(
                        volume,
                        Bytes.of(Math.max(
                                0,
                                change.view().space().room().value()
                                        - allocated
                                        - change.passing().heldBytes())),
                        Optional.empty()));
    }

    private static long sum(Optional<FileRow> row, ToLongFunction<FileRow> figure) {
        return row.map(figure::applyAsLong).orElse(0L);
    }

    private static long counted(Account account, Optional<FileRow> row) {
        return row.filter(r -> account.counts(r.owner(), r.group()))
                .map(r -> account.rule().basis().of(r.bytes(), r.allocated()))
                .orElse(0L);
    }

    private void write(RoadStore.Place place, Change change, Optional<FileRow> after) {
        if (after.isEmpty()) {
            files.remove(place, change.before().orElseThrow());
        } else if (change.found().isEmpty()) {
            files.add(
                    place,
                    new RoadStore.Found(
                            after.get(),
                            change.contents().orElseThrow(),
                            change.lived(),
                            change.now().getEpochSecond()));
        } else {
            files.replace(place, after.get(), change.contents().orElseThrow(), change.lived());
        }
    }
}
