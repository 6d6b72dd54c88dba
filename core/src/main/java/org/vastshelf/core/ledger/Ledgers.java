package org.vastshelf.core.ledger;

import java.util.ArrayList;
import java.util.List;
import org.vastshelf.core.estate.Drive;
import org.vastshelf.core.estate.DriveState;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.Pool;
import org.vastshelf.core.estate.Usage;
import org.vastshelf.core.estate.Volume;
import org.vastshelf.core.layout.LayoutAnswer;
import org.vastshelf.core.layout.LayoutAnswer.Possible;
import org.vastshelf.core.layout.LayoutComparison;
import org.vastshelf.core.layout.LayoutQuestion;
import org.vastshelf.core.ledger.ByteLedger.Line;
import org.vastshelf.core.unit.Bytes;

/** Draws up byte ledgers. */
public final class Ledgers {

    /** Titles in the order in which they are read: from the label down to what is free. */
    static final List<String> ORDER = List.of(
            "unclaimed drives",
            "drive reserve",
            "alignment",
            "hot spares",
            "stranded",
            "protection",
            "pool reserve",
            "live files",
            "snapshots",
            "promised, not used yet",
            "free");

    private Ledgers() {}

    /** The layout that a pool's members have, recomputed from their labels. */
    public static Possible layoutOf(Estate estate, Pool pool) {
        List<Drive> members = estate.drives(pool.members());
        LayoutQuestion question = new LayoutQuestion(
                members.stream().map(Drive::label).toList(),
                0,
                pool.driveReserve(),
                pool.align(),
                members.getFirst().kind().rates());
        LayoutAnswer answer = LayoutComparison.answer(pool.layout(), question);
        if (answer instanceof Possible possible) {
            return possible;
        }
        throw new IllegalStateException("pool " + pool.name() + " has " + members.size() + " drives, too few for "
                + pool.layout().title());
    }

    /** What volumes can be carved from: data bytes of the layout less the pool's reserve. */
    public static Bytes usable(Estate estate, Pool pool) {
        Bytes data =
                pool.isReservation() ? pool.reserved() : layoutOf(estate, pool).data();
        return data.minusOrZero(pool.reserve());
    }

    public static ByteLedger ofPool(Estate estate, Usage usage, Pool pool) {
        List<Line> lines = new ArrayList<>();
        Bytes label = pool.isReservation() ? pool.reserved() : addHardware(lines, estate, pool);
        Bytes usable = usable(estate, pool);
        Bytes data =
                pool.isReservation() ? pool.reserved() : layoutOf(estate, pool).data();
        add(lines, ByteKind.RESERVE, "pool reserve", data.minus(usable), "kept back in the pool");
        return withVolumes(lines, label, usable, estate.volumesOn(pool.name()).toList(), usage);
    }

    /** All pools of one file server and the drives that are in none. */
    public static ByteLedger ofServer(Estate estate, Usage usage, String server) {
        ByteLedger unclaimed = unclaimed(estate.drivesOf(server)
                .filter(d ->
                        d.state() == DriveState.UNCLAIMED || estate.poolOf(d).isEmpty())
                .toList());
        return estate.pools().values().stream()
                .filter(p -> p.server().equals(server))
                .map(p -> ofPool(estate, usage, p))
                .reduce(unclaimed, ByteLedger::plus);
    }

    public static ByteLedger ofEstate(Estate estate, Usage usage) {
        return estate.servers().keySet().stream()
                .map(s -> ofServer(estate, usage, s))
                .reduce(ByteLedger.EMPTY, ByteLedger::plus);
    }

    private static ByteLedger unclaimed(List<Drive> drives) {
        Bytes label = labels(drives);
        return new ByteLedger(
                label,
                List.of(new Line(ByteKind.UNCLAIMED, "unclaimed drives", label, drives.size() + " drives in no pool")),
                Bytes.ZERO);
    }

    private static Bytes addHardware(List<Line> lines, Estate estate, Pool pool) {
        List<Drive> members = estate.drives(pool.members());
        Possible layout = layoutOf(estate, pool);
        Bytes labels = labels(members);
        Bytes reserve = pool.driveReserve().times(members.size());
        Bytes usable = layout.data().plus(layout.protection()).plus(layout.stranded());
        Bytes spares = labels(estate.drives(pool.spares()));
        add(
                lines,
                ByteKind.RESERVE,
                "drive reserve",
                reserve,
                members.size() + " × " + pool.driveReserve().value());
        add(
                lines,
                ByteKind.RESERVE,
                "alignment",
                labels.minus(reserve).minus(usable),
                "each drive rounded down to a multiple of " + pool.align().value() + " bytes");
        add(lines, ByteKind.SPARE, "hot spares", spares, pool.spares().size() + " drives wait for a failure");
        add(
                lines,
                ByteKind.STRANDED,
                "stranded",
                layout.stranded(),
                "no use for " + pool.layout().title());
        add(
                lines,
                ByteKind.PROTECTION,
                "protection",
                layout.protection(),
                pool.layout().title() + " over " + members.size() + " drives");
        return labels.plus(spares);
    }

    private static ByteLedger withVolumes(
            List<Line> lines, Bytes label, Bytes usable, List<Volume> volumes, Usage usage) {
        Bytes live =
                Bytes.sum(volumes.stream().map(v -> usage.of(v.name()).live()).toList());
        Bytes snapshots = Bytes.sum(
                volumes.stream().map(v -> usage.of(v.name()).snapshots()).toList());
        Bytes unusedThick = Bytes.sum(volumes.stream()
                .filter(v -> !v.thin())
                .map(v -> v.size().minusOrZero(usage.of(v.name()).used()))
                .toList());
        Bytes promised = Bytes.sum(volumes.stream().map(Volume::size).toList());
        add(lines, ByteKind.LIVE, "live files", live, "allocated by the files of " + volumes.size() + " volumes");
        add(lines, ByteKind.SNAPSHOTS, "snapshots", snapshots, "held by snapshots alone");
        add(lines, ByteKind.PROMISED, "promised, not used yet", unusedThick, "thick volumes' sizes less what they use");
        Bytes free = usable.minus(live).minus(snapshots).minus(unusedThick);
        lines.add(new Line(ByteKind.FREE, "free", free, "what is left for volumes"));
        return new ByteLedger(label, lines, promised.minusOrZero(usable));
    }

    private static void add(List<Line> lines, ByteKind kind, String title, Bytes bytes, String how) {
        if (!bytes.isZero()) {
            lines.add(new Line(kind, title, bytes, how));
        }
    }

    private static Bytes labels(List<Drive> drives) {
        return Bytes.sum(drives.stream().map(Drive::label).toList());
    }
}
