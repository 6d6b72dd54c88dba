package org.vastshelf.core.change;

import java.time.Duration;
import java.util.List;
import java.util.Optional;
import org.vastshelf.core.estate.CloneOf;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.Kinds;
import org.vastshelf.core.estate.Usage;

/** Steps on clones. What has to be done to files is done by whoever carries orders out. */
public sealed interface CloneStep extends Step {

    CloneOf made();

    @Override
    default List<String> servers(Estate estate) {
        return Steps.serverOfVolume(estate, made().volume());
    }

    @Override
    default Estate apply(Estate estate) {
        return estate;
    }

    @Override
    default Estate undo(Estate estate) {
        return estate;
    }

    /** From now on the volume shares blocks with the snapshot. */
    record ShareBlocks(CloneOf made) implements CloneStep {
        @Override
        public String title() {
            return "Let volume " + made.volume() + " share the blocks of snapshot " + made.snapshot() + " of volume "
                    + made.source();
        }

        @Override
        public Duration expected() {
            return Duration.ofSeconds(1);
        }

        @Override
        public Estate apply(Estate estate) {
            return estate.with(Kinds.CLONE, made);
        }

        @Override
        public Estate undo(Estate estate) {
            return estate.without(Kinds.CLONE, made.volume());
        }
    }

    /** Lays all that the snapshot has into the clone, without copying it. */
    record LayFiles(CloneOf made, String share) implements CloneStep {
        @Override
        public String title() {
            return "Show all that the snapshot has on share " + share;
        }

        @Override
        public Duration expected() {
            return Duration.ofSeconds(1);
        }
    }

    /** Compares what a clone shows with the snapshot that it is of, by what its files hold. */
    record CompareClone(CloneOf made, String share) implements CloneStep {
        @Override
        public String title() {
            return "Compare what would be served with snapshot " + made.snapshot();
        }

        @Override
        public Duration expected() {
            return Duration.ofSeconds(1);
        }
    }

    /** The blocks have been copied: nothing is shared any more, and the snapshot is let go. */
    record Separate(CloneOf made) implements CloneStep {
        @Override
        public String title() {
            return "Let volume " + made.volume() + " have its blocks to itself";
        }

        @Override
        public Duration expected() {
            return Duration.ofSeconds(1);
        }

        @Override
        public Optional<String> obstacle(Estate estate) {
            return Steps.unless(
                    estate.find(Kinds.CLONE, made.volume()).equals(Optional.of(made)),
                    "volume " + made.volume() + " shares no blocks any more");
        }

        @Override
        public Optional<String> undoObstacle(Estate estate, Usage usage) {
            return Optional.of("volume " + made.volume() + " has its blocks to itself by now");
        }

        @Override
        public Estate apply(Estate estate) {
            return estate.without(Kinds.CLONE, made.volume());
        }
    }
}
