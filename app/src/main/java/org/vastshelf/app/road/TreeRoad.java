package org.vastshelf.app.road;

import java.time.Instant;
import java.util.List;
import java.util.Optional;
import org.springframework.stereotype.Service;
import org.vastshelf.app.clock.ShelfClock;
import org.vastshelf.app.store.EstateStore;
import org.vastshelf.app.store.Transactions;
import org.vastshelf.core.estate.FilePath;
import org.vastshelf.core.estate.Share;
import org.vastshelf.core.estate.Volume;
import org.vastshelf.core.gate.FileOperation;
import org.vastshelf.core.gate.FileOperation.Kind;
import org.vastshelf.core.unit.Bytes;

/**
 * The road for what concerns more than the contents of one file: moves, copies, folders made and removed. As on
 * {@link FileRoad} all goes through the gate, in one transaction, and is written down. While folders move, nobody else
 * saves on the share.
 */
@Service
public class TreeRoad {

    private final EstateStore estates;
    private final RuleBooks books;
    private final RoadStore files;
    private final LivesStore lives;
    private final TreeStore trees;
    private final Looking looking;
    private final Settling settling;
    private final ShelfClock clock;
    private final Transactions transactions;

    TreeRoad(
            EstateStore estates,
            RuleBooks books,
            RoadStore files,
            LivesStore lives,
            TreeStore trees,
            Looking looking,
            Settling settling,
            ShelfClock clock,
            Transactions transactions) {
        this.estates = estates;
        this.books = books;
        this.files = files;
        this.lives = lives;
        this.trees = trees;
        this.looking = looking;
        this.settling = settling;
        this.clock = clock;
        this.transactions = transactions;
    }

    /** Something at a path of a share. */
    public record At(String share, FilePath path) {
        @Override
        public String toString() {
            return "'" + path + "' on share " + share;
        }
    }

    /** Gives a file or a folder another name, another place on its share, or both. */
    public Outcome move(String who, At from, FilePath to) {
        return move(who, from, to, clock.instant());
    }

    public Outcome move(String who, At from, FilePath to, Instant now) {
        return transactions.run(() -> {
            Scene scene = scene(who, from.share, now);
            Load load = load(from, scene.book(), Optional.empty());
            FileOperation operation = new FileOperation(
                    load.isFolder() ? Kind.MOVE_FOLDER : Kind.MOVE,
                    who,
                    from.share,
                    from.path,
                    load.bytes(),
                    Workstations.of(scene.share(), who),
                    Optional.of(to));
            if (to.isWithin(from.path) && !to.equals(from.path)) {
                throw new Taken("'" + from.path + "' can't go into itself");
            }
            load.requireNoRule(scene.book());
            RoadStore.Place there = free(scene, new At(from.share, to), load.epoch());
            return settling.moved(scene, operation, load, there);
        });
    }

    /** Copies a file or a folder, also to another share. The copy belongs to who makes it. */
    public Outcome copy(String who, At from, At to) {
        return copy(who, from, to, clock.instant());
    }

    public Outcome copy(String who, At from, At to, Instant now) {
        return transactions.run(() -> {
            Scene scene = scene(who, to.share, now);
            Load load = load(from, scene.book(), Optional.of(scene.volume()));
            Share source = scene.book().share(from.share);
            Outcome read = looking.look(
                    new FileOperation(
                            load.isFolder() ? Kind.LIST : Kind.READ,
                            who,
                            from.share,
                            from.path,
                            Bytes.ZERO,
                            Workstations.of(source, who)),
                    now);
            if (!read.allowed()) {
                return read;
            }
            if (to.share.equals(from.share) && to.path.isWithin(from.path)) {
                throw new Taken("'" + from.path + "' can't be copied into itself");
            }
            FileOperation operation = new FileOperation(
                    load.isFolder() ? Kind.COPY_FOLDER : Kind.COPY,
                    who,
                    to.share,
                    to.path,
                    load.bytes(),
                    Workstations.of(scene.share(), who));
            Epoch epoch = lives.holdTree(scene.share());
            RoadStore.Place there = free(scene, to, epoch);
            return settling.copied(scene, operation, load, there, epoch);
        });
    }

    public Outcome makeFolder(String who, At at) {
        Instant now = clock.instant();
        return transactions.run(() -> {
            Scene scene = scene(who, at.share, now);
            FileOperation operation = new FileOperation(
                    Kind.MAKE_FOLDER, who, at.share, at.path, Bytes.ZERO, Workstations.of(scene.share(), who));
            Epoch epoch = lives.holdTree(scene.share());
            free(scene, at, epoch);
            return settling.folderMade(scene, operation, epoch);
        });
    }

    /** Removes a folder with all that is in it. */
    public Outcome removeFolder(String who, At at) {
        return removeFolder(who, at, clock.instant());
    }

    public Outcome removeFolder(String who, At at, Instant now) {
        return transactions.run(() -> {
            Scene scene = scene(who, at.share, now);
            Load load = load(at, scene.book(), Optional.empty());
            if (!load.isFolder()) {
                throw NotThere.folder(at.share, at.path);
            }
            FileOperation operation = new FileOperation(
                    Kind.REMOVE_FOLDER, who, at.share, at.path, load.bytes(), Workstations.of(scene.share(), who));
            load.requireNoRule(scene.book());
            return settling.removed(scene, operation, load);
        });
    }

    private Scene scene(String who, String shareName, Instant now) {
        RuleBook book = books.of(estates.held());
        Share share = book.share(shareName);
        return new Scene(book, share, book.volume(share), books.person(who), now);
    }

    /**
     * What lies at a path; it stays there until the transaction has ended.
     *
     * @param onto the volume to which it is written; empty for what keeps the blocks that it has
     */
    private Load load(At at, RuleBook book, Optional<Volume> onto) {
        if (at.path.isRoot()) {
            throw new IllegalArgumentException("path is '/', must name a file or a folder in it");
        }
        boolean folder =
                files.place(at.share, at.path).orElseThrow(() -> missing(at)).isFolder();
        Share share = book.share(at.share);
        Epoch epoch = folder ? lives.lockTree(share) : lives.holdTree(share);
        RoadStore.Place place =
                files.place(at.share, at.path).filter(RoadStore.Place::complete).orElseThrow(() -> missing(at));
        if (place.isFolder() != folder) {
            throw new Transactions.RunAgain("'" + at.path + "' became something else", null);
        }
        if (folder) {
            List<TreeStore.Branch> tree = trees.tree(place.catalogue(), at.path);
            return Load.of(
                    at, place, epoch, tree, trees.portions(place.catalogue(), tree, onto.map(Volume::blockSize)));
        }
        RoadStore.Found found =
                files.file(place, at.path, book.volume(share), true).orElseThrow(() -> missing(at));
        return Load.of(at, place, epoch, found, onto);
    }

    private static NotThere missing(At at) {
        return new NotThere("There is nothing at " + at);
    }

    /** A place of which the folder is there and the name is free. */
    private RoadStore.Place free(Scene scene, At at, Epoch epoch) {
        Optional<RoadStore.Place> found = files.place(at.share, at.path);
        if (found.isEmpty() && at.path.parent().isRoot()) {
            return files.made(at.share, at.path, Optional.empty(), epoch);
        }
        RoadStore.Place place =
                found.filter(RoadStore.Place::complete).orElseThrow(() -> NotThere.folder(at.share, at.path.parent()));
        if (place.isFolder() || files.file(place, at.path, scene.volume(), true).isPresent()) {
            throw new Taken("There is something at " + at + " already; remove it first or choose another name");
        }
        return place;
    }
}
