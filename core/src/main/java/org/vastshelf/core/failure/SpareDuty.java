package org.vastshelf.core.failure;

import java.time.Instant;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import org.vastshelf.core.estate.Drive;
import org.vastshelf.core.estate.DriveGroup;
import org.vastshelf.core.estate.DriveState;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.Kinds;
import org.vastshelf.core.estate.Pool;
import org.vastshelf.core.estate.Rebuild;
import org.vastshelf.core.estate.Usage;
import org.vastshelf.core.ledger.Ledgers;
import org.vastshelf.core.unit.Bytes;

/** Hot spares that stand in for drives that are gone, and what is rebuilt onto them. */
public final class SpareDuty {

    private SpareDuty() {}

    /** Lets hot spares that came later take over for members that are still without one. */
    public static Mishaps.Outcome takeOverWaiting(Estate estate, Usage usage, Instant now) {
        Estate next = estate;
        List<String> told = new ArrayList<>();
        for (String name : estate.pools().keySet()) {
            Mishaps.Outcome taken = takeOverWaiting(next, usage, name, now);
            next = taken.estate();
            told.addAll(taken.told());
        }
        return new Mishaps.Outcome(next, told);
    }

    /** The same for one pool. */
    public static Mishaps.Outcome takeOverWaiting(Estate estate, Usage usage, String name, Instant now) {
        Estate next = estate;
        List<String> told = new ArrayList<>();
        for (int i = 0; i < next.pools().get(name).groups().size(); i++) {
            Pool pool = next.pools().get(name);
            DriveGroup group = pool.groups().get(i);
            if (group.lost() || pool.spares().isEmpty()) {
                continue;
            }
            for (String member : group.members()) {
                Drive drive = next.drives().get(member);
                if (drive.state() == DriveState.FAILED
                        && fittingSpare(next, pool, group.countedOf(drive), drive)
                                .isPresent()) {
                    next = takeOver(next, usage, pool, i, drive, told, now).estate();
                    break;
                }
            }
        }
        return new Mishaps.Outcome(next, told);
    }

    static Mishaps.Outcome takeOver(
            Estate estate, Usage usage, Pool pool, int index, Drive drive, List<String> told, Instant now) {
        DriveGroup group = pool.groups().get(index);
        Optional<Drive> spare = fittingSpare(estate, pool, group.countedOf(drive), drive);
        if (spare.isEmpty()) {
            told.add("No hot spare of " + pool.name() + " fits; the rebuild waits for somebody to bring a drive");
            return new Mishaps.Outcome(estate, told);
        }
        Drive next = spare.get();
        List<String> left =
                pool.spares().stream().filter(k -> !k.equals(next.key())).toList();
        Pool after = pool.withGroup(index, group.swapped(drive, next)).withSpares(left);
        Rebuild rebuild = rebuild(estate, usage, pool, drive, next, now);
        told.add("Hot spare " + next.key() + " takes over; its rebuild "
                + (estate.rebuildsOf(pool.name()).isEmpty() ? "begins" : "waits for its turn"));
        return new Mishaps.Outcome(
                estate.withDrives(List.of(next.in(DriveState.IN_USE)))
                        .withPool(after)
                        .with(Kinds.REBUILD, rebuild),
                told);
    }

    /** The smallest spare of the same kind that holds what counted of the drive. */
    private static Optional<Drive> fittingSpare(Estate estate, Pool pool, Bytes needed, Drive gone) {
        return estate.drives(pool.spares()).stream()
                .filter(d -> SpareFit.fits(d, needed, gone))
                .min(Comparator.comparing(Drive::label).thenComparing(Drive::key));
    }

    /** What has to be written: the share of the drive that its pool has in use. */
    public static Rebuild rebuild(Estate estate, Usage usage, Pool pool, Drive failed, Drive target, Instant now) {
        Bytes usable = Ledgers.usable(estate, pool);
        Bytes free = Ledgers.ofPool(estate, usage, pool).free();
        double allocated = usable.isZero() ? 0 : usable.minus(free).shareOf(usable);
        int index = Math.max(0, pool.groupOf(failed.key()));
        Bytes whole = pool.groups().get(index).countedOf(failed);
        Bytes todo = Bytes.of(Math.max(1, (long) Math.ceil(whole.value() * allocated)));
        long number = estate.rebuilds().values().stream()
                        .mapToLong(Rebuild::number)
                        .max()
                        .orElse(0)
                + 1;
        return new Rebuild(pool.name(), failed.key(), target.key(), todo, Bytes.ZERO, now, number);
    }
}
