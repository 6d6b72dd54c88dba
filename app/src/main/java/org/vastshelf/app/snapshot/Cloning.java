package org.vastshelf.app.snapshot;

import java.time.Instant;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import org.springframework.stereotype.Component;
import org.vastshelf.app.orders.StepProgressStore;
import org.vastshelf.app.orders.StepProgressStore.Progress;
import org.vastshelf.app.orders.StepWork;
import org.vastshelf.app.road.CloneFiles;
import org.vastshelf.app.snapshot.SnapshotStore.Need;
import org.vastshelf.app.snapshot.SnapshotStore.Taken;
import org.vastshelf.app.store.EstateStore;
import org.vastshelf.app.store.UsageStore;
import org.vastshelf.core.change.CloneStep;
import org.vastshelf.core.change.Step;
import org.vastshelf.core.estate.CloneOf;
import org.vastshelf.core.estate.FilePath;
import org.vastshelf.core.estate.Usage;
import org.vastshelf.core.estate.Volume;
import org.vastshelf.core.unit.Bytes;
import org.vastshelf.core.unit.Counted;
import org.vastshelf.core.unit.UnitSystem;

/**
 * Makes clones for orders. A clone begins with a snapshot of its own that holds all it shares: whatever becomes of a
 * shared block in the clone, it is live there or held there, so what is shared is one figure that does not change, and
 * what the clone takes is all it has less that.
 */
@Component
class Cloning implements StepWork {

    /** So many files that a transaction of them stays short. */
    private static final int PORTION = 5_000;

    static final int FIRST = 1;

    private final SnapshotStore store;
    private final PastStore past;
    private final CloneFiles files;
    private final StepProgressStore progress;
    private final EstateStore estates;
    private final UsageStore usage;

    Cloning(
            SnapshotStore store,
            PastStore past,
            CloneFiles files,
            StepProgressStore progress,
            EstateStore estates,
            UsageStore usage) {
        this.store = store;
        this.past = past;
        this.files = files;
        this.progress = progress;
        this.estates = estates;
        this.usage = usage;
    }

    /** Who needs snapshots that a clone shares blocks with. */
    static String holder(String clone) {
        return "clone " + clone;
    }

    @Override
    public boolean does(Step step) {
        return step instanceof CloneStep.ShareBlocks || step instanceof CloneStep.LayFiles;
    }

    @Override
    public Optional<Instant> portion(Task task, Instant at) {
        estates.held();
        if (task.step() instanceof CloneStep.ShareBlocks share) {
            begin(share.made(), at);
            return Optional.empty();
        }
        return lay(task, (CloneStep.LayFiles) task.step()) ? Optional.empty() : Optional.of(at);
    }

    /** The snapshot, or the name, may have been taken since the order began. */
    @Override
    public Optional<String> obstacle(Task task) {
        estates.held();
        return switch ((CloneStep) task.step()) {
            case CloneStep.ShareBlocks step ->
                store.of(step.made().source()).stream()
                                .anyMatch(taken -> taken.number() == step.made().snapshot())
                        ? Optional.empty()
                        : Optional.of("volume " + step.made().source() + " has no snapshot "
                                + step.made().snapshot() + " any more");
            case CloneStep.LayFiles step ->
                progress.of(task.order(), task.position()).at().isEmpty() && files.remembers(step.share())
                        ? Optional.of("a share '" + step.share() + "' had files before")
                        : unserved(step.made().source());
            case CloneStep.CompareClone step -> Optional.empty();
            case CloneStep.Separate step -> Optional.empty();
        };
    }

    private Optional<String> unserved(String volume) {
        return estates.load().sharesOn(volume).findAny().isPresent()
                ? Optional.empty()
                : Optional.of("no share serves volume " + volume + " any more");
    }

    private void begin(CloneOf made, Instant at) {
        String holder = holder(made.volume());
        store.need(new Need(
                made.source(),
                made.snapshot(),
                holder,
                "clone " + made.volume() + " shares its blocks",
                Optional.empty()));
        if (store.lock(made.volume()) == 0) {
            empty(made.volume());
            store.add(List.of(new Taken(made.volume(), FIRST, "as it was cloned", at, holder, false)));
            store.need(new Need(made.volume(), FIRST, holder, "the clone shares blocks with it", Optional.empty()));
        }
    }

    /** A volume of this name may have been there before. */
    private void empty(String volume) {
        usage.own(volume);
        usage.set(volume, new Usage.Held(Bytes.ZERO, Bytes.ZERO));
    }

    private boolean lay(Task task, CloneStep.LayFiles step) {
        String source = estates.load()
                .sharesOn(step.made().source())
                .findFirst()
                .orElseThrow()
                .name();
        Progress before = progress.of(task.order(), task.position());
        if (before.at().isEmpty()) {
            files.free(step.share());
        }
        // What was taken in has no blocks in the snapshot; in the clone it counts as what it would take, all of it
        // borrowed.
        Volume volume = estates.load().volumes().get(step.made().volume());
        Set<FilePath> folders = new HashSet<>();
        List<CloneFiles.Item> items = new ArrayList<>();
        Walk walk = new Walk(past, before.at(), (path, place) -> {
            folders.add(path);
            past.whole(place)
                    .forEach((name, was) -> items.add(new CloneFiles.Item(
                            path,
                            was.row()
                                    .taking(volume.allocatedBytes(was.contents().here())),
                            was.contents())));
            return items.size() < PORTION;
        });
        PastStore.Place top = past.folder(source, step.made().snapshot(), FilePath.ROOT)
                .orElseThrow(() -> new IllegalStateException("share " + source + " has no files"));
        boolean all = walk.from(top);
        files.lay(step.share(), step.made().volume(), folders, items);
        progress.note(
                task.order(),
                task.position(),
                new Progress(
                        walk.at(),
                        before.files() + items.size(),
                        before.bytes()
                                + items.stream().mapToLong(i -> i.row().bytes()).sum(),
                        0,
                        ""));
        return all;
    }

    @Override
    public boolean undo(Task task) {
        estates.held();
        CloneOf made = ((CloneStep) task.step()).made();
        store.forget(made.volume());
        if (task.step() instanceof CloneStep.LayFiles step) {
            files.free(step.share());
            empty(made.volume());
        } else {
            store.needless(made.source(), made.snapshot(), holder(made.volume()));
        }
        progress.forget(task.order(), task.position());
        return true;
    }

    @Override
    public String outcome(Task task) {
        if (!(task.step() instanceof CloneStep.LayFiles)) {
            return "";
        }
        Progress done = progress.of(task.order(), task.position());
        return Counted.of(done.files(), "file") + " of " + UnitSystem.BINARY.format(Bytes.of(done.bytes()))
                + ", none of them copied.";
    }
}
