package org.vastshelf.app.snapshot;

import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.springframework.stereotype.Component;
import org.vastshelf.app.agenda.DueWork;
import org.vastshelf.app.clock.ShelfClock;
import org.vastshelf.app.notify.NoticeStore;
import org.vastshelf.app.snapshot.SnapshotStore.Taken;
import org.vastshelf.app.store.EstateStore;
import org.vastshelf.core.agenda.DueKind;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.EstateAnswer;
import org.vastshelf.core.estate.Share;
import org.vastshelf.core.estate.Volume;
import org.vastshelf.core.snapshot.HeldBlocks;

/**
 * Whether what was counted of blocks as they died is what snapshots show, each midnight: a snapshot shows as many bytes
 * by its files as by the blocks that live and those that are held; and a volume holds as many as were counted.
 */
@Component
public class HoldCheck implements DueWork {

    private final HoldCheckStore figures;
    private final SnapshotStore snapshots;
    private final EstateStore estates;
    private final NoticeStore notices;
    private final ShelfClock clock;

    HoldCheck(
            HoldCheckStore figures,
            SnapshotStore snapshots,
            EstateStore estates,
            NoticeStore notices,
            ShelfClock clock) {
        this.figures = figures;
        this.snapshots = snapshots;
        this.estates = estates;
        this.notices = notices;
        this.clock = clock;
    }

    /**
     * Two counts that should be one.
     *
     * @param said by what was counted along the way
     * @param counted by the files
     */
    public record Drift(String what, long said, long counted) {
        String text() {
            return "%s was said to hold %,d bytes, files come to %,d".formatted(what, said, counted);
        }
    }

    @Override
    public DueKind kind() {
        return DueKind.HELD;
    }

    @Override
    public void act(String everything, Instant midnight) {
        look();
    }

    @Override
    public boolean isOfNow() {
        return true;
    }

    @Override
    public boolean isUnhurried() {
        return true;
    }

    /** Tells what does not agree. Nobody saves meanwhile. */
    public List<Drift> look() {
        List<Drift> drifts = new ArrayList<>();
        estates.change((estate, held) -> {
            drifts.clear();
            snapshots
                    .all()
                    .forEach((volume, taken) -> Optional.ofNullable(
                                    estate.volumes().get(volume))
                            .ifPresent(v -> drifts.addAll(look(estate, v, taken))));
            return new EstateAnswer.Changed(estate);
        });
        if (!drifts.isEmpty()) {
            notices.tellAdministrators(
                    clock.instant(),
                    "Snapshots do not hold what was counted",
                    String.join(". ", drifts.stream().map(Drift::text).toList()) + ".");
        }
        return drifts;
    }

    private List<Drift> look(Estate estate, Volume volume, List<Taken> taken) {
        List<String> shares = estate.sharesOn(volume.name()).map(Share::name).toList();
        List<HeldBlocks.Count> held = snapshots.held(volume.name());
        List<HeldBlocks.Count> past = figures.past(shares);
        HoldCheckStore.Live live = figures.live(shares, volume.blockSize());
        List<Drift> drifts = new ArrayList<>();
        for (Taken snapshot : taken) {
            long said = HeldBlocks.shown(snapshot.number(), live.byBlock(), held);
            long counted = HeldBlocks.shown(snapshot.number(), live.byEntry(), past);
            if (said != counted) {
                drifts.add(new Drift("snapshot '" + snapshot.name() + "' of " + volume.name(), said, counted));
            }
        }
        long all = held.stream().mapToLong(HeldBlocks.Count::bytes).sum();
        if (all != figures.said(volume.name())) {
            drifts.add(new Drift("volume " + volume.name(), figures.said(volume.name()), all));
        }
        return drifts;
    }
}
