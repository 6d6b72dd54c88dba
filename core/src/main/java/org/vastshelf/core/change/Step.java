package org.vastshelf.core.change;

import java.time.Duration;
import java.util.List;
import java.util.Optional;
import org.vastshelf.core.estate.Drive;
import org.vastshelf.core.estate.DriveState;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.Pool;
import org.vastshelf.core.estate.Share;
import org.vastshelf.core.estate.Volume;
import org.vastshelf.core.limit.LimitRule;

/**
 * One act of an order. Each knows what the estate is like after it and how to get back to what it was before; both
 * are pure, and whoever carries out an order stores the difference.
 */
public sealed interface Step {

    String title();

    /** How long the devices are expected to take. */
    Duration expected();

    Estate apply(Estate estate);

    /** Why the estate, which other orders may have changed since, does not allow the step any more. */
    default Optional<String> obstacle(Estate estate) {
        return Optional.empty();
    }

    /** The estate as it was before {@link #apply}. */
    Estate undo(Estate estate);

    /** Writes and reads every sector; all drives at once, so the slowest counts. */
    record CheckSurfaces(List<String> drives, Duration expected) implements Step {
        @Override
        public String title() {
            return "Check the surfaces of " + drives.size() + " drives";
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
    record ClaimDrives(List<String> drives) implements Step {
        @Override
        public String title() {
            return "Claim " + drives.size() + " drives";
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
        public Estate apply(Estate estate) {
            return estate.withDrives(estate.drives(drives).stream()
                    .map(d -> d.wiped().in(DriveState.CLAIMED))
                    .toList());
        }

        @Override
        public Estate undo(Estate estate) {
            return estate.withDrives(estate.drives(drives).stream()
                    .map(d -> d.in(DriveState.UNCLAIMED))
                    .toList());
        }
    }

    record CreatePool(Pool pool) implements Step {
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
            return estate.pools().containsKey(pool.name())
                    ? Optional.of("the pool name '" + pool.name() + "' is taken")
                    : Optional.empty();
        }

        @Override
        public Estate apply(Estate estate) {
            return inState(inState(estate, pool.members(), DriveState.IN_USE), pool.spares(), DriveState.SPARE)
                    .withPool(pool);
        }

        @Override
        public Estate undo(Estate estate) {
            return inState(inState(estate, pool.members(), DriveState.CLAIMED), pool.spares(), DriveState.CLAIMED)
                    .withoutPool(pool.name());
        }

        private static Estate inState(Estate estate, List<String> keys, DriveState state) {
            List<Drive> changed =
                    estate.drives(keys).stream().map(d -> d.in(state)).toList();
            return estate.withDrives(changed);
        }
    }

    record CreateVolume(Volume volume) implements Step {
        @Override
        public String title() {
            return "Create volume " + volume.name();
        }

        @Override
        public Duration expected() {
            return Duration.ofSeconds(10);
        }

        @Override
        public Optional<String> obstacle(Estate estate) {
            if (!estate.pools().containsKey(volume.pool())) {
                return Optional.of("there is no pool '" + volume.pool() + "'");
            }
            return estate.volumes().containsKey(volume.name())
                    ? Optional.of("the volume name '" + volume.name() + "' is taken")
                    : Optional.empty();
        }

        @Override
        public Estate apply(Estate estate) {
            return estate.withVolume(volume);
        }

        @Override
        public Estate undo(Estate estate) {
            return estate.withoutVolume(volume.name());
        }
    }

    /** Opens a share, or puts it in place of the one before. */
    record OpenShare(Share share, Optional<Share> before) implements Step {
        @Override
        public String title() {
            return before.isPresent() ? "Change share " + share.name() : "Open share " + share.name();
        }

        @Override
        public Duration expected() {
            return Duration.ofSeconds(5);
        }

        @Override
        public Optional<String> obstacle(Estate estate) {
            if (!estate.volumes().containsKey(share.volume())) {
                return Optional.of("there is no volume '" + share.volume() + "'");
            }
            return Optional.ofNullable(estate.shares().get(share.name())).equals(before)
                    ? Optional.empty()
                    : Optional.of("share '" + share.name() + "' was changed meanwhile");
        }

        @Override
        public Estate apply(Estate estate) {
            return estate.withShare(share);
        }

        @Override
        public Estate undo(Estate estate) {
            return before.map(estate::withShare).orElseGet(() -> estate.withoutShare(share.name()));
        }
    }

    record CloseShare(Share share) implements Step {
        @Override
        public String title() {
            return "Close share " + share.name();
        }

        @Override
        public Duration expected() {
            return Duration.ofSeconds(5);
        }

        @Override
        public Estate apply(Estate estate) {
            return estate.withoutShare(share.name());
        }

        @Override
        public Estate undo(Estate estate) {
            return estate.withShare(share);
        }
    }

    record SetLimit(LimitRule rule, Optional<LimitRule> before) implements Step {
        @Override
        public String title() {
            return (before.isPresent() ? "Change limit " : "Set limit ") + rule.key();
        }

        @Override
        public Duration expected() {
            return Duration.ofSeconds(1);
        }

        @Override
        public Estate apply(Estate estate) {
            return estate.withLimit(rule);
        }

        @Override
        public Estate undo(Estate estate) {
            return before.map(estate::withLimit).orElseGet(() -> estate.withoutLimit(rule.key()));
        }
    }

    record DropLimit(LimitRule rule) implements Step {
        @Override
        public String title() {
            return "Drop limit " + rule.key();
        }

        @Override
        public Duration expected() {
            return Duration.ofSeconds(1);
        }

        @Override
        public Estate apply(Estate estate) {
            return estate.withoutLimit(rule.key());
        }

        @Override
        public Estate undo(Estate estate) {
            return estate.withLimit(rule);
        }
    }
}
