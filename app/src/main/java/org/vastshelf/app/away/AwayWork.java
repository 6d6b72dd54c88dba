package org.vastshelf.app.away;

import java.time.Instant;
import java.util.List;
import java.util.Optional;
import org.springframework.stereotype.Component;
import org.vastshelf.app.cold.Bucket;
import org.vastshelf.app.cold.Buckets;
import org.vastshelf.app.content.ContentsCode;
import org.vastshelf.app.orders.StepProgressStore;
import org.vastshelf.app.orders.StepProgressStore.Progress;
import org.vastshelf.app.orders.StepWork;
import org.vastshelf.app.road.ChangedMeanwhile;
import org.vastshelf.app.road.NotThere;
import org.vastshelf.app.road.Outcome;
import org.vastshelf.app.road.Taken;
import org.vastshelf.app.store.InstallationStore;
import org.vastshelf.app.store.Transactions;
import org.vastshelf.core.change.AwayStep;
import org.vastshelf.core.change.Step;
import org.vastshelf.core.unit.Bytes;
import org.vastshelf.core.unit.Counted;
import org.vastshelf.core.unit.UnitSystem;

/** Brings folders back that have left, and puts files in place as a bucket alone tells. */
@Component
class AwayWork implements StepWork {

    private static final int AT_ONCE = 20;

    private final AwayStore objects;
    private final StubStore stubs;
    private final Returning returning;
    private final Buckets buckets;
    private final StepProgressStore progress;
    private final InstallationStore installation;
    private final Transactions transactions;

    AwayWork(
            AwayStore objects,
            StubStore stubs,
            Returning returning,
            Buckets buckets,
            StepProgressStore progress,
            InstallationStore installation,
            Transactions transactions) {
        this.objects = objects;
        this.stubs = stubs;
        this.returning = returning;
        this.buckets = buckets;
        this.progress = progress;
        this.installation = installation;
        this.transactions = transactions;
    }

    @Override
    public boolean does(Step step) {
        return step instanceof AwayStep;
    }

    @Override
    public Optional<Instant> portion(Task task, Instant at) {
        Progress before = progress.of(task.order(), task.position());
        Optional<Progress> next = switch ((AwayStep) task.step()) {
            case AwayStep.RecallFiles recall -> recalled(task, recall, before);
            case AwayStep.RebuildStubs rebuild -> rebuilt(task, rebuild, before);
        };
        next.ifPresent(now -> progress.note(task.order(), task.position(), now));
        return next.map(goesOn -> at);
    }

    private Optional<Progress> recalled(Task task, AwayStep.RecallFiles step, Progress before) {
        List<StubStore.Stub> some = stubs.behind(step.share(), step.folder(), before.at(), AT_ONCE);
        Progress now = before;
        for (StubStore.Stub stub : some) {
            String refused;
            try {
                refused = reason(returning.recall(step.share(), stub.path(), task.who()));
            } catch (NotThere | ChangedMeanwhile | IllegalArgumentException gone) {
                refused = String.valueOf(gone.getMessage());
            }
            now = counted(now, stub.place(), stub.bytes(), refused);
        }
        return some.isEmpty() ? Optional.empty() : Optional.of(now);
    }

    private Optional<Progress> rebuilt(Task task, AwayStep.RebuildStubs step, Progress before) {
        Bucket bucket = buckets.of(step.store());
        List<Bucket.Told> some = bucket.page(Departing.FOLDER, before.at(), AT_ONCE);
        Progress now = before;
        for (Bucket.Told told : some) {
            Optional<AwayObject> object = transactions
                    .run(() -> known(bucket, told.key()))
                    .filter(one -> one.share().equals(step.share()));
            String refused = object.isEmpty() ? "" : placed(object.get(), step.onto(), task.who());
            now = object.isPresent()
                    ? counted(now, told.key(), object.get().bytes(), refused)
                    : new Progress(told.key(), now.files(), now.bytes(), now.refused(), now.reason());
        }
        return some.isEmpty() ? Optional.empty() : Optional.of(now);
    }

    /**
     * An object, which is noted where it was not known; empty for one that is not of this making. Until the transaction ends
     * nobody takes it for one of nothing.
     */
    private Optional<AwayObject> known(Bucket bucket, String key) {
        installation.alone();
        String store = bucket.store().name();
        Optional<AwayObject> before = objects.find(store, key);
        if (before.isPresent()) {
            return before.filter(object -> object.state() == AwayObject.State.HELD);
        }
        return bucket.metadata(key)
                .flatMap(told -> Labels.read(told, store, key, 0))
                .map(told -> {
                    AwayObject object = told.numbered(objects.number(told.bytes()));
                    objects.add(object, ContentsCode.ELSEWHERE);
                    return object;
                });
    }

    /** Of several versions of a file the one stays in place that left last. Says why it could not be put there. */
    private String placed(AwayObject object, String onto, String who) {
        Optional<AwayObject> there = stubs.objectAt(onto, object.path()).flatMap(objects::find);
        if (there.filter(other -> !other.left().isBefore(object.left())).isPresent()) {
            return "";
        }
        try {
            return reason(returning.place(object, onto, object.path(), there.isPresent(), who));
        } catch (Taken taken) {
            return String.valueOf(taken.getMessage());
        }
    }

    private static Progress counted(Progress before, String at, long bytes, String refused) {
        boolean done = refused.isEmpty();
        return new Progress(
                at,
                before.files() + (done ? 1 : 0),
                before.bytes() + (done ? bytes : 0),
                before.refused() + (done ? 0 : 1),
                before.reason().isEmpty() ? refused : before.reason());
    }

    private static String reason(Outcome outcome) {
        return outcome.allowed() ? "" : outcome.verdict(UnitSystem.BINARY).reason();
    }

    @Override
    public boolean undo(Task task) {
        return true;
    }

    @Override
    public String outcome(Task task) {
        Progress done = progress.of(task.order(), task.position());
        String refused =
                done.refused() == 0 ? "" : " " + Counted.of(done.refused(), "file") + " not: " + done.reason() + ".";
        return Counted.of(done.files(), "file") + " of " + UnitSystem.BINARY.format(Bytes.of(done.bytes())) + "."
                + refused;
    }
}
