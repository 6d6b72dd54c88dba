package org.vastshelf.core.change;

import java.time.Duration;
import java.util.List;
import java.util.Optional;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.Kinds;
import org.vastshelf.core.estate.Share;
import org.vastshelf.core.estate.Usage;

/** Steps on shares. */
public sealed interface ShareStep extends Step {

    /** Opens a share, or puts it in place of the one before. */
    record OpenShare(Share share, Optional<Share> before) implements ShareStep {
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
        public List<String> servers(Estate estate) {
            return Steps.serverOfVolume(estate, share.volume());
        }

        @Override
        public Optional<String> undoObstacle(Estate estate, Usage usage) {
            return Steps.unless(
                    share.equals(estate.shares().get(share.name())), "share " + share.name() + " was changed since");
        }

        @Override
        public Estate apply(Estate estate) {
            return estate.with(Kinds.SHARE, share);
        }

        @Override
        public Estate undo(Estate estate) {
            return before.map(old -> estate.with(Kinds.SHARE, old))
                    .orElseGet(() -> estate.without(Kinds.SHARE, share.name()));
        }
    }

    record CloseShare(Share share) implements ShareStep {
        @Override
        public String title() {
            return "Close share " + share.name();
        }

        @Override
        public Duration expected() {
            return Duration.ofSeconds(5);
        }

        @Override
        public Optional<String> obstacle(Estate estate) {
            return Steps.unless(
                    share.equals(estate.shares().get(share.name())),
                    "share '" + share.name() + "' was changed meanwhile");
        }

        @Override
        public List<String> servers(Estate estate) {
            return Steps.serverOfVolume(estate, share.volume());
        }

        @Override
        public Optional<String> undoObstacle(Estate estate, Usage usage) {
            return Steps.unless(
                    !estate.shares().containsKey(share.name()), "share " + share.name() + " was opened again since");
        }

        @Override
        public Estate apply(Estate estate) {
            return estate.without(Kinds.SHARE, share.name());
        }

        @Override
        public Estate undo(Estate estate) {
            return estate.with(Kinds.SHARE, share);
        }
    }
}
