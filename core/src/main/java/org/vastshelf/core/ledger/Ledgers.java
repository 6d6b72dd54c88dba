package org.vastshelf.core.ledger;

import java.util.ArrayList;
import java.util.List;
import java.util.stream.Stream;
import org.vastshelf.core.estate.Drive;
import org.vastshelf.core.estate.DriveGroup;
import org.vastshelf.core.estate.DriveState;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.FileServer;
import org.vastshelf.core.estate.Kinds;
import org.vastshelf.core.estate.Pool;
import org.vastshelf.core.estate.Usage;
import org.vastshelf.core.estate.Volume;
import org.vastshelf.core.layout.LayoutAnswer;
import org.vastshelf.core.layout.LayoutAnswer.Possible;
import org.vastshelf.core.layout.LayoutComparison;
import org.vastshelf.core.layout.LayoutQuestion;
import org.vastshelf.core.ledger.ByteLedger.Line;
import org.vastshelf.core.unit.Bytes;
import org.vastshelf.core.unit.Counted;

/** Draws up byte ledgers. */
public final class Ledgers {

    /** Titles in the order in which they are read: from the label down to what is free. */
    static final List<String> ORDER = List.of(
            "unclaimed drives",
            "drive reserve",
            "alignment",
            "hot spares",
            "not taken yet",
            "stranded",
            "protection",
            "read cache",
            "leaving",
            "pool reserve",
            "live files",
            "snapshots",
            "common units",
            "promised, not used yet",
            "held for moves",
            "held for orders",
            "free");

    private static final String COMMON = "what files have in common, kept once, or packed";

    private Ledgers() {}

    /** What a group's drives are asked for: what counts of each, ascending by key order. */
    public static LayoutQuestion questionOf(Estate estate, Pool pool, DriveGroup group) {
        List<Drive> members = estate.drives(group.members());
        return new LayoutQuestion(
                members.stream().map(group::countedOf).toList(),
                0,
                pool.driveReserve(),
                pool.align(),
                members.getFirst().kind().rates().under(load(estate, pool)));
    }

    private static int load(Estate estate, Pool pool) {
        FileServer server = estate.servers().get(pool.server());
        return server == null ? 0 : server.loadPercent();
    }

    /** The layout that a group's members have, recomputed from what counts of them, with its odds. */
    public static Possible layoutOf(Estate estate, Pool pool, DriveGroup group) {
        LayoutAnswer answer = LayoutComparison.answer(group.layout(), questionOf(estate, pool, group));
        if (answer instanceof Possible possible) {
            return possible;
        }
        throw new IllegalStateException(
                "pool " + pool.name() + " has a group of " + group.members().size() + " drives, too few for "
                        + group.layout().title());
    }

    static LayoutComparison.Space spaceOf(Estate estate, Pool pool, DriveGroup group) {
        return LayoutComparison.space(group.layout(), questionOf(estate, pool, group));
    }

    /** Data bytes of all groups that add space, or what a managed service keeps. */
    public static Bytes data(Estate estate, Pool pool) {
        if (pool.isReservation()) {
            return pool.reserved();
        }
        return Bytes.sum(pool.groups().stream()
                .filter(g -> !g.isLeaving() && !(g.isFast() && pool.fastAsCache()))
                .map(g -> spaceOf(estate, pool, g).data())
                .toList());
    }

    /** Data bytes of the groups of one part. */
    public static Bytes data(Estate estate, Pool pool, DriveGroup.Part part) {
        return Bytes.sum(pool.groups().stream()
                .filter(g -> g.part() == part)
                .map(g -> spaceOf(estate, pool, g).data())
                .toList());
    }

    /** What volumes can be carved from: data bytes of the layouts less the pool's reserve. */
    public static Bytes usable(Estate estate, Pool pool) {
        return data(estate, pool).minusOrZero(pool.reserve());
    }

    public static ByteLedger ofPool(Estate estate, Usage usage, Pool pool) {
        List<Line> lines = new ArrayList<>();
        Bytes label = pool.isReservation() ? pool.reserved() : HardwareLines.add(lines, estate, pool);
        Bytes data = data(estate, pool);
        Bytes leaving = data(estate, pool, DriveGroup.Part.LEAVING);
        List<Volume> coming = estate.volumes().values().stream()
                .filter(v -> v.movingTo().filter(pool.name()::equals).isPresent())
                .toList();
        return withVolumes(
                lines,
                label,
                new Room(data, leaving, pool.reserve(), estate.heldOn(pool.name()), PoolRoom.reserve(estate, pool)),
                estate.volumesOn(pool.name()).toList(),
                coming,
                usage);
    }

    /** What a volume was promised and what became of it; what it uses beyond its size is part of the whole. */
    public static ByteLedger ofVolume(Estate estate, Usage usage, Volume volume) {
        Usage.Held held = usage.of(volume.name());
        List<Line> lines = new ArrayList<>();
        add(lines, ByteKind.LIVE, "live files", held.ownLive(), "allocated by its files");
        add(lines, ByteKind.SNAPSHOTS, "snapshots", held.ownSnapshots(), "held by snapshots alone");
        add(lines, ByteKind.LIVE, "common units", held.common().kept(), COMMON);
        // A clone shows its clients files that take no room, and can't show them more than its size.
        Bytes shown = held.live().minusOrZero(held.used());
        add(lines, ByteKind.LIVE, "shared files", shown, "of the snapshot it is a clone of; they take nothing here");
        Bytes left = volume.size().minusOrZero(held.used().plus(shown));
        Bytes spare = estate.find(Kinds.RESERVE, volume.name())
                .map(rule -> rule.bytes().minusOrZero(held.ownSnapshots()).minusOrZero(shown))
                .orElse(Bytes.ZERO)
                .min(left);
        add(lines, ByteKind.RESERVE, "kept for snapshots", spare, "reserved, and not held by any yet");
        lines.add(new Line(ByteKind.FREE, "free", left.minus(spare), "what is left of its size"));
        return new ByteLedger(
                volume.size().max(held.used()),
                lines,
                held.used().minusOrZero(volume.size()),
                held.common().saved());
    }

    /** What a volume takes from its pool: all of its size when thick, what it uses when thin. */
    public static Bytes taken(Usage usage, Volume volume) {
        Bytes used = usage.of(volume.name()).used();
        return volume.thin() ? used : volume.size().max(used);
    }

    /** What its pool can still give to a volume; while it moves, the lesser of both pools' free space. */
    public static Bytes freeFor(Estate estate, Usage usage, Volume volume) {
        return Stream.concat(Stream.of(volume.pool()), volume.movingTo().stream())
                .map(name -> ofPool(estate, usage, estate.pools().get(name)).free())
                .reduce(Bytes::min)
                .orElseThrow();
    }

    /**
     * What a pool's volumes have or were promised for certain: what they hold, what thick ones were promised, and room
     * for those that move to it or that orders will make.
     */
    public static Bytes spoken(Estate estate, Usage usage, Pool pool) {
        Bytes taken = Bytes.sum(estate.volumes().values().stream()
                .filter(v -> v.isOn(pool.name()))
                .map(v -> taken(usage, v))
                .toList());
        return taken.plus(estate.heldOn(pool.name()));
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
                List.of(new Line(
                        ByteKind.UNCLAIMED,
                        "unclaimed drives",
                        label,
                        Counted.of(drives.size(), "drive") + " in no pool")),
                Bytes.ZERO,
                Bytes.ZERO);
    }

    /** What a pool has for its volumes, and what it would like to keep back. */
    private record Room(Bytes data, Bytes leaving, Bytes reserve, Bytes ordered, Bytes forSnapshots) {}

    private static ByteLedger withVolumes(
            List<Line> lines, Bytes label, Room room, List<Volume> volumes, List<Volume> coming, Usage usage) {
        Bytes live = Bytes.sum(
                volumes.stream().map(v -> usage.of(v.name()).ownLive()).toList());
        Bytes snapshots = Bytes.sum(
                volumes.stream().map(v -> usage.of(v.name()).ownSnapshots()).toList());
        Bytes unusedThick = Bytes.sum(volumes.stream()
                .filter(v -> !v.thin())
                .map(v -> v.size().minusOrZero(usage.of(v.name()).used()))
                .toList());
        Bytes promised = Bytes.sum(volumes.stream().map(Volume::size).toList());
        List<Usage.Common> commons =
                volumes.stream().map(v -> usage.of(v.name()).common()).toList();
        Bytes common = Bytes.sum(commons.stream().map(Usage.Common::kept).toList());
        Bytes taken = live.plus(snapshots).plus(common).plus(unusedThick);
        // Where more was taken than reserve and leaving groups allow, they have what is left.
        Bytes kept = room.reserve.min(room.data.minusOrZero(taken));
        Bytes leaving =
                room.leaving.min(room.data.plus(room.leaving).minus(kept).minus(taken));
        add(lines, ByteKind.RESERVE, "leaving", leaving, "a group that is being taken out");
        add(lines, ByteKind.RESERVE, "pool reserve", kept, "kept back in the pool");
        add(
                lines,
                ByteKind.LIVE,
                "live files",
                live,
                "allocated by the files of " + (volumes.size() == 1 ? "one volume" : volumes.size() + " volumes"));
        add(lines, ByteKind.SNAPSHOTS, "snapshots", snapshots, "held by snapshots alone");
        add(lines, ByteKind.LIVE, "common units", common, COMMON);
        add(lines, ByteKind.PROMISED, "promised, not used yet", unusedThick, "thick volumes' sizes less what they use");
        Bytes left = room.data.plus(room.leaving).minus(leaving).minus(kept).minus(taken);
        Bytes held =
                Bytes.sum(coming.stream().map(v -> taken(usage, v)).toList()).min(left);
        add(lines, ByteKind.PROMISED, "held for moves", held, "room for volumes that are on their way");
        Bytes ordered = room.ordered.min(left.minus(held));
        add(lines, ByteKind.PROMISED, "held for orders", ordered, "room for orders that are on their way");
        List<Volume> all = Stream.concat(volumes.stream(), coming.stream()).toList();
        Bytes spare = PoolRoom.spare(usage, room.forSnapshots, all)
                .min(left.minus(held).minus(ordered));
        add(lines, ByteKind.RESERVE, "kept for snapshots", spare, "reserved, and not held by any yet");
        Bytes free = left.minus(held).minus(ordered).minus(spare);
        lines.add(new Line(ByteKind.FREE, "free", free, "what is left for volumes"));
        return new ByteLedger(
                label,
                lines,
                promised.minusOrZero(room.data.minusOrZero(room.reserve)),
                Bytes.sum(commons.stream().map(Usage.Common::saved).toList()));
    }

    static void add(List<Line> lines, ByteKind kind, String title, Bytes bytes, String how) {
        if (!bytes.isZero()) {
            lines.add(new Line(kind, title, bytes, how));
        }
    }

    static Bytes labels(List<Drive> drives) {
        return Bytes.sum(drives.stream().map(Drive::label).toList());
    }
}
