package org.vastshelf.app.common;

import java.time.Duration;
import java.util.List;
import java.util.Optional;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Component;
import org.vastshelf.app.store.EstateStore;
import org.vastshelf.app.store.LeaseStore;
import org.vastshelf.app.store.Transactions;
import org.vastshelf.core.estate.Volume;

/** Counts what was noted of versions that went, or that are there twice: a moment after, on one node at a time. */
@Component
public class CommonSweep {

    private static final String WORK = "common units";
    private static final Duration LONGEST = Duration.ofMinutes(1);
    private static final int AT_ONCE = 500;

    private final CommonChangeStore changes;
    private final CommonShiftStore shifts;
    private final CommonUnits units;
    private final CommonStore store;
    private final EstateStore estates;
    private final LeaseStore leases;
    private final Transactions transactions;

    CommonSweep(
            CommonChangeStore changes,
            CommonShiftStore shifts,
            CommonUnits units,
            CommonStore store,
            EstateStore estates,
            LeaseStore leases,
            Transactions transactions) {
        this.changes = changes;
        this.shifts = shifts;
        this.units = units;
        this.store = store;
        this.estates = estates;
        this.leases = leases;
        this.transactions = transactions;
    }

    @Scheduled(fixedDelay = 1_000)
    void keepUp() {
        if (!changes.volumes().isEmpty() && leases.take(WORK, LONGEST)) {
            try {
                sweep();
            } finally {
                leases.giveBack(WORK);
            }
        }
    }

    /** Counts all that is noted by now. */
    public void sweep() {
        changes.volumes().forEach(this::sweep);
    }

    /** Counts what is noted of one volume by now. */
    public void sweep(String volume) {
        boolean more = true;
        while (more) {
            more = transactions.run(() -> some(volume));
        }
    }

    private boolean some(String name) {
        Optional<Volume> volume =
                Optional.ofNullable(estates.held().estate().volumes().get(name));
        if (volume.isEmpty()) {
            changes.forget(name);
            return false;
        }
        if (!changes.has(name)) {
            return false;
        }
        shifts.note(name);
        store.lock(name);
        List<CommonChangeStore.Note> notes = changes.some(name, AT_ONCE);
        if (!notes.isEmpty()) {
            units.count(
                    name,
                    notes.stream()
                            .map(note -> new CommonUnits.Use(
                                    note.manner(),
                                    note.contents(),
                                    note.more(),
                                    volume.get().allocatedBytes(note.contents().length())))
                            .toList());
            changes.done(notes.stream().map(CommonChangeStore.Note::id).toList());
        }
        return notes.size() == AT_ONCE;
    }
}
