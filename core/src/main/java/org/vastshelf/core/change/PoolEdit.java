package org.vastshelf.core.change;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Stream;
import org.vastshelf.core.estate.Drive;
import org.vastshelf.core.estate.DriveGroup;
import org.vastshelf.core.estate.DriveState;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.LiftRule;
import org.vastshelf.core.estate.PaceClass;
import org.vastshelf.core.estate.Pool;
import org.vastshelf.core.unit.Bytes;

/**
 * One thing that changes about a pool. It is done to the pool as it is then, not as it was planned, so that a hot spare
 * that took over meanwhile stays where it is.
 */
public sealed interface PoolEdit {

    /** Why the pool does not allow it any more. */
    Optional<String> obstacle(Estate estate, Pool pool);

    Estate apply(Estate estate, Pool pool);

    Estate undo(Estate estate, Pool pool);

    /** Why undoing it would harm what others have done since. */
    default Optional<String> undoObstacle(Estate estate, Pool pool) {
        return Optional.empty();
    }

    /** The same edit, knowing what it finds. */
    default PoolEdit on(Estate estate, Pool pool) {
        return this;
    }

    /** Whether it copies between members, and so has to wait while one of them is rebuilt. */
    default boolean copies() {
        return false;
    }

    /** Unclaimed drives as a group of their own; a fast one makes the pool brisk. */
    record JoinGroup(DriveGroup group, List<Drive> drives, boolean asCache, PaceClass paceBefore) implements PoolEdit {
        @Override
        public Optional<String> obstacle(Estate estate, Pool pool) {
            return DriveUse.lost(pool).or(() -> DriveUse.taken(estate, drives));
        }

        @Override
        public Estate apply(Estate estate, Pool pool) {
            Pool grown = pool.plusGroup(group);
            return estate.withPool(group.isFast() ? grown.withFast(asCache, PaceClass.BRISK) : grown)
                    .withDrives(DriveUse.used(drives, DriveState.IN_USE));
        }

        @Override
        public Estate undo(Estate estate, Pool pool) {
            List<String> leaving = pool.groups().stream()
                    .filter(g -> isMine(g))
                    .flatMap(g -> g.members().stream())
                    .toList();
            List<DriveGroup> rest =
                    pool.groups().stream().filter(g -> !isMine(g)).toList();
            // When another group was taken out and could not come back, all data lie on this one: it stays.
            if (rest.stream().noneMatch(g -> g.part() == DriveGroup.Part.BULK)) {
                return estate;
            }
            Pool bare = pool.withGroups(rest);
            return DriveUse.released(estate, group.isFast() ? bare.withFast(false, paceBefore) : bare, leaving, drives);
        }

        private boolean isMine(DriveGroup other) {
            return other.members().stream().anyMatch(group.members()::contains);
        }
    }

    /** A group that takes nothing new from now on, so that it can be taken out. */
    record Retire(List<String> members, DriveGroup.Part before) implements PoolEdit {
        @Override
        public Optional<String> obstacle(Estate estate, Pool pool) {
            return DriveUse.lost(pool).or(() -> DriveUse.noGroup(pool, members));
        }

        @Override
        public Estate apply(Estate estate, Pool pool) {
            return marked(estate, pool, DriveGroup.Part.LEAVING);
        }

        @Override
        public Estate undo(Estate estate, Pool pool) {
            return marked(estate, pool, before);
        }

        private Estate marked(Estate estate, Pool pool, DriveGroup.Part part) {
            int index = DriveUse.groupWith(pool, members);
            return index < 0
                    ? estate
                    : estate.withPool(
                            pool.withGroup(index, pool.groups().get(index).as(part)));
        }
    }

    /**
     * A retired group that goes, once all it held lies on the others.
     *
     * @param index its place among the groups
     * @param paceAfter what the pool is without it
     */
    record Leave(
            int index,
            DriveGroup group,
            List<Drive> drives,
            boolean cacheBefore,
            PaceClass paceBefore,
            PaceClass paceAfter)
            implements PoolEdit {
        @Override
        public boolean copies() {
            return true;
        }

        @Override
        public PoolEdit on(Estate estate, Pool pool) {
            int now = DriveUse.groupWith(pool, group.members());
            DriveGroup there = pool.groups().get(now);
            return new Leave(now, there, estate.drives(there.members()), pool.fastAsCache(), pool.pace(), paceAfter);
        }

        @Override
        public Optional<String> obstacle(Estate estate, Pool pool) {
            return DriveUse.lost(pool).or(() -> DriveUse.noGroup(pool, group.members()));
        }

        @Override
        public Estate apply(Estate estate, Pool pool) {
            List<DriveGroup> rest = new ArrayList<>(pool.groups());
            rest.remove(index);
            Pool without = pool.withGroups(rest);
            return estate.withPool(without.isMixed() ? without : without.withFast(false, paceAfter))
                    .withDrives(drives.stream()
                            .map(d -> d.state() == DriveState.FAILED
                                    ? d
                                    : d.wiped().in(DriveState.UNCLAIMED))
                            .toList());
        }

        @Override
        public Estate undo(Estate estate, Pool pool) {
            boolean allThere = drives.stream()
                    .allMatch(d -> estate.drives().get(d.key()) instanceof Drive now
                            && (now.isFree() || now.state() == d.state())
                            && estate.poolOf(now).isEmpty());
            if (!allThere) {
                return estate;
            }
            List<DriveGroup> again = new ArrayList<>(pool.groups());
            again.add(Math.min(index, again.size()), group);
            return estate.withPool(pool.withGroups(again).withFast(cacheBefore, paceBefore))
                    .withDrives(drives);
        }
    }

    /** More members for a group; what it holds is spread over them too. */
    record Widen(int group, List<Drive> drives) implements PoolEdit {
        @Override
        public boolean copies() {
            return true;
        }

        @Override
        public Optional<String> obstacle(Estate estate, Pool pool) {
            return DriveUse.lost(pool)
                    .or(() -> DriveUse.missing(pool, group, 0))
                    .or(() -> DriveUse.taken(estate, drives));
        }

        @Override
        public Estate apply(Estate estate, Pool pool) {
            DriveGroup narrow = pool.groups().get(group);
            DriveGroup wide = narrow.withMembers(Stream.concat(narrow.members().stream(), DriveUse.keys(drives))
                    .toList());
            return estate.withPool(pool.withGroup(group, wide)).withDrives(DriveUse.used(drives, DriveState.IN_USE));
        }

        @Override
        public Optional<String> undoObstacle(Estate estate, Pool pool) {
            return DriveUse.missing(pool, group, drives.size());
        }

        @Override
        public Estate undo(Estate estate, Pool pool) {
            DriveGroup wide = pool.groups().get(group);
            List<String> leaving = leaving(wide.members());
            Pool narrow = pool.withGroup(
                    group,
                    wide.withMembers(wide.members().stream()
                            .filter(m -> !leaving.contains(m))
                            .toList()));
            return DriveUse.released(estate, narrow, leaving, drives);
        }

        /** The drives that came; the last ones where hot spares took over for some of them since. */
        private List<String> leaving(List<String> members) {
            List<String> came = DriveUse.keys(drives).toList();
            return members.containsAll(came) ? came : members.subList(members.size() - came.size(), members.size());
        }
    }

    /**
     * A drive in place of a member.
     *
     * @param old who stands there; a hot spare that took over for the member meant becomes a hot spare again
     * @param spareBack whether {@code old} is such a hot spare
     */
    record Swap(int group, int place, Drive old, Drive next, boolean spareBack) implements PoolEdit {
        @Override
        public boolean copies() {
            return true;
        }

        @Override
        public PoolEdit on(Estate estate, Pool pool) {
            Drive there = estate.drives().get(pool.groups().get(group).members().get(place));
            return new Swap(group, place, there, next, spareBack || !there.key().equals(old.key()));
        }

        @Override
        public Optional<String> obstacle(Estate estate, Pool pool) {
            return DriveUse.lost(pool)
                    .or(() -> DriveUse.missing(pool, group, place))
                    .or(() -> DriveUse.taken(estate, List.of(next)));
        }

        @Override
        public Estate apply(Estate estate, Pool pool) {
            Drive there = estate.drives().get(old.key());
            Pool swapped = pool.withGroup(group, pool.groups().get(group).swapped(there, next));
            DriveState state = there.state() == DriveState.FAILED
                    ? DriveState.FAILED
                    : spareBack ? DriveState.SPARE : DriveState.UNCLAIMED;
            Drive released = state == DriveState.FAILED ? there : there.wiped().in(state);
            return estate.withPool(spareBack ? swapped.withSpares(DriveUse.plus(pool.spares(), old.key())) : swapped)
                    .withDrives(List.of(released, next.wiped().in(DriveState.IN_USE)));
        }

        @Override
        public Estate undo(Estate estate, Pool pool) {
            DriveGroup now = pool.groups().get(group);
            Drive there = estate.drives().get(now.members().get(place));
            Drive before = estate.drives().get(old.key());
            if (there == null || before == null || !stillThere(before, pool)) {
                return estate;
            }
            Pool swapped = pool.withGroup(group, now.swapped(there, before))
                    .withSpares(pool.spares().stream()
                            .filter(s -> !s.equals(old.key()))
                            .toList());
            return DriveUse.released(
                    estate.withDrives(List.of(before.in(old.state()).withDamaged(old.damaged()))),
                    swapped,
                    List.of(there.key()),
                    List.of(next));
        }

        private boolean stillThere(Drive before, Pool pool) {
            if (spareBack) {
                return pool.spares().contains(before.key());
            }
            return before.state() == DriveState.FAILED ? old.state() == DriveState.FAILED : before.isFree();
        }
    }

    /** All space on the labels counts. */
    record TakeSpace(List<Map<String, Bytes>> before) implements PoolEdit {
        @Override
        public Optional<String> obstacle(Estate estate, Pool pool) {
            return DriveUse.lost(pool);
        }

        @Override
        public PoolEdit on(Estate estate, Pool pool) {
            return new TakeSpace(pool.groups().stream().map(DriveGroup::counted).toList());
        }

        @Override
        public Estate apply(Estate estate, Pool pool) {
            return estate.withPool(pool.withGroups(
                    pool.groups().stream().map(DriveGroup::taken).toList()));
        }

        @Override
        public Estate undo(Estate estate, Pool pool) {
            List<DriveGroup> groups = new ArrayList<>(pool.groups());
            for (int i = 0; i < Math.min(before.size(), groups.size()); i++) {
                groups.set(i, groups.get(i).counting(before.get(i)));
            }
            return estate.withPool(pool.withGroups(groups));
        }
    }

    record JoinSpares(List<Drive> drives) implements PoolEdit {
        @Override
        public Optional<String> obstacle(Estate estate, Pool pool) {
            return DriveUse.lost(pool).or(() -> DriveUse.taken(estate, drives));
        }

        @Override
        public Estate apply(Estate estate, Pool pool) {
            List<String> spares =
                    Stream.concat(pool.spares().stream(), DriveUse.keys(drives)).toList();
            return estate.withPool(pool.withSpares(spares)).withDrives(DriveUse.used(drives, DriveState.SPARE));
        }

        @Override
        public Estate undo(Estate estate, Pool pool) {
            List<String> keys = DriveUse.keys(drives).toList();
            return DriveUse.back(
                    estate.withPool(pool.withSpares(pool.spares().stream()
                            .filter(s -> !keys.contains(s))
                            .toList())),
                    drives,
                    DriveState.SPARE);
        }
    }

    record LeaveSpares(List<String> drives) implements PoolEdit {
        @Override
        public Optional<String> obstacle(Estate estate, Pool pool) {
            return drives.stream()
                    .filter(d -> !pool.spares().contains(d))
                    .findFirst()
                    .map(d -> "drive " + d + " is no hot spare of pool " + pool.name() + " any more");
        }

        @Override
        public Estate apply(Estate estate, Pool pool) {
            List<Drive> released = estate.drives(drives).stream()
                    .map(d -> d.in(DriveState.UNCLAIMED))
                    .toList();
            return estate.withPool(pool.withSpares(pool.spares().stream()
                            .filter(s -> !drives.contains(s))
                            .toList()))
                    .withDrives(released);
        }

        @Override
        public Estate undo(Estate estate, Pool pool) {
            List<Drive> again = drives.stream()
                    .flatMap(key -> Stream.ofNullable(estate.drives().get(key)))
                    .filter(Drive::isFree)
                    .map(d -> d.in(DriveState.SPARE))
                    .toList();
            List<String> spares =
                    Stream.concat(pool.spares().stream(), DriveUse.keys(again)).toList();
            return estate.withPool(pool.withSpares(spares)).withDrives(again);
        }
    }

    record KeepBack(Bytes next, Bytes before) implements PoolEdit {
        @Override
        public Optional<String> obstacle(Estate estate, Pool pool) {
            return pool.reserve().equals(before)
                    ? Optional.empty()
                    : Optional.of("the reserve of pool " + pool.name() + " was changed meanwhile");
        }

        @Override
        public Estate apply(Estate estate, Pool pool) {
            return estate.withPool(pool.withReserve(next));
        }

        @Override
        public Optional<String> undoObstacle(Estate estate, Pool pool) {
            return pool.reserve().equals(next)
                    ? Optional.empty()
                    : Optional.of("the reserve of pool " + pool.name() + " was changed since");
        }

        @Override
        public Estate undo(Estate estate, Pool pool) {
            return estate.withPool(pool.withReserve(before));
        }
    }

    record Reserve(Bytes next, PaceClass nextPace, Bytes before, PaceClass paceBefore) implements PoolEdit {
        @Override
        public Optional<String> obstacle(Estate estate, Pool pool) {
            return pool.reserved().equals(before) && pool.pace() == paceBefore
                    ? Optional.empty()
                    : Optional.of("reservation " + pool.name() + " was changed meanwhile");
        }

        @Override
        public Estate apply(Estate estate, Pool pool) {
            return estate.withPool(pool.withReserved(next, nextPace));
        }

        @Override
        public Optional<String> undoObstacle(Estate estate, Pool pool) {
            return pool.reserved().equals(next) && pool.pace() == nextPace
                    ? Optional.empty()
                    : Optional.of("reservation " + pool.name() + " was changed since");
        }

        @Override
        public Estate undo(Estate estate, Pool pool) {
            return estate.withPool(pool.withReserved(before, paceBefore));
        }
    }

    record SetLift(LiftRule next, LiftRule before) implements PoolEdit {
        @Override
        public Optional<String> obstacle(Estate estate, Pool pool) {
            return pool.lift().equals(before)
                    ? Optional.empty()
                    : Optional.of("the lift of pool " + pool.name() + " was changed meanwhile");
        }

        @Override
        public Estate apply(Estate estate, Pool pool) {
            return estate.withPool(pool.withLift(next));
        }

        @Override
        public Optional<String> undoObstacle(Estate estate, Pool pool) {
            return pool.lift().equals(next)
                    ? Optional.empty()
                    : Optional.of("the lift of pool " + pool.name() + " was changed since");
        }

        @Override
        public Estate undo(Estate estate, Pool pool) {
            return estate.withPool(pool.withLift(before));
        }
    }
}
