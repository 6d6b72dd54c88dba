package org.vastshelf.app.replica;

import java.time.Duration;
import java.time.Instant;
import java.util.Optional;
import org.springframework.stereotype.Component;
import org.vastshelf.app.notify.NoticeStore;
import org.vastshelf.app.orders.StepWork;
import org.vastshelf.app.replica.RehearsalStore.Rehearsal;
import org.vastshelf.app.road.CloneFiles;
import org.vastshelf.app.snapshot.CloneComparison;
import org.vastshelf.app.snapshot.SnapshotViews;
import org.vastshelf.app.store.EstateStore;
import org.vastshelf.core.change.CloneStep;
import org.vastshelf.core.change.Step;
import org.vastshelf.core.estate.CloneOf;
import org.vastshelf.core.protect.Recovery;
import org.vastshelf.core.unit.Counted;

/** Compares, for orders that rehearse a failover, what would be served with what it should be, and writes it down. */
@Component
class Rehearsing implements StepWork {

    private final RehearsalStore store;
    private final CloneComparison comparison;
    private final CloneFiles files;
    private final SnapshotViews views;
    private final EstateStore estates;
    private final NoticeStore notices;

    Rehearsing(
            RehearsalStore store,
            CloneComparison comparison,
            CloneFiles files,
            SnapshotViews views,
            EstateStore estates,
            NoticeStore notices) {
        this.store = store;
        this.comparison = comparison;
        this.files = files;
        this.views = views;
        this.estates = estates;
        this.notices = notices;
    }

    @Override
    public boolean does(Step step) {
        return step instanceof CloneStep.CompareClone;
    }

    @Override
    public Optional<String> obstacle(Task task) {
        String source = ((CloneStep.CompareClone) task.step()).made().source();
        return estates.held().estate().sharesOn(source).findAny().isPresent()
                ? Optional.empty()
                : Optional.of("no share serves volume " + source + " any more");
    }

    @Override
    public Optional<Instant> portion(Task task, Instant at) {
        CloneStep.CompareClone step = (CloneStep.CompareClone) task.step();
        String source = estates.held()
                .estate()
                .sharesOn(step.made().source())
                .findFirst()
                .orElseThrow()
                .name();
        Rehearsal before = store.of(task.order()).orElseGet(() -> begun(task.order(), step.made(), at));
        CloneComparison.Part part = comparison.some(source, step.made().snapshot(), step.share(), before.left());
        Rehearsal now = new Rehearsal(
                before.order(),
                before.volume(),
                before.at(),
                before.stateAt(),
                before.seconds(),
                before.files() + part.files(),
                before.bytes() + part.bytes(),
                before.readFiles() + part.readFiles(),
                before.readBytes() + part.readBytes(),
                before.differing() + part.differing(),
                before.named().isEmpty() ? part.named() : before.named(),
                part.at(),
                part.all());
        store.save(now);
        if (!part.all()) {
            return Optional.of(at);
        }
        files.discard(step.share());
        if (!now.isGood()) {
            notices.tellAdministrators(
                    at,
                    "The copy of volume " + now.volume() + " would not serve all that it should",
                    Counted.of(now.differing(), "file") + " differ, '" + now.named() + "' among them. Order "
                            + task.order() + ".");
        }
        return Optional.empty();
    }

    /** It would have been served so long after the order began to make the clone, with names and addresses moved. */
    private Rehearsal begun(long order, CloneOf made, Instant at) {
        Instant begun = views.brief(made.volume()).getFirst().at();
        Instant state = views.brief(made.source()).stream()
                .filter(s -> s.number() == made.snapshot())
                .findFirst()
                .orElseThrow()
                .at();
        return new Rehearsal(
                order,
                made.source(),
                at,
                state,
                Duration.between(begun, at).plus(Recovery.TAKE_OVER).toSeconds(),
                0,
                0,
                0,
                0,
                0,
                "",
                "",
                false);
    }

    @Override
    public boolean undo(Task task) {
        store.forget(task.order());
        return true;
    }

    @Override
    public String outcome(Task task) {
        return store.of(task.order()).map(Rehearsing::said).orElse("");
    }

    static String said(Rehearsal rehearsal) {
        return Counted.of(rehearsal.files(), "file") + " compared, " + rehearsal.readFiles()
                + " of them read whole on both sides; "
                + (rehearsal.differing() == 0
                        ? "all the same."
                        : rehearsal.differing() + " differ, '" + rehearsal.named() + "' among them.");
    }
}
