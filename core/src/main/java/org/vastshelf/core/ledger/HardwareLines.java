package org.vastshelf.core.ledger;

import java.util.List;
import java.util.Locale;
import org.vastshelf.core.estate.Drive;
import org.vastshelf.core.estate.DriveGroup;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.Pool;
import org.vastshelf.core.layout.LayoutComparison;
import org.vastshelf.core.ledger.ByteLedger.Line;
import org.vastshelf.core.unit.Bytes;
import org.vastshelf.core.unit.Counted;

/** The lines of a pool's ledger that its hardware accounts for, from the labels down to what is usable. */
final class HardwareLines {

    private HardwareLines() {}

    /** Running sums over the groups of a pool. */
    private static final class Sums {
        private Bytes untaken = Bytes.ZERO;
        private Bytes alignment = Bytes.ZERO;
        private Bytes stranded = Bytes.ZERO;
        private Bytes protection = Bytes.ZERO;
        private Bytes cache = Bytes.ZERO;
    }

    static Bytes add(List<Line> lines, Estate estate, Pool pool) {
        Sums sums = new Sums();
        for (DriveGroup group : pool.groups()) {
            sum(sums, estate, pool, group);
        }
        List<String> members = pool.members();
        Bytes spares = Ledgers.labels(estate.drives(pool.spares()));
        Ledgers.add(
                lines,
                ByteKind.RESERVE,
                "drive reserve",
                pool.driveReserve().times(members.size()),
                String.format(
                        Locale.ROOT,
                        "%d × %,d",
                        members.size(),
                        pool.driveReserve().value()));
        Ledgers.add(
                lines,
                ByteKind.RESERVE,
                "alignment",
                sums.alignment,
                String.format(
                        Locale.ROOT,
                        "each drive down to a multiple of %,d bytes",
                        pool.align().value()));
        Ledgers.add(
                lines,
                ByteKind.SPARE,
                "hot spares",
                spares,
                pool.spares().size() == 1
                        ? "one drive waits for a failure"
                        : pool.spares().size() + " drives wait for a failure");
        Ledgers.add(
                lines,
                ByteKind.STRANDED,
                "not taken yet",
                sums.untaken,
                "larger drives' space that the pool was not given");
        Ledgers.add(lines, ByteKind.STRANDED, "stranded", sums.stranded, "no use for " + pool.layoutTitle());
        Ledgers.add(
                lines,
                ByteKind.PROTECTION,
                "protection",
                sums.protection,
                pool.layoutTitle() + " over " + Counted.of(members.size(), "drive"));
        Ledgers.add(lines, ByteKind.RESERVE, "read cache", sums.cache, "copies of busy data on the fast part");
        return Ledgers.labels(estate.drives(members)).plus(spares);
    }

    private static void sum(Sums sums, Estate estate, Pool pool, DriveGroup group) {
        List<Drive> drives = estate.drives(group.members());
        LayoutComparison.Space space = Ledgers.spaceOf(estate, pool, group);
        Bytes labels = Ledgers.labels(drives);
        Bytes counted = Bytes.sum(drives.stream().map(group::countedOf).toList());
        Bytes reserve = pool.driveReserve().times(drives.size());
        Bytes usable = space.data().plus(space.protection()).plus(space.stranded());
        sums.untaken = sums.untaken.plus(labels.minus(counted));
        sums.alignment = sums.alignment.plus(counted.minus(reserve).minus(usable));
        sums.stranded = sums.stranded.plus(space.stranded());
        sums.protection = sums.protection.plus(space.protection());
        if (group.isFast() && pool.fastAsCache()) {
            sums.cache = sums.cache.plus(space.data());
        }
    }
}
