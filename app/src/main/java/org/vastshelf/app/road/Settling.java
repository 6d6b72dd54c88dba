package org.vastshelf.app.road;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Stream;
import org.springframework.stereotype.Component;
import org.vastshelf.app.catalogue.FileRow;
import org.vastshelf.app.catalogue.PathBytes;
import org.vastshelf.app.content.KeptStore;
import org.vastshelf.app.limit.AccountStore;
import org.vastshelf.core.catalogue.FileKind;
import org.vastshelf.core.content.Contents;
import org.vastshelf.core.estate.FilePath;
import org.vastshelf.core.gate.FileOperation;
import org.vastshelf.core.gate.Gate;
import org.vastshelf.core.gate.GateView;
import org.vastshelf.core.limit.Account;
import org.vastshelf.core.unit.Bytes;

/** Asks the gate about what moves, arrives or goes away, and carries it out. */
@Component
class Settling {

    private final RoadStore files;
    private final TreeStore trees;
    private final TreeCopyStore copies;
    private final TallyStore tallies;
    private final KeptStore kept;
    private final AccountStore accounts;
    private final VolumeRoomStore rooms;
    private final Crossings crossings;
    private final Notes notes;

    Settling(
            RoadStore files,
            TreeStore trees,
            TreeCopyStore copies,
            TallyStore tallies,
            KeptStore kept,
            AccountStore accounts,
            VolumeRoomStore rooms,
            Crossings crossings,
            Notes notes) {
        this.files = files;
        this.trees = trees;
        this.copies = copies;
        this.tallies = tallies;
        this.kept = kept;
        this.accounts = accounts;
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
        return settle(scene, operation, gains, 0, () -> {
            if (load.isFolder()) {
                trees.move(there.catalogue(), load.tree(), to, there.folder());
            } else {
                RoadStore.Found file = load.file().orElseThrow();
                FileRow before = file.row();
                FileRow after = before.named(
                        PathBytes.of(to.name()),
                        FileKind.of(to.name()),
                        scene.now().getEpochSecond());
                files.remove(load.place(), before);
                files.add(there, after, file.contents());
                tallies.tally(load.place(), Optional.of(before), Optional.empty());
                tallies.tally(there, Optional.empty(), Optional.of(after));
            }
            tallies.moved(load.place(), there, load.files(), load.bytes().value(), load.allocated());
        });
    }

    Outcome copied(Scene scene, FileOperation operation, Load load, RoadStore.Place there) {
        FilePath to = operation.path();
        load.requirePaths(to);
        Map<AccountStore.Key, Long> gains = Trees.gains(
                portion -> Stream.empty(),
                portion -> keys(scene, load.someFile(portion, to), scene.owner()),
                load.portions());
        return settle(scene, operation, gains, load.allocated(), () -> {
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
                                scene.now()));
                use(load, 1);
            } else {
                Contents contents = load.file().orElseThrow().contents();
                FileRow copy = copy(scene, to, load.file().orElseThrow().row());
                files.add(there, copy, contents);
                kept.hold(contents.kept());
                kept.used(contents.kept(), 1);
                tallies.tally(there, Optional.empty(), Optional.of(copy));
            }
            tallies.sums(there, load.files(), load.bytes().value(), load.allocated());
        });
    }

    private static FileRow copy(Scene scene, FilePath to, FileRow of) {
        long now = scene.now().getEpochSecond();
        return new FileRow(
                PathBytes.of(to.name()),
                of.bytes(),
                scene.volume().allocatedBytes(of.bytes()),
                scene.owner().uid(),
                scene.owner().group(),
                Math.min(of.modified(), now),
                now,
                now,
                FileKind.of(to.name()));
    }

    Outcome folderMade(Scene scene, FileOperation operation) {
        return settle(scene, operation, Map.of(), 0, () -> {
            FilePath inside = operation.path().child("x");
            files.made(operation.share(), inside, files.place(operation.share(), inside));
        });
    }

    Outcome removed(Scene scene, FileOperation operation, Load load) {
        Map<AccountStore.Key, Long> gains = Trees.gains(
                portion -> keys(scene, load.someFile(portion, operation.path()), portion.owner()),
                portion -> Stream.empty(),
                load.portions());
        return settle(scene, operation, gains, -load.allocated(), () -> {
            use(load, -1);
            trees.remove(load.place().catalogue(), load.tree());
            tallies.sums(load.place(), -load.files(), -load.bytes().value(), -load.allocated());
        });
    }

    /** Counts the references of a whole tree. */
    private void use(Load load, int sign) {
        Map<Long, Integer> uses = trees.kept(load.place().catalogue(), load.tree());
        if (sign > 0) {
            kept.hold(uses.keySet());
        }
        uses.forEach((number, times) -> kept.used(List.of(number), sign * times));
    }

    private static Stream<AccountStore.Key> keys(Scene scene, FilePath file, Owner owner) {
        return AccountKeys.at(scene.book(), scene.share().name(), file, owner);
    }

    private Outcome settle(
            Scene scene, FileOperation operation, Map<AccountStore.Key, Long> gains, long allocation, Runnable apply) {
        List<AccountStore.Key> keys = List.copyOf(gains.keySet());
        List<Account> touched = accounts.lock(keys);
        Map<Account, Long> growths = new LinkedHashMap<>();
        for (int i = 0; i < keys.size(); i++) {
            growths.put(touched.get(i), gains.get(keys.get(i)));
        }
        Bytes room = allocation > 0
                ? rooms.lock(scene.book(), scene.volume(), allocation)
                : rooms.read(scene.book(), scene.volume());
        GateView.Arriving arriving = new GateView.Arriving(growths, Bytes.of(Math.max(0, allocation)));
        GateView view = scene.view(GateView.Limits.of(touched), room, arriving);
        boolean allowed = Gate.refusedAt(operation, view, scene.now()).isEmpty();
        long receipt = notes.note(operation, view, scene.now(), allowed);
        GateView after = view;
        if (allowed) {
            apply.run();
            List<Account> grown = crossings.grow(operation, growths, scene.now());
            if (!rooms.take(scene.book(), scene.volume(), allocation)) {
                throw new IllegalStateException("the room that was locked is gone");
            }
            after = scene.view(
                    GateView.Limits.of(grown),
                    Bytes.of(Math.max(0, room.value() - allocation)),
                    GateView.Arriving.NOTHING);
        }
        return new Outcome(
                operation, view, scene.now(), allowed, Looking.space(after, operation), receipt, Optional.empty());
    }
}
