package org.vastshelf.core.change;

import java.time.Duration;
import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import org.vastshelf.core.estate.Drive;
import org.vastshelf.core.estate.DriveState;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.Kinds;
import org.vastshelf.core.estate.Pool;
import org.vastshelf.core.estate.Rule;
import org.vastshelf.core.estate.Scrub;
import org.vastshelf.core.estate.Usage;
import org.vastshelf.core.unit.Counted;

/** Steps on pools. */
public sealed interface PoolStep extends Step {

    /** Writes and reads every sector; all drives at once, so the slowest counts. */
    record CheckSurfaces(List<String> drives, Duration expected) implements PoolStep {
        @Override
        public String title() {
            return "Check the surfaces of " + Counted.of(drives.size(), "drive");
        }

        @Override
        public List<String> servers(Estate estate) {
            return Steps.serversOf(drives);
        }

        @Override
        public Estate apply(Estate estate) {
            return estate;
        }

        @Override
        public Estate undo(Estate estate) {
            return estate;
        }
    }

    /** Takes drives over; what was on them is gone. Undone, they are unclaimed again. */
    record ClaimDrives(List<String> drives) implements PoolStep {
        @Override
        public String title() {
            return "Claim " + Counted.of(drives.size(), "drive");
        }

        @Override
        public Duration expected() {
            return Duration.ofSeconds(2).multipliedBy(drives.size());
        }

        @Override
        public Optional<String> obstacle(Estate estate) {
            return drives.stream()
                    .filter(key -> estate.drives().get(key) == null
                            || estate.drives().get(key).state() != DriveState.UNCLAIMED)
                    .findFirst()
                    .map(key -> "drive " + key + " is not unclaimed any more");
        }

        @Override
        public List<String> servers(Estate estate) {
            return Steps.serversOf(drives);
        }

        @Override
        public Estate apply(Estate estate) {
            return estate.withDrives(estate.drives(drives).stream()
                    .map(d -> d.wiped().in(DriveState.CLAIMED))
                    .toList());
        }

        @Override
        public Estate undo(Estate estate) {
            return estate.withDrives(drives.stream()
                    .flatMap(key -> Stream.ofNullable(estate.drives().get(key)))
                    .filter(d -> d.state() == DriveState.CLAIMED)
                    .map(d -> d.in(DriveState.UNCLAIMED))
                    .toList());
        }
    }

    record CreatePool(Pool pool) implements PoolStep {
        @Override
        public String title() {
            return "Create pool " + pool.name();
        }

        @Override
        public Duration expected() {
            return Duration.ofSeconds(30);
        }

        @Override
        public Optional<String> obstacle(Estate estate) {
            return Steps.unless(
                            !estate.pools().containsKey(pool.name()), "the pool name '" + pool.name() + "' is taken")
                    .or(() -> pool.drives()
                            .filter(key -> estate.drives().get(key) == null
                                    || estate.drives().get(key).state() != DriveState.CLAIMED)
                            .findFirst()
                            .map(key -> "drive " + key + " is not claimed any more"));
        }

        @Override
        public List<String> servers(Estate estate) {
            return List.of(pool.server());
        }

        @Override
        public Optional<String> undoObstacle(Estate estate, Usage usage) {
            Pool now = estate.pools().get(pool.name());
            return Steps.unless(now != null, "there is no pool '" + pool.name() + "' any more")
                    .or(() -> Steps.unless(
                            now.drives().allMatch(d -> pool.drives().anyMatch(d::equals)),
                            "pool " + pool.name() + " has got more drives since"));
        }

        @Override
        public Estate apply(Estate estate) {
            return inState(inState(estate, pool.members(), DriveState.IN_USE), pool.spares(), DriveState.SPARE)
                    .withPool(pool);
        }

        @Override
        public Estate undo(Estate estate) {
            Estate next = estate.without(Kinds.POOL, pool.name())
                    .without(Kinds.SCRUB, pool.name())
                    .withoutRules(estate.rulesOf(Kinds.POOL, pool.name()));
            for (String drive : estate.pools().get(pool.name()).members()) {
                next = next.without(Kinds.REBUILD, drive);
            }
            List<String> left = estate.pools()
                    .get(pool.name())
                    .drives()
                    .filter(key -> estate.drives().get(key).state() != DriveState.FAILED)
                    .toList();
            return inState(next, left, DriveState.CLAIMED);
        }

        private static Estate inState(Estate estate, List<String> keys, DriveState state) {
            List<Drive> changed =
                    estate.drives(keys).stream().map(d -> d.in(state)).toList();
            return estate.withDrives(changed);
        }
    }

    /** One edit of a pool. */
    record ChangePool(String title, Duration expected, String pool, PoolEdit edit) implements PoolStep {

        @Override
        public Optional<String> obstacle(Estate estate) {
            Pool now = estate.pools().get(pool);
            return now == null ? Optional.of("there is no pool '" + pool + "'") : edit.obstacle(estate, now);
        }

        @Override
        public Optional<Wait> waits(Estate estate) {
            return PoolStep.super
                    .waits(estate)
                    .or(() -> edit.copies() ? Wait.forRebuilds(estate, pool) : Optional.empty());
        }

        @Override
        public List<String> servers(Estate estate) {
            return Steps.serverOfPool(estate, pool);
        }

        @Override
        public Optional<String> undoObstacle(Estate estate, Usage usage) {
            Pool now = estate.pools().get(pool);
            return now == null
                    ? Optional.of("there is no pool '" + pool + "' any more")
                    : edit.undoObstacle(estate, now);
        }

        @Override
        public Step on(Estate estate) {
            return new ChangePool(
                    title, expected, pool, edit.on(estate, estate.pools().get(pool)));
        }

        @Override
        public Estate apply(Estate estate) {
            return edit.apply(estate, estate.pools().get(pool));
        }

        @Override
        public Estate undo(Estate estate) {
            return edit.undo(estate, estate.pools().get(pool));
        }
    }

    /**
     * A pool that goes, and its drives with it.
     *
     * @param pool as it was when it went
     * @param drives its members and hot spares as they were then
     * @param scrub what its last scrub found
     * @param rules what was done to it by itself
     */
    record DissolvePool(Pool pool, List<Drive> drives, Optional<Scrub> scrub, List<Rule> rules) implements PoolStep {
        public DissolvePool {
            drives = List.copyOf(drives);
            rules = rules == null ? List.of() : List.copyOf(rules);
            // Orders written before definitions held schedules do not name it.
            scrub = scrub == null ? Optional.empty() : scrub;
        }

        @Override
        public String title() {
            return "Dissolve pool " + pool.name();
        }

        @Override
        public Duration expected() {
            return Duration.ofSeconds(20);
        }

        @Override
        public Optional<String> obstacle(Estate estate) {
            if (!estate.pools().containsKey(pool.name())) {
                return Optional.of("there is no pool '" + pool.name() + "'");
            }
            return estate.volumes().values().stream()
                    .filter(v -> v.isOn(pool.name()))
                    .findFirst()
                    .map(v -> "volume " + v.name() + " lies on pool " + pool.name());
        }

        @Override
        public Step on(Estate estate) {
            Pool now = estate.pools().get(pool.name());
            return new DissolvePool(
                    now,
                    estate.drives(now.drives().toList()),
                    estate.find(Kinds.SCRUB, pool.name()),
                    estate.rulesOf(Kinds.POOL, pool.name()));
        }

        @Override
        public List<String> servers(Estate estate) {
            return List.of(pool.server());
        }

        @Override
        public Optional<String> undoObstacle(Estate estate, Usage usage) {
            return Steps.unless(
                            !estate.pools().containsKey(pool.name()), "the pool name '" + pool.name() + "' is taken")
                    .or(() -> drives.stream()
                            .filter(d -> !isBack(d, estate.drives().get(d.key())))
                            .findFirst()
                            .map(d -> "drive " + d.key() + " of pool " + pool.name() + " was put to other use since"));
        }

        private static boolean isBack(Drive before, @Nullable Drive now) {
            return now != null && now.label().equals(before.label()) && (now.isFree() || now.state() == before.state());
        }

        @Override
        public Estate apply(Estate estate) {
            Estate next = estate.without(Kinds.POOL, pool.name())
                    .without(Kinds.SCRUB, pool.name())
                    .withoutRules(rules);
            for (Drive drive : drives) {
                next = next.without(Kinds.REBUILD, drive.key());
            }
            return next.withDrives(drives.stream()
                    .map(d -> d.state() == DriveState.FAILED ? d : d.wiped().in(DriveState.UNCLAIMED))
                    .toList());
        }

        @Override
        public Estate undo(Estate estate) {
            Estate next = estate.withPool(pool).withDrives(drives).withRules(rules);
            return scrub.map(found -> next.with(Kinds.SCRUB, found)).orElse(next);
        }
    }
}
