package org.vastshelf.core.change;

import java.time.Duration;
import java.util.List;
import java.util.Optional;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.Kinds;
import org.vastshelf.core.estate.Link;
import org.vastshelf.core.estate.ReplicaPair;
import org.vastshelf.core.estate.Usage;
import org.vastshelf.core.estate.Volume;

/** Steps on replica pairs. */
public sealed interface PairStep extends Step {

    /** A pair that is made, changed or ended. */
    record SetPair(String volume, Optional<ReplicaPair> before, Optional<ReplicaPair> after) implements PairStep {
        @Override
        public String title() {
            if (after.isEmpty()) {
                return "End the pair of volume " + volume;
            }
            return (before.isPresent() ? "Change" : "Begin") + " the pair of volume " + volume;
        }

        @Override
        public Duration expected() {
            return Duration.ofSeconds(1);
        }

        @Override
        public Optional<String> obstacle(Estate estate) {
            return Steps.unless(
                    estate.find(Kinds.PAIR, volume).equals(before), "the pair of " + volume + " was changed meanwhile");
        }

        @Override
        public Optional<String> undoObstacle(Estate estate, Usage usage) {
            return Steps.unless(
                    estate.find(Kinds.PAIR, volume).equals(after), "the pair of " + volume + " was changed since");
        }

        @Override
        public Estate apply(Estate estate) {
            return Steps.with(estate, Kinds.PAIR, volume, after);
        }

        @Override
        public Estate undo(Estate estate) {
            return Steps.with(estate, Kinds.PAIR, volume, before);
        }
    }

    /** Sends what the copy lacks, while clients go on. */
    record SendMissing(String volume) implements PairStep {
        @Override
        public String title() {
            return "Send what the copy of volume " + volume + " lacks, clients go on";
        }

        @Override
        public Duration expected() {
            return Duration.ofSeconds(1);
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

    /**
     * Lets a volume and its copy change places: what clients use lies where the copy was from then on, with its shares,
     * access, limits and schedules, which are about the volume.
     *
     * @param from pool of the volume before
     * @param to pool of the copy before
     * @param over whether they have changed places afterwards
     * @param inNeed whether what the copy lacks is left behind
     */
    record SwitchPair(String volume, String copy, String from, String to, boolean over, boolean inNeed)
            implements PairStep {
        @Override
        public String title() {
            return "Serve volume " + volume + " from pool " + to + ", name and address with it";
        }

        @Override
        public Duration expected() {
            return Duration.ofSeconds(20);
        }

        @Override
        public List<String> servers(Estate estate) {
            return Steps.serverOfPool(estate, to);
        }

        @Override
        public Optional<String> obstacle(Estate estate) {
            Volume now = estate.volumes().get(volume);
            return Steps.unless(
                            estate.find(Kinds.PAIR, volume).isPresent()
                                    && now != null
                                    && (now.pool().equals(from) || now.pool().equals(to)),
                            "the pair of " + volume + " was changed meanwhile")
                    .or(() -> Steps.unless(!estate.pools().get(to).isLost(), "pool " + to + " has lost data"));
        }

        @Override
        public Optional<String> undoObstacle(Estate estate, Usage usage) {
            return Optional.of("clients use volume " + volume + " on pool " + to + " by now; let it go back instead");
        }

        @Override
        public Estate apply(Estate estate) {
            return estate.withVolume(estate.volumes().get(volume).on(to))
                    .withVolume(estate.volumes().get(copy).on(from))
                    .with(Kinds.PAIR, estate.all(Kinds.PAIR).get(volume).withOver(over));
        }

        @Override
        public Estate undo(Estate estate) {
            return estate;
        }
    }

    /** A link that is set or changed. */
    record SetLink(Link link, Optional<Link> before) implements PairStep {
        @Override
        public String title() {
            return "Set the link of " + link.one() + " and " + link.other();
        }

        @Override
        public Duration expected() {
            return Duration.ofSeconds(1);
        }

        @Override
        public Estate apply(Estate estate) {
            return estate.with(Kinds.LINK, link);
        }

        @Override
        public Estate undo(Estate estate) {
            return Steps.with(estate, Kinds.LINK, link.key(), before);
        }
    }
}
