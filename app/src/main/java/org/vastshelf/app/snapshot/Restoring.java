package org.vastshelf.app.snapshot;

import java.time.Instant;
import java.util.Collection;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.SortedMap;
import java.util.concurrent.ConcurrentHashMap;
import java.util.stream.Collectors;
import org.springframework.stereotype.Component;
import org.vastshelf.app.orders.StepProgressStore;
import org.vastshelf.app.orders.StepProgressStore.Progress;
import org.vastshelf.app.orders.StepWork;
import org.vastshelf.app.road.EmptyFolders;
import org.vastshelf.app.road.FileRoad;
import org.vastshelf.app.road.NotThere;
import org.vastshelf.app.road.Outcome;
import org.vastshelf.app.road.Taken;
import org.vastshelf.app.road.Workstations;
import org.vastshelf.app.store.EstateStore;
import org.vastshelf.core.change.FileChange.BringBack;
import org.vastshelf.core.change.FileChange.Onto;
import org.vastshelf.core.change.FileStep;
import org.vastshelf.core.change.Step;
import org.vastshelf.core.estate.FilePath;
import org.vastshelf.core.estate.Share;
import org.vastshelf.core.gate.FileOperation;
import org.vastshelf.core.unit.Bytes;
import org.vastshelf.core.unit.Counted;
import org.vastshelf.core.unit.UnitSystem;

/**
 * Brings files back for an order, some hundred at a time, each through the gate. Wherever it is interrupted, it goes on:
 * what is there as it was is passed over. Undone, it makes what it was about as the snapshot of before has it.
 */
@Component
class Restoring implements StepWork {

    /** So many files that a transaction of them stays short. */
    private static final int PORTION = 200;

    private final Snapshots snapshots;
    private final SnapshotViews views;
    private final SnapshotHolds holds;
    private final SnapshotStore store;
    private final Laying laying;
    private final StepProgressStore progress;
    private final FileRoad road;
    private final EmptyFolders empties;
    private final EstateStore estates;
    /** Folders that are gone through, by order and step: a large share has too many to find them for each portion. */
    private final Map<String, SortedMap<String, Laying.Pair>> underWay = new ConcurrentHashMap<>();

    Restoring(
            Snapshots snapshots,
            SnapshotViews views,
            SnapshotHolds holds,
            SnapshotStore store,
            Laying laying,
            StepProgressStore progress,
            FileRoad road,
            EmptyFolders empties,
            EstateStore estates) {
        this.snapshots = snapshots;
        this.views = views;
        this.holds = holds;
        this.store = store;
        this.laying = laying;
        this.progress = progress;
        this.road = road;
        this.empties = empties;
        this.estates = estates;
    }

    @Override
    public boolean does(Step step) {
        return step instanceof FileStep;
    }

    @Override
    public Optional<Instant> portion(Task task, Instant at) {
        return done(task) ? Optional.empty() : Optional.of(at);
    }

    private boolean done(Task task) {
        return switch ((FileStep) task.step()) {
            case FileStep.KeepBefore keep -> keepBefore(task, keep);
            case FileStep.BringFilesBack back -> {
                boolean done = some(task, back.change());
                if (done) {
                    holds.letGo(back.volume(), holder(task));
                }
                yield done;
            }
        };
    }

    private boolean keepBefore(Task task, FileStep.KeepBefore keep) {
        views.of(keep.volume()).require(keep.before().snapshot());
        holds.hold(
                keep.volume(),
                keep.before().snapshot(),
                holder(task),
                "order " + task.order() + " brings files back from it");
        if (before(task, keep.volume()) == 0) {
            int number = snapshots.take(task.who(), keep.volume(), name(task));
            holds.hold(keep.volume(), number, holder(task), "order " + task.order() + " can be taken back by it");
        }
        return true;
    }

    private static String holder(Task task) {
        return "order " + task.order();
    }

    private static String name(Task task) {
        return "before order " + task.order();
    }

    /** Number of the snapshot of before; 0 where there is none. */
    private int before(Task task, String volume) {
        return store.of(volume).stream()
                .filter(taken -> taken.name().equals(name(task)))
                .mapToInt(SnapshotStore.Taken::number)
                .findFirst()
                .orElse(0);
    }

    /** Does what is to be done in the next folders. */
    private boolean some(Task task, BringBack change) {
        String key = key(task);
        SortedMap<String, Laying.Pair> folders = underWay.computeIfAbsent(key, none -> laying.folders(change));
        Progress before = progress.of(task.order(), task.position());
        Progress now = before;
        long least = before.files() + before.refused() + PORTION;
        for (Laying.Pair pair : folders.values()) {
            if (pair.to().text().compareTo(before.at()) <= 0 && !before.at().isEmpty()) {
                continue;
            }
            if (now.files() + now.refused() >= least) {
                progress.note(task.order(), task.position(), now);
                return false;
            }
            for (Laying.Deed deed : laying.deeds(change, pair)) {
                now = noted(now, deed, task, change);
            }
            now = new Progress(pair.to().text(), now.files(), now.bytes(), now.refused(), now.reason());
        }
        progress.note(task.order(), task.position(), folders(change, folders.values(), now));
        underWay.remove(key);
        return true;
    }

    /** Folders of then are there, empty ones too; where it is to be exactly as it was, those that hold nothing go. */
    private Progress folders(BringBack change, Collection<Laying.Pair> all, Progress progress) {
        Map<Boolean, List<FilePath>> byPast = all.stream()
                .collect(Collectors.partitioningBy(
                        pair -> pair.was().isPresent(), Collectors.mapping(Laying.Pair::to, Collectors.toList())));
        try {
            empties.settle(change.share(), byPast.get(true), byPast.get(false));
        } catch (Taken met) {
            return progress.reason().isEmpty()
                    ? new Progress(
                            progress.at(), progress.files(), progress.bytes(), progress.refused(), met.getMessage())
                    : progress;
        }
        return progress;
    }

    private static String key(Task task) {
        return task.order() + " " + task.position();
    }

    private Progress noted(Progress progress, Laying.Deed deed, Task task, BringBack change) {
        String refused;
        try {
            refused = switch (deed.kind()) {
                case SAME, LEAVE -> "";
                case BRING, REPLACE -> reason(bring(deed, task, change.share()));
                case CLEAR ->
                    reason(road.clear(operation(FileOperation.Kind.CLEAR, task, change.share(), deed.to(), 0)));
            };
        } catch (Taken | NotThere met) {
            refused = String.valueOf(met.getMessage());
        }
        boolean acted = deed.kind() != Laying.Kind.SAME && deed.kind() != Laying.Kind.LEAVE;
        long bytes = deed.was().map(was -> was.row().bytes()).orElse(0L);
        return new Progress(
                progress.at(),
                progress.files() + (acted && refused.isEmpty() ? 1 : 0),
                progress.bytes() + (acted && refused.isEmpty() ? bytes : 0),
                progress.refused() + (refused.isEmpty() ? 0 : 1),
                progress.reason().isEmpty() ? refused : progress.reason());
    }

    private static String reason(Outcome outcome) {
        return outcome.allowed() ? "" : outcome.verdict(UnitSystem.BINARY).reason();
    }

    private Outcome bring(Laying.Deed deed, Task task, String share) {
        PastStore.Was was = deed.was().orElseThrow();
        FileOperation operation = operation(
                FileOperation.Kind.RESTORE, task, share, deed.to(), was.row().bytes());
        return road.bringBack(operation, was.contents(), was.row(), deed.is().isPresent());
    }

    private FileOperation operation(FileOperation.Kind kind, Task task, String shareName, FilePath to, long bytes) {
        Share share = estates.load().shares().get(shareName);
        return new FileOperation(kind, task.who(), shareName, to, Bytes.of(bytes), Workstations.of(share, task.who()));
    }

    @Override
    public boolean undo(Task task) {
        if (!(task.step() instanceof FileStep.BringFilesBack back)) {
            return true;
        }
        underWay.remove(key(task));
        int number = before(task, back.volume());
        if (number == 0) {
            return true;
        }
        BringBack change = back.change();
        BringBack asBefore = new BringBack(
                change.share(), number, change.to(), change.names(), change.to(), Onto.EXACT, change.bytes());
        boolean done = some(new Task(task.order(), undone(task), task.step(), task.who()), asBefore);
        if (done) {
            holds.letGo(back.volume(), holder(task));
        }
        return done;
    }

    /** Positions of undoing lie beside those of doing. */
    private static int undone(Task task) {
        return -1 - task.position();
    }

    @Override
    public String outcome(Task task) {
        if (!(task.step() instanceof FileStep.BringFilesBack)) {
            return "";
        }
        Progress done = progress.of(task.order(), task.position());
        String refused =
                done.refused() == 0 ? "" : " " + Counted.of(done.refused(), "file") + " not: " + done.reason() + ".";
        return Counted.of(done.files(), "file") + " of " + UnitSystem.BINARY.format(Bytes.of(done.bytes()))
                + " brought back." + refused;
    }
}
