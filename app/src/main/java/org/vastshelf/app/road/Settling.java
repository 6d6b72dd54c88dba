package org.vastshelf.app.road;

import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.SortedMap;
import java.util.TreeMap;
import java.util.stream.Stream;
import org.springframework.stereotype.Component;
import org.vastshelf.app.catalogue.FileRow;
import org.vastshelf.app.catalogue.PathBytes;
import org.vastshelf.app.common.CommonChangeStore;
import org.vastshelf.app.common.CommonShiftStore;
import org.vastshelf.app.content.KeptStore;
import org.vastshelf.app.limit.AccountStore;
import org.vastshelf.core.catalogue.FileKind;
import org.vastshelf.core.content.Contents;
import org.vastshelf.core.estate.FilePath;
import org.vastshelf.core.gate.FileOperation;
import org.vastshelf.core.gate.Gate;
import org.vastshelf.core.gate.GateView;
import org.vastshelf.core.limit.Account;
import org.vastshelf.core.snapshot.BlockLives;
import org.vastshelf.core.unit.Bytes;

/** Asks the gate about what moves, arrives or goes away, and carries it out. */
@Component
class Settling {

    private final RoadStore files;
    private final LivesStore lives;
    private final TreeStore trees;
    private final TreeCopyStore copies;
    private final TallyStore tallies;
    private final KeptStore kept;
    private final CommonChangeStore common;
    private final CommonShiftStore shifts;
    private final AccountStore accounts;
    private final Retaining retaining;
    private final VolumeRoomStore rooms;
    private final Crossings crossings;
    private final Notes notes;

    Settling(
            RoadStore files,
            LivesStore lives,
            TreeStore trees,
            TreeCopyStore copies,
            TallyStore tallies,
            KeptStore kept,
            CommonChangeStore common,
            CommonShiftStore shifts,
            AccountStore accounts,
            Retaining retaining,
            VolumeRoomStore rooms,
            Crossings crossings,
            Notes notes) {
        this.files = files;
        this.lives = lives;
        this.trees = trees;
        this.copies = copies;
        this.tallies = tallies;
        this.kept = kept;
        this.common = common;
        this.shifts = shifts;
        this.accounts = accounts;
        this.retaining = retaining;
        this.rooms = rooms;
        this.crossings = crossings;
        this.notes = notes;
    }

    Outcome moved(Scene scene, FileOperation operation, Load load, RoadStore.Place there) {
        FilePath to = operation.place();
        load.requirePaths(to);
        Map<AccountStore.Key, Long> gains = Trees.gains(
                portion -> keys(scene, load.someFile(portion, load.at().path()), portion.owner()),
                portion -> keys(scene, load.someFile(portion, to), portion.owner()),
                load.portions());
        GateView.Retention retention = retaining.of(scene.book(), operation, load, scene.now());
        if (load.sharesUnits()) {
            shifts.note(scene.volume().name());
        }
        return settle(scene, operation, retention, gains, Taking.NOTHING, () -> {
            Epoch epoch = load.epoch();
            if (load.isFolder()) {
                List<Integer> top = List.of(load.tree().getFirst().no());
                lives.foldersGone(there.catalogue(), top, epoch);
                trees.move(there.catalogue(), load.tree(), to, there.folder());
                lives.named(there.catalogue(), top.getFirst(), epoch);
            } else {
                RoadStore.Found file = load.file().orElseThrow();
                FileRow before = file.row();
                FileRow after = before.named(
                        PathBytes.of(to.name()),
                        FileKind.of(to.name()),
                        scene.now().getEpochSecond());
                if (epoch.holds(file.lived().born())) {
                    lives.past(load.place(), file, epoch);
                    kept.used(file.contents().kept(), 1);
                    common.note(scene.volume().name(), file.lived().common(), file.contents(), 1);
                }
                files.remove(load.place(), before);
                files.add(
                        there,
                        new RoadStore.Found(
                                after,
                                file.contents(),
                                new Lived(
                                        epoch.taken(),
                                        file.lived().blocks(),
                                        file.lived().common()),
                                file.created()));
                tallies.tally(load.place(), Optional.of(before), Optional.empty());
                tallies.tally(there, Optional.empty(), Optional.of(after));
            }
            tallies.moved(load.place(), there, load.files(), load.bytes().value(), load.allocated());
        });
    }

    Outcome copied(Scene scene, FileOperation operation, Load load, RoadStore.Place there, Epoch epoch) {
        FilePath to = operation.path();
        load.requirePaths(to);
        Map<AccountStore.Key, Long> gains = Trees.gains(
                portion -> Stream.empty(),
                portion -> keys(scene, load.someFile(portion, to), scene.owner()),
                load.portions());
        Taking taking = new Taking(load.allocated(), Collections.emptySortedMap(), epoch);
        return settle(scene, operation, GateView.Retention.NONE, gains, taking, () -> {
            if (load.isFolder()) {
                copies.copy(
                        load.place().catalogue(),
                        load.tree(),
                        new TreeCopyStore.Target(
                                there.catalogue(),
                                there.folder(),
                                to,
                                scene.owner(),
                                scene.volume().blockSize(),
                                epoch,
                                scene.now()));
                Map<Long, Integer> uses = trees.kept(load.place().catalogue(), load.tree(), 0);
                kept.hold(uses.keySet());
                uses.forEach((number, times) -> kept.used(List.of(number), times));
            } else {
                Contents contents = load.file().orElseThrow().contents();
                FileRow copy = copy(scene, to, load.file().orElseThrow());
                long blocks = copy.allocated() / scene.volume().blockSize();
                Lived lived = new Lived(epoch.taken(), BlockLives.of(blocks, epoch.taken()));
                files.add(
                        there,
                        new RoadStore.Found(copy, contents, lived, scene.now().getEpochSecond()));
                kept.hold(contents.kept());
                kept.used(contents.kept(), 1);
                tallies.tally(there, Optional.empty(), Optional.of(copy));
            }
            tallies.sums(there, load.files(), load.bytes().value(), load.allocated());
        });
    }

    private static FileRow copy(Scene scene, FilePath to, RoadStore.Found found) {
        FileRow of = found.row();
        long now = scene.now().getEpochSecond();
        return new FileRow(
                PathBytes.of(to.name()),
                of.bytes(),
                scene.volume().allocatedBytes(found.contents().here()),
                scene.owner().uid(),
                scene.owner().group(),
                Math.min(of.modified(), now),
                now,
                now,
                FileKind.of(to.name()));
    }

    Outcome folderMade(Scene scene, FileOperation operation, Epoch epoch) {
        return settle(scene, operation, GateView.Retention.NONE, Map.of(), Taking.NOTHING, () -> {
            FilePath inside = operation.path().child("x");
            files.made(operation.share(), inside, files.place(operation.share(), inside), epoch);
        });
    }

    Outcome removed(Scene scene, FileOperation operation, Load load) {
        Map<AccountStore.Key, Long> gains = Trees.gains(
                portion -> keys(scene, load.someFile(portion, operation.path()), portion.owner()),
                portion -> Stream.empty(),
                load.portions());
        int catalogue = load.place().catalogue();
        SortedMap<Integer, Long> held = held(scene, load);
        GateView.Retention retention = retaining.of(scene.book(), operation, load, scene.now());
        return settle(scene, operation, retention, gains, new Taking(-load.allocated(), held, load.epoch()), () -> {
            trees.kept(catalogue, load.tree(), load.epoch().newest())
                    .forEach((number, times) -> kept.used(List.of(number), -times));
            TreeStore.some(load.tree()).forEach(some -> {
                common.gone(scene.volume().name(), catalogue, some, load.epoch().newest());
                lives.filesGone(catalogue, some, load.epoch());
                lives.foldersGone(catalogue, some, load.epoch());
            });
            trees.remove(catalogue, load.tree());
            tallies.sums(load.place(), -load.files(), -load.bytes().value(), -load.allocated());
        });
    }

    /**
     * What an operation takes on the volume.
     *
     * @param live bytes that files take more, or less
     * @param held bytes that die and that snapshots hold, by birth
     */
    private record Taking(long live, SortedMap<Integer, Long> held, Epoch epoch) {
        static final Taking NOTHING = new Taking(0, Collections.emptySortedMap(), new Epoch(0, 0));

        long all() {
            return live + heldBytes();
        }

        long heldBytes() {
            return held.values().stream().mapToLong(Long::longValue).sum();
        }
    }

    /** What snapshots hold of a tree, by birth. */
    private SortedMap<Integer, Long> held(Scene scene, Load load) {
        SortedMap<Integer, Long> blocks = new TreeMap<>();
        if (load.epoch().newest() > 0) {
            TreeStore.some(load.tree())
                    .forEach(some -> lives.blocks(
                                    load.place().catalogue(),
                                    some,
                                    scene.volume().blockSize())
                            .forEach((born, count) -> blocks.merge(born, count, Long::sum)));
        }
        return Passing.held(blocks, scene.volume(), load.epoch());
    }

    private static Stream<AccountStore.Key> keys(Scene scene, FilePath file, Owner owner) {
        return AccountKeys.at(scene.book(), scene.share().name(), file, owner);
    }

    private Outcome settle(
            Scene scene,
            FileOperation operation,
            GateView.Retention retention,
            Map<AccountStore.Key, Long> gains,
            Taking taking,
            Runnable apply) {
        long allocation = taking.all();
        List<AccountStore.Key> keys = List.copyOf(gains.keySet());
        List<Account> touched = accounts.lock(keys);
        Map<Account, Long> growths = new LinkedHashMap<>();
        for (int i = 0; i < keys.size(); i++) {
            growths.put(touched.get(i), gains.get(keys.get(i)));
        }
        Bytes room = allocation > 0
                ? rooms.lock(scene.book(), scene.volume(), allocation, taking.heldBytes())
                : rooms.read(scene.book(), scene.volume());
        GateView.Arriving arriving = new GateView.Arriving(growths, Bytes.of(Math.max(0, allocation)));
        GateView view = scene.view(retention, GateView.Limits.of(touched), room, arriving);
        boolean allowed = Gate.refusedAt(operation, view, scene.now()).isEmpty();
        long receipt = notes.note(operation, view, scene.now(), allowed);
        GateView after = view;
        if (allowed) {
            apply.run();
            List<Account> grown = crossings.grow(operation, growths, scene.now());
            lives.hold(scene.volume().name(), taking.held, taking.epoch);
            if (!rooms.take(scene.book(), scene.volume(), taking.live, taking.heldBytes())) {
                throw new IllegalStateException("the room that was locked is gone");
            }
            after = scene.view(
                    retention,
                    GateView.Limits.of(grown),
                    Bytes.of(Math.max(0, room.value() - allocation)),
                    GateView.Arriving.NOTHING);
        }
        return new Outcome(
                operation, view, scene.now(), allowed, Looking.space(after, operation), receipt, Optional.empty());
    }
}
