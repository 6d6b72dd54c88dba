package org.vastshelf.app.replica;

import org.springframework.stereotype.Component;
import org.vastshelf.app.catalogue.FileRow;
import org.vastshelf.app.catalogue.PathBytes;
import org.vastshelf.app.content.ContentsCode;
import org.vastshelf.app.kit.NotFound;
import org.vastshelf.app.road.FileRoad;
import org.vastshelf.app.road.Outcome;
import org.vastshelf.app.road.Workstations;
import org.vastshelf.app.store.EstateStore;
import org.vastshelf.app.store.Transactions;
import org.vastshelf.core.catalogue.FileKind;
import org.vastshelf.core.estate.FilePath;
import org.vastshelf.core.estate.Share;
import org.vastshelf.core.gate.FileOperation;
import org.vastshelf.core.unit.Bytes;
import org.vastshelf.core.unit.UnitSystem;

/** Files that were left behind when a copy took over. */
@Component
class LeftFiles {

    private final ReplicaStore store;
    private final FileRoad road;
    private final EstateStore estates;
    private final Transactions transactions;

    LeftFiles(ReplicaStore store, FileRoad road, EstateStore estates, Transactions transactions) {
        this.store = store;
        this.road = road;
        this.estates = estates;
        this.transactions = transactions;
    }

    /**
     * Saves one beside what is there now, with its owner and its time of change.
     *
     * @return what there is to say
     * @throws IllegalArgumentException when the gate refuses it
     */
    String save(String who, String volume, long no) {
        return transactions.run(() -> {
            ReplicaStore.Whole whole = store.left(volume, no)
                    .orElseThrow(() -> new NotFound("file left behind of volume " + volume, String.valueOf(no)));
            ReplicaStore.Left left = whole.left();
            Share share = estates.load().shares().get(left.share());
            FilePath path = new FilePath(left.path());
            FilePath beside = path.parent().child(name(path.name()));
            FileRow row = new FileRow(
                    PathBytes.of(beside.name()),
                    left.bytes(),
                    0,
                    left.owner(),
                    whole.group(),
                    left.modified(),
                    left.modified(),
                    left.modified(),
                    FileKind.of(beside.name()));
            FileOperation operation = new FileOperation(
                    FileOperation.Kind.RESTORE,
                    who,
                    share.name(),
                    beside,
                    Bytes.of(left.bytes()),
                    Workstations.of(share, who));
            Outcome outcome = road.bringBack(operation, ContentsCode.read(whole.extents()), row, false);
            if (!outcome.allowed()) {
                throw new IllegalArgumentException(
                        outcome.verdict(UnitSystem.BINARY).reason());
            }
            return "'" + path + "' was saved as '" + beside + "'.";
        });
    }

    private static String name(String name) {
        int dot = name.lastIndexOf('.');
        return dot > 0 ? name.substring(0, dot) + " (left behind)" + name.substring(dot) : name + " (left behind)";
    }
}
