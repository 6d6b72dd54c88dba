package org.vastshelf.core.failure;

import java.time.Instant;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Stream;
import org.vastshelf.core.estate.Drive;
import org.vastshelf.core.estate.DriveGroup;
import org.vastshelf.core.estate.DriveHealth;
import org.vastshelf.core.estate.DriveState;
import org.vastshelf.core.estate.Enclosure;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.FileServer;
import org.vastshelf.core.estate.Kinds;
import org.vastshelf.core.estate.Link;
import org.vastshelf.core.estate.Pool;
import org.vastshelf.core.estate.Rebuild;
import org.vastshelf.core.estate.Usage;
import org.vastshelf.core.layout.LayoutQuestion;
import org.vastshelf.core.unit.Bytes;
import org.vastshelf.core.unit.Counted;
import org.vastshelf.core.unit.UnitSystem;

/** What mishaps do to an estate: what is degraded, what takes over, what is lost. */
public final class Mishaps {

    private static final int MOST_BLOCKS = 1_000;
    private static final Bytes SMALLEST_DRIVE = Bytes.of(100_000_000_000L);

    private Mishaps() {}

    /** The estate after a mishap, and what there is to tell of it, in order. */
    public record Outcome(Estate estate, List<String> told) {}

    /**
     * Applies a mishap.
     *
     * @throws IllegalArgumentException when it cannot happen, such as to a drive that is not there
     */
    public static Outcome apply(Estate estate, Usage usage, Mishap mishap, Instant now) {
        return switch (mishap) {
            case Mishap.DriveFails fails ->
                gone(estate, usage, drive(estate, fails.drive()).at(now), false, now);
            case Mishap.DrivePulled pulled -> gone(estate, usage, drive(estate, pulled.drive()), true, now);
            case Mishap.DriveAils ails -> ail(estate, drive(estate, ails.drive()), now);
            case Mishap.BlocksDamaged damaged ->
                damage(estate, usage, drive(estate, damaged.drive()), damaged.blocks());
            case Mishap.DriveBrought brought -> bring(estate, usage, brought, now);
            case Mishap.PowerCut cut -> power(estate, server(estate, cut.server()), true);
            case Mishap.PowerBack back -> power(estate, server(estate, back.server()), false);
            case Mishap.LinkChanges link ->
                new Outcome(estate.with(Kinds.LINK, link(estate, link)), List.of(link.title()));
            case Mishap.ClientLoad load ->
                new Outcome(
                        estate.with(Kinds.SERVER, server(estate, load.server()).withLoad(load.percent())),
                        List.of(load.title()));
        };
    }

    private static Drive drive(Estate estate, String key) {
        return Optional.ofNullable(estate.drives().get(key))
                .orElseThrow(() -> new IllegalArgumentException("There is no drive '" + key + "'"));
    }

    private static Link link(Estate estate, Mishap.LinkChanges change) {
        return estate.find(Kinds.LINK, Link.key(change.one(), change.other()))
                .orElseThrow(() -> new IllegalArgumentException(
                        "There is no link between '" + change.one() + "' and '" + change.other() + "'"))
                .with(change.mibps(), change.roundTripMillis(), change.lossPermille(), change.cut());
    }

    private static FileServer server(Estate estate, String name) {
        return Optional.ofNullable(estate.servers().get(name))
                .filter(s -> !s.managed())
                .orElseThrow(
                        () -> new IllegalArgumentException("There is no file server '" + name + "' with hardware"));
    }

    private static Outcome damage(Estate estate, Usage usage, Drive drive, int blocks) {
        if (blocks < 1 || blocks > MOST_BLOCKS) {
            throw new IllegalArgumentException("blocks is " + blocks + ", must be 1 to " + MOST_BLOCKS);
        }
        Optional<Pool> pool = estate.poolOf(drive);
        List<Long> drawn = pool.isEmpty() ? List.of() : new PoolBlocks(estate, usage, pool.get()).drawn(drive, blocks);
        if (drawn.isEmpty()) {
            throw new IllegalArgumentException("Drive " + drive.key() + " holds nothing that could be damaged");
        }
        List<Long> all =
                Stream.concat(drive.damaged().stream(), drawn.stream()).sorted().toList();
        return new Outcome(
                estate.withDrives(List.of(drive.withDamaged(all))),
                List.of(Counted.of(drawn.size(), "block") + " of drive " + drive.key()
                        + " went bad; a scrub would find them"));
    }

    private static Outcome bring(Estate estate, Usage usage, Mishap.DriveBrought brought, Instant now) {
        String[] parts = brought.bay().split("/");
        Enclosure enclosure = parts.length == 3 ? estate.enclosures().get(parts[0] + "/" + parts[1]) : null;
        int bay = parts.length == 3 && parts[2].matches("\\d{1,4}") ? Integer.parseInt(parts[2]) : 0;
        if (enclosure == null || bay < 1 || bay > enclosure.bays()) {
            throw new IllegalArgumentException("There is no bay '" + brought.bay() + "'");
        }
        if (brought.size().isMoreThan(LayoutQuestion.LARGEST_DRIVE)
                || brought.size().compareTo(SMALLEST_DRIVE) < 0) {
            throw new IllegalArgumentException("drive is " + brought.size().value() + " bytes, must be "
                    + SMALLEST_DRIVE.value() + " to " + LayoutQuestion.LARGEST_DRIVE.value());
        }
        Drive there = estate.drives().get(brought.bay());
        if (there != null && there.state() != DriveState.FAILED) {
            throw new IllegalArgumentException("Bay " + brought.bay() + " holds a drive that is "
                    + there.state().title());
        }
        Drive empty = Drive.fresh(enclosure.server(), enclosure.number(), bay, brought.size(), brought.kind());
        Drive fresh = empty.withHealth(empty.health().counted(now));
        Optional<Pool> pool = there == null ? Optional.empty() : estate.poolOf(there);
        if (pool.isPresent() && !pool.get().isLost() && pool.get().groupOf(there.key()) >= 0) {
            return comeBack(estate, usage, pool.get(), there, fresh, now);
        }
        if (pool.isPresent()) {
            throw new IllegalArgumentException("Bay " + brought.bay() + " holds a failed drive of pool "
                    + pool.get().name() + ", which is lost");
        }
        return new Outcome(
                estate.withDrives(List.of(fresh)),
                List.of("A drive of " + UnitSystem.DECIMAL.format(brought.size()) + " was put into bay "
                        + brought.bay()));
    }

    /** A new drive in the bay of a failed member takes its place and is rebuilt, where no spare did that. */
    private static Outcome comeBack(Estate estate, Usage usage, Pool pool, Drive failed, Drive fresh, Instant now) {
        int index = pool.groupOf(failed.key());
        DriveGroup group = pool.groups().get(index);
        if (fresh.kind() != failed.kind() || group.countedOf(failed).isMoreThan(fresh.label())) {
            throw new IllegalArgumentException("drive is " + fresh.kind().title() + " with "
                    + fresh.label().value() + " bytes, must be " + failed.kind().title() + " with at least "
                    + group.countedOf(failed).value() + " to take its place in pool " + pool.name());
        }
        Rebuild rebuild = SpareDuty.rebuild(estate, usage, pool, failed, fresh, now);
        Estate next = estate.withDrives(List.of(fresh.in(DriveState.IN_USE)))
                .withPool(pool.withGroup(index, group.swapped(failed, fresh)))
                .with(Kinds.REBUILD, rebuild);
        return new Outcome(
                next,
                List.of("A drive of " + UnitSystem.DECIMAL.format(fresh.label()) + " was put into bay " + fresh.key()
                        + " and takes the place of the failed one in pool " + pool.name() + "; its rebuild begins"));
    }

    private static Outcome power(Estate estate, FileServer server, boolean dark) {
        if (server.dark() == dark) {
            throw new IllegalArgumentException(
                    "File server " + server.name() + " is " + (dark ? "without" : "with") + " power already");
        }
        String told = dark
                ? "File server " + server.name() + " is without power; nothing on it is served, rebuilds wait"
                : "File server " + server.name() + " has power again; rebuilds go on where they were";
        return new Outcome(estate.with(Kinds.SERVER, server.withDark(dark)), List.of(told));
    }

    private static Outcome ail(Estate estate, Drive drive, Instant now) {
        DriveHealth before = drive.health().at(now);
        DriveHealth worse = new DriveHealth(
                before.reallocatedSectors() + 60,
                before.reallocatedWeekAgo(),
                before.pendingSectors() + 30,
                before.pendingWeekAgo(),
                before.uncorrectedErrors(),
                before.temperature() + 6,
                before.powerOnHours(),
                before.wearPercent(),
                now);
        String why = worse.ailment().orElse("");
        return new Outcome(
                estate.withDrives(List.of(drive.withHealth(worse))), List.of("Drive " + drive.key() + " ails: " + why));
    }

    private static Outcome gone(Estate estate, Usage usage, Drive drive, boolean pulled, Instant now) {
        if (drive.state() == DriveState.FAILED && !pulled) {
            throw new IllegalArgumentException("Drive " + drive.key() + " has failed already");
        }
        Estate without = pulled
                ? estate.without(Kinds.DRIVE, List.of(drive.key()))
                : estate.withDrives(List.of(drive.in(DriveState.FAILED)));
        List<String> told = new ArrayList<>();
        told.add("Drive " + drive.key() + (pulled ? " was pulled" : " failed"));
        Optional<Pool> pool = estate.poolOf(drive);
        if (pool.isEmpty()) {
            return new Outcome(without, told);
        }
        int index = pool.get().groupOf(drive.key());
        return index < 0
                ? spareGone(without, pool.get(), drive, told)
                : memberGone(without, usage, pool.get(), index, drive, told, now);
    }

    private static Outcome spareGone(Estate estate, Pool pool, Drive drive, List<String> told) {
        List<String> left =
                pool.spares().stream().filter(k -> !k.equals(drive.key())).toList();
        told.add("Pool " + pool.name() + " has one hot spare less, " + left.size() + " left");
        return new Outcome(estate.withPool(pool.withSpares(left)), told);
    }

    private static Outcome memberGone(
            Estate estate, Usage usage, Pool pool, int index, Drive drive, List<String> told, Instant now) {
        DriveGroup group = pool.groups().get(index);
        Estate quiet = estate.without(Kinds.REBUILD, drive.key());
        Set<String> gone = new HashSet<>(PoolState.gone(quiet, group));
        gone.add(drive.key());
        int parts = PoolState.parts(withDrive(quiet, drive), pool, group);
        if (group.lost() || !Tolerance.survives(group.layout(), group.members(), parts, gone)) {
            told.add("Pool " + pool.name() + " has lost data: " + Counted.of(gone.size(), "drive") + " of a "
                    + group.layout().title() + " group " + (gone.size() == 1 ? "is" : "are")
                    + " gone, more than it survives. What it held has to come"
                    + " back from a copy elsewhere");
            Estate stopped = stopRebuilds(hold(quiet, drive), group);
            return new Outcome(stopped.withPool(pool.withGroup(index, group.asLost())), told);
        }
        int further = Tolerance.furtherForCertain(group.layout(), group.members(), parts, gone);
        told.add("Pool " + pool.name() + " is degraded and can lose " + further + " more for certain");
        boolean pulled = !quiet.drives().containsKey(drive.key());
        Outcome outcome = SpareDuty.takeOver(hold(quiet, drive), usage, pool, index, drive, told, now);
        boolean replaced = outcome.estate.poolOf(drive).isEmpty();
        return pulled && replaced
                ? new Outcome(outcome.estate.without(Kinds.DRIVE, List.of(drive.key())), outcome.told)
                : outcome;
    }

    /** A pulled member stays on the books as failed, so that the ledger keeps its bytes until it is replaced. */
    static Estate hold(Estate estate, Drive drive) {
        return estate.drives().containsKey(drive.key())
                ? estate
                : estate.withDrives(List.of(drive.in(DriveState.FAILED)));
    }

    static Estate withDrive(Estate estate, Drive drive) {
        return estate.withDrives(List.of(drive.in(DriveState.FAILED)));
    }

    private static Estate stopRebuilds(Estate estate, DriveGroup group) {
        Estate next = estate;
        for (String member : group.members()) {
            next = next.without(Kinds.REBUILD, member);
        }
        return next;
    }
}
