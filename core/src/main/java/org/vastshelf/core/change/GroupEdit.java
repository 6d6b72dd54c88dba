package org.vastshelf.core.change;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;
import org.vastshelf.core.estate.Drive;
import org.vastshelf.core.estate.DriveGroup;
import org.vastshelf.core.estate.DriveState;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.PaceClass;
import org.vastshelf.core.estate.Pool;

/** Edits of the drive groups of a pool. */
public sealed interface GroupEdit extends PoolEdit {

    /** Unclaimed drives as a group of their own; a fast one makes the pool brisk. */
    record JoinGroup(DriveGroup group, List<Drive> drives, boolean asCache, PaceClass paceBefore) implements GroupEdit {
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
    record Retire(List<String> members, DriveGroup.Part before) implements GroupEdit {
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
            implements GroupEdit {
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
    record Widen(int group, List<Drive> drives) implements GroupEdit {
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
}
