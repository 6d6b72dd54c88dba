package org.vastshelf.core.change;

import java.time.Duration;
import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;
import org.vastshelf.core.estate.CloneOf;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.Kinds;
import org.vastshelf.core.estate.Rule;
import org.vastshelf.core.estate.Usage;
import org.vastshelf.core.estate.Volume;
import org.vastshelf.core.unit.Bytes;

/** Steps on volumes. */
public sealed interface VolumeStep extends Step {

    record CreateVolume(Volume volume) implements VolumeStep {
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
        public List<String> servers(Estate estate) {
            return Steps.serverOfPool(estate, volume.pool());
        }

        @Override
        public Optional<String> undoObstacle(Estate estate, Usage usage) {
            Bytes used = usage.of(volume.name()).used();
            return Steps.unless(
                            volume.equals(estate.volumes().get(volume.name())),
                            "volume " + volume.name() + " was changed since")
                    .or(() -> Steps.unless(
                            used.isZero(), "volume " + volume.name() + " holds " + used.value() + " bytes by now"));
        }

        @Override
        public Estate apply(Estate estate) {
            return estate.withVolume(volume);
        }

        @Override
        public Estate undo(Estate estate) {
            return estate.without(Kinds.VOLUME, volume.name())
                    .withoutRules(estate.rulesOf(Kinds.VOLUME, volume.name()));
        }
    }

    /** A volume as it was and as it will be. */
    record ChangeVolume(String title, Duration expected, Volume before, Volume after) implements VolumeStep {
        @Override
        public Optional<String> obstacle(Estate estate) {
            if (!before.equals(estate.volumes().get(before.name()))) {
                return Optional.of("volume " + before.name() + " was changed meanwhile");
            }
            return estate.pools().containsKey(after.pool())
                    ? Optional.empty()
                    : Optional.of("there is no pool '" + after.pool() + "'");
        }

        @Override
        public List<String> servers(Estate estate) {
            return Steps.serverOfPool(estate, after.pool());
        }

        @Override
        public Optional<String> undoObstacle(Estate estate, Usage usage) {
            return Steps.unless(
                    after.equals(estate.volumes().get(after.name())), "volume " + after.name() + " was changed since");
        }

        @Override
        public Estate apply(Estate estate) {
            return estate.withVolume(after);
        }

        @Override
        public Estate undo(Estate estate) {
            return estate.withVolume(before);
        }
    }

    /** Room on the target of a move, held from its beginning, so that nothing else takes it. */
    record HoldRoom(String volume, String from, String to) implements VolumeStep {
        @Override
        public String title() {
            return "Hold room for volume " + volume + " on pool " + to;
        }

        @Override
        public Duration expected() {
            return Duration.ofSeconds(2);
        }

        @Override
        public Optional<String> obstacle(Estate estate) {
            return elsewhere(estate, volume, from)
                    .or(() -> estate.pools().containsKey(to)
                            ? Optional.empty()
                            : Optional.of("there is no pool '" + to + "'"))
                    .or(() -> estate.volumes()
                            .get(volume)
                            .movingTo()
                            .map(other -> "volume " + volume + " moves to pool " + other + " already"));
        }

        @Override
        public Estate apply(Estate estate) {
            return estate.withVolume(estate.volumes().get(volume).moving(Optional.of(to)));
        }

        @Override
        public Estate undo(Estate estate) {
            return estate.withVolume(estate.volumes().get(volume).moving(Optional.empty()));
        }

        @Override
        public List<String> servers(Estate estate) {
            return Stream.of(from, to)
                    .flatMap(pool -> Steps.serverOfPool(estate, pool).stream())
                    .toList();
        }

        @Override
        public Optional<String> undoObstacle(Estate estate, Usage usage) {
            return elsewhere(estate, volume, from);
        }

        private static Optional<String> elsewhere(Estate estate, String volume, String from) {
            Volume now = estate.volumes().get(volume);
            return now != null && now.pool().equals(from)
                    ? Optional.empty()
                    : Optional.of("volume " + volume + " does not lie on pool " + from + " any more");
        }
    }

    /** The end of a move. Whatever else was changed about the volume meanwhile goes with it. */
    record SwitchOver(String volume, String from, String to) implements VolumeStep {
        @Override
        public String title() {
            return "Switch volume " + volume + " over to pool " + to;
        }

        @Override
        public Duration expected() {
            return Duration.ofSeconds(3);
        }

        @Override
        public Optional<String> obstacle(Estate estate) {
            return HoldRoom.elsewhere(estate, volume, from)
                    .or(() -> estate.pools().containsKey(to)
                                    && !estate.pools().get(to).isLost()
                            ? Optional.empty()
                            : Optional.of("pool " + to + " is lost or gone"));
        }

        @Override
        public List<String> servers(Estate estate) {
            return new HoldRoom(volume, from, to).servers(estate);
        }

        @Override
        public Optional<String> undoObstacle(Estate estate, Usage usage) {
            return HoldRoom.elsewhere(estate, volume, to)
                    .or(() -> Steps.unless(
                            estate.volumes().get(volume).movingTo().isEmpty(),
                            "volume " + volume + " moves on to another pool"));
        }

        @Override
        public Estate apply(Estate estate) {
            return estate.withVolume(estate.volumes().get(volume).on(to));
        }

        @Override
        public Estate undo(Estate estate) {
            return estate.withVolume(estate.volumes().get(volume).on(from).moving(Optional.of(to)));
        }
    }

    record RemoveVolume(Volume volume, List<Rule> rules, Optional<CloneOf> shared) implements VolumeStep {
        public RemoveVolume {
            // Orders written before rules were things of their own do not name them.
            rules = rules == null ? List.of() : List.copyOf(rules);
            shared = shared == null ? Optional.empty() : shared;
        }

        static RemoveVolume of(Estate estate, Volume volume) {
            return new RemoveVolume(
                    volume, estate.rulesOf(Kinds.VOLUME, volume.name()), estate.find(Kinds.CLONE, volume.name()));
        }

        @Override
        public String title() {
            return "Remove volume " + volume.name();
        }

        @Override
        public Duration expected() {
            return Duration.ofSeconds(10);
        }

        @Override
        public Optional<String> obstacle(Estate estate) {
            Volume now = estate.volumes().get(volume.name());
            return Steps.unless(
                            now != null && now.movingTo().isEmpty(),
                            "volume " + volume.name() + " is gone or on its way")
                    .or(() -> estate.sharesOn(volume.name())
                            .findFirst()
                            .map(s -> "share " + s.name() + " serves volume " + volume.name()));
        }

        @Override
        public Step on(Estate estate) {
            return of(estate, estate.volumes().get(volume.name()));
        }

        @Override
        public List<String> servers(Estate estate) {
            return Steps.serverOfVolume(estate, volume.name());
        }

        @Override
        public Optional<String> undoObstacle(Estate estate, Usage usage) {
            return Steps.unless(
                            shared.isEmpty(),
                            "the blocks that clone " + volume.name() + " shared are not its own any more")
                    .or(() -> Steps.unless(
                            !estate.volumes().containsKey(volume.name()),
                            "the volume name '" + volume.name() + "' is taken"));
        }

        @Override
        public Estate apply(Estate estate) {
            return estate.without(Kinds.VOLUME, volume.name())
                    .without(Kinds.CLONE, volume.name())
                    .withoutRules(rules);
        }

        @Override
        public Estate undo(Estate estate) {
            return estate.withVolume(volume).withRules(rules);
        }
    }
}
