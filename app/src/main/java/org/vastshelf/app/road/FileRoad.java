package org.vastshelf.app.road;

import java.nio.ByteBuffer;
import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.util.Optional;
import java.util.OptionalLong;
import java.util.function.Function;
import java.util.function.Supplier;
import org.springframework.stereotype.Service;
import org.vastshelf.app.catalogue.FileRow;
import org.vastshelf.app.clock.ShelfClock;
import org.vastshelf.app.content.FarBytes;
import org.vastshelf.app.content.FileBytes;
import org.vastshelf.app.store.Digests;
import org.vastshelf.app.store.Transactions;
import org.vastshelf.core.content.Contents;
import org.vastshelf.core.estate.FilePath;
import org.vastshelf.core.gate.ClientSpace;
import org.vastshelf.core.gate.FileOperation;

/**
 * The one road for operations on single files: look, ask the gate, apply, write the audit line, in one transaction.
 * Where a volume's room may not suffice, a save is begun again and locks the volume first.
 */
@Service
public class FileRoad {

    /** In whose name files leave, and come back, by a rule. */
    public static final String TIERING = "(tiering)";

    private static final int MOST_RECALLS = 3;

    private final Looking looking;
    private final Changing changing;
    private final FileBytes bytes;
    private final FarBytes far;
    private final ShelfClock clock;
    private final Transactions transactions;

    FileRoad(
            Looking looking,
            Changing changing,
            FileBytes bytes,
            FarBytes far,
            ShelfClock clock,
            Transactions transactions) {
        this.looking = looking;
        this.changing = changing;
        this.bytes = bytes;
        this.far = far;
        this.clock = clock;
        this.transactions = transactions;
    }

    public Outcome perform(FileOperation operation) {
        return perform(operation, clock.instant());
    }

    /**
     * Performs an operation that a client asked for at a given time, which a jump of the clock may have passed. What it
     * saves the stand-in client makes.
     */
    public Outcome perform(FileOperation operation, Instant now) {
        return switch (operation.kind()) {
            case LIST, READ -> looked(operation, now);
            case DELETE -> changed(exact -> changing.change(operation, now, new Draft.Gone(), exact));
            case WRITE ->
                changed(exact -> changing.change(operation, now, new Draft.Whole(made(operation, now)), exact));
            default ->
                throw new IllegalArgumentException("operation is '" + operation.kind()
                        + "', which needs more than a path; see the operations of its own for it");
        };
    }

    private Outcome looked(FileOperation operation, Instant now) {
        Outcome outcome = transactions.run(() -> looking.look(operation, now));
        // Many reads of the demo's people are one transaction, and none of them is held back.
        if (!transactions.isUnderWay()) {
            outcome.contents().filter(Contents::isCold).ifPresent(away -> far.read(operation, away, now));
        }
        return outcome;
    }

    private Contents made(FileOperation operation, Instant now) {
        return bytes.made(
                operation.path().name(),
                number(operation, now),
                operation.bytes().value());
    }

    /** The same save at the same moment gives the same bytes. */
    private static long number(FileOperation operation, Instant now) {
        String what = operation.share() + operation.path() + now;
        return ByteBuffer.wrap(Digests.sixteen(what.getBytes(StandardCharsets.UTF_8)))
                        .getLong()
                >>> 8;
    }

    /** At first without locking the volume; as part of another transaction, which can't be begun again, with it. */
    private Outcome changed(Function<Boolean, Outcome> change) {
        if (transactions.isUnderWay()) {
            return change.apply(true);
        }
        try {
            return transactions.run(() -> change.apply(false));
        } catch (Changing.Tight tight) {
            return transactions.run(() -> change.apply(true));
        }
    }

    /** Saves a file with its contents, however long they turn out to be. */
    public Outcome save(FileOperation operation, FileBytes.Source source) {
        Instant now = clock.instant();
        // Written before anything is locked: however long they are, nobody waits for them.
        return changed(exact -> bytes.keep(
                source,
                contents -> changing.change(operation, now, new Draft.Whole(contents), exact),
                Outcome::allowed));
    }

    /**
     * Saves a new file with contents that are there already.
     *
     * @throws Taken when there is a file
     */
    public Outcome saveBeside(FileOperation operation, Contents contents) {
        Instant now = clock.instant();
        return changed(exact -> changing.change(operation, now, new Draft.Beside(contents), exact));
    }

    /**
     * Saves a file as a snapshot has it, with its owner and its time of change.
     *
     * @param operation of the kind {@code RESTORE}
     * @param replaces whether a file that is there gives way
     * @throws Taken when there is one, and it does not
     */
    public Outcome bringBack(FileOperation operation, Contents contents, FileRow was, boolean replaces) {
        Instant now = clock.instant();
        return changed(exact -> changing.change(operation, now, new Draft.Back(contents, was, replaces), exact));
    }

    /** Takes a file away that a state which is brought back did not have. */
    public Outcome clear(FileOperation operation) {
        Instant now = clock.instant();
        return changed(exact -> changing.change(operation, now, new Draft.Gone(), exact));
    }

    /**
     * Makes a file what a copy that takes over has of it, or takes it away where the copy has none.
     *
     * @param operation of the kind {@code FALL_BACK}
     */
    public Outcome fallBack(FileOperation operation, Optional<FileRow> was, Contents contents) {
        Instant now = clock.instant();
        Draft draft = was.<Draft>map(row -> new Draft.Back(contents, row, true)).orElseGet(Draft.Gone::new);
        return changed(exact -> changing.change(operation, now, draft, exact));
    }

    /**
     * Lets what a file holds lie elsewhere, if that is still what it holds.
     *
     * @param operation of the kind {@code LEAVE}
     * @param apply what has to be so from the same moment on
     * @throws ChangedMeanwhile when it holds something else
     */
    public Outcome leave(FileOperation operation, Contents expected, Contents instead, Runnable apply) {
        Instant now = clock.instant();
        return changed(exact -> {
            Outcome outcome = changing.change(operation, now, new Draft.Elsewhere(expected, instead), exact);
            if (outcome.allowed()) {
                apply.run();
            }
            return outcome;
        });
    }

    /**
     * Brings what a file holds back from a cold store.
     *
     * @param operation of the kind {@code RECALL}
     * @param away what the file holds
     * @throws ChangedMeanwhile when it holds something else by then
     */
    public Outcome recall(FileOperation operation, Contents away) {
        Instant now = clock.instant();
        return changed(exact -> far.near(
                away,
                contents -> changing.change(operation, now, new Draft.Elsewhere(away, contents), exact),
                Outcome::allowed));
    }

    /**
     * Brings a file back from a cold store.
     *
     * @param operation of the kind {@code RECALL}
     * @throws IllegalArgumentException when it has not left
     */
    public Outcome recall(FileOperation operation) {
        Contents held = transactions.run(() -> looking.contents(operation));
        if (!held.isCold()) {
            throw new IllegalArgumentException(
                    "'" + operation.path() + "' on share " + operation.share() + " has not left, or is back already");
        }
        return recall(operation, held);
    }

    /** Does something for which files have to be here, and brings back first what is not. */
    private Outcome here(FileOperation operation, Supplier<Outcome> change) {
        for (int tries = 0; tries < MOST_RECALLS; tries++) {
            try {
                return change.get();
            } catch (Changing.Away away) {
                far.mayComeBack(away.contents());
                Outcome back = recall(operation.as(FileOperation.Kind.RECALL), away.contents());
                if (!back.allowed()) {
                    return back;
                }
            }
        }
        return change.get();
    }

    /** Puts other bytes into a place of a file. */
    public Outcome edit(FileOperation operation, long at, FileBytes.Source source) {
        Instant now = clock.instant();
        return here(
                operation,
                () -> changed(exact -> bytes.keep(
                        source,
                        contents -> changing.change(operation, now, new Draft.Patch(at, contents), exact),
                        Outcome::allowed)));
    }

    /** Adds bytes at the end of a file. */
    public Outcome append(FileOperation operation, FileBytes.Source source) {
        return edit(operation, Draft.Patch.END, source);
    }

    /** Edits as a stand-in client does, which makes the bytes: so many of them as the operation says. */
    public Outcome edit(FileOperation operation, OptionalLong at, Instant now) {
        Contents patch = made(operation, now);
        Draft.Patch draft = new Draft.Patch(at.orElse(Draft.Patch.END), patch);
        return here(operation, () -> changed(exact -> changing.change(operation, now, draft, exact)));
    }

    /** What a person's client sees of the space at a folder of a share; empty for who has no access there. */
    public Optional<ClientSpace> space(String share, String uid, FilePath folder) {
        return looking.space(share, uid, folder, clock.instant());
    }
}
