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
import org.vastshelf.core.estate.Pool;
import org.vastshelf.core.unit.Bytes;

/** Edits of single drives in a pool. */
public sealed interface MemberEdit extends PoolEdit {

    /**
     * A drive in place of a member.
     *
     * @param old who stands there; a hot spare that took over for the member meant becomes a hot spare again
     * @param spareBack whether {@code old} is such a hot spare
     */
    record Swap(int group, int place, Drive old, Drive next, boolean spareBack) implements MemberEdit {
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
    record TakeSpace(List<Map<String, Bytes>> before) implements MemberEdit {
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

    record JoinSpares(List<Drive> drives) implements MemberEdit {
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

    record LeaveSpares(List<String> drives) implements MemberEdit {
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
}
