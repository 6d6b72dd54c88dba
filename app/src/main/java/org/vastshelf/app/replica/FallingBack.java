package org.vastshelf.app.replica;

import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.springframework.stereotype.Component;
import org.vastshelf.app.catalogue.FileRow;
import org.vastshelf.app.content.ContentsCode;
import org.vastshelf.app.content.KeptStore;
import org.vastshelf.app.orders.StepWork;
import org.vastshelf.app.road.FileRoad;
import org.vastshelf.app.road.Outcome;
import org.vastshelf.app.road.Workstations;
import org.vastshelf.app.snapshot.Comparing;
import org.vastshelf.app.snapshot.PastFiles;
import org.vastshelf.app.snapshot.SnapshotViews;
import org.vastshelf.app.snapshot.Snapshots;
import org.vastshelf.app.store.EstateStore;
import org.vastshelf.core.content.Contents;
import org.vastshelf.core.estate.FilePath;
import org.vastshelf.core.estate.Share;
import org.vastshelf.core.gate.FileOperation;
import org.vastshelf.core.snapshot.Differences.Kind;
import org.vastshelf.core.unit.Bytes;
import org.vastshelf.core.unit.UnitSystem;

/** Makes a share what its copy has, and keeps a note of each file that the copy does not have, or has otherwise. */
@Component
class FallingBack {

    private final Comparing comparing;
    private final PastFiles past;
    private final FileRoad road;
    private final Snapshots snapshots;
    private final SnapshotViews views;
    private final ReplicaStore store;
    private final KeptStore kept;
    private final EstateStore estates;

    FallingBack(
            Comparing comparing,
            PastFiles past,
            FileRoad road,
            Snapshots snapshots,
            SnapshotViews views,
            ReplicaStore store,
            KeptStore kept,
            EstateStore estates) {
        this.comparing = comparing;
        this.past = past;
        this.road = road;
        this.snapshots = snapshots;
        this.views = views;
        this.store = store;
        this.kept = kept;
        this.estates = estates;
    }

    /**
     * A file that the copy does not have as it is.
     *
     * @param now where it is, and was what it is; empty where it is no more
     * @param then where the copy has it; empty where it has none
     */
    record Gone(
            Share share,
            Kind kind,
            Optional<FilePath> now,
            Optional<PastFiles.File> is,
            Optional<FilePath> then,
            Optional<PastFiles.File> was) {}

    /** What a copy lacks that has a state of a volume whole. */
    List<Gone> look(String volume, int base, Instant at) {
        List<Gone> gone = new ArrayList<>();
        estates.load()
                .sharesOn(volume)
                .forEach(share -> comparing
                        .compare(new Comparing.Question(share.name(), base, Comparing.NOW, FilePath.ROOT))
                        .lines()
                        .forEach(line -> {
                            Optional<FilePath> now = path(line.after());
                            Optional<FilePath> then = path(line.before());
                            gone.add(new Gone(
                                    share,
                                    line.kind(),
                                    now,
                                    now.flatMap(path -> past.now(share.name(), path)),
                                    then,
                                    then.flatMap(path -> past.at(share.name(), base, path))));
                        }));
        return gone;
    }

    private static Optional<FilePath> path(String text) {
        return text.isEmpty() ? Optional.empty() : Optional.of(new FilePath(text));
    }

    /** Notes all of it, and makes the share what the copy has. */
    Replica carryOut(Replica replica, List<Gone> gone, String who, Instant at) {
        gone.forEach(one -> leave(replica.volume(), one, at));
        gone.forEach(one -> {
            boolean moved = !one.now.equals(one.then);
            if (one.now.isPresent() && (one.was.isEmpty() || moved)) {
                perform(one.share, who, one.now.get(), Optional.empty(), Contents.EMPTY);
            }
        });
        gone.forEach(one -> one.was.ifPresent(
                was -> perform(one.share, who, one.then.orElseThrow(), Optional.of(was.row()), was.contents())));
        if (replica.isSending()) {
            snapshots.letGo(replica.volume(), replica.coming(), Replication.HOLDER);
        }
        // What was taken since lies where nobody gets at it.
        List<Integer> since = views.after(replica.volume(), replica.base());
        if (!since.isEmpty()) {
            snapshots.discard(replica.volume(), since);
        }
        return replica.based(replica.base(), replica.baseAt().orElse(at));
    }

    private void leave(String volume, Gone gone, Instant at) {
        Optional<PastFiles.File> file = gone.is.or(() -> gone.was);
        file.ifPresent(found -> {
            FileRow row = found.row();
            kept.hold(found.contents().kept());
            kept.used(found.contents().kept(), 1);
            store.leave(
                    volume,
                    new ReplicaStore.Left(
                            0,
                            at,
                            gone.share.name(),
                            gone.now.or(() -> gone.then).orElseThrow().text(),
                            gone.kind.name(),
                            row.bytes(),
                            row.owner(),
                            row.modified()),
                    row.group(),
                    ContentsCode.write(found.contents()));
        });
    }

    private void perform(Share share, String who, FilePath path, Optional<FileRow> was, Contents contents) {
        FileOperation operation = new FileOperation(
                FileOperation.Kind.FALL_BACK,
                who,
                share.name(),
                path,
                Bytes.of(was.map(FileRow::bytes).orElse(0L)),
                Workstations.of(share, who));
        Outcome outcome = road.fallBack(operation, was, contents);
        if (!outcome.allowed()) {
            throw new StepWork.Impossible(
                    "'" + path + "' on share " + share.name() + " can't become what the copy has: "
                            + outcome.verdict(UnitSystem.BINARY).reason());
        }
    }
}
