package org.vastshelf.core.change;

import java.util.List;
import org.vastshelf.core.estate.Names;
import org.vastshelf.core.estate.Share;
import org.vastshelf.core.estate.Volume;
import org.vastshelf.core.layout.Layout;
import org.vastshelf.core.limit.LimitRule;

/** One thing that somebody wants to be different. A draft holds one or more of them. */
public sealed interface Change {

    /** In words, for the draft. */
    String title();

    /** Makes a pool of unclaimed drives; {@code spares} of them, the largest, stand by. */
    record ComposePool(String name, String server, List<String> drives, Layout layout, int spares, boolean surfaceCheck)
            implements Change {
        public ComposePool {
            Names.require("pool name", name);
            drives = List.copyOf(drives);
        }

        @Override
        public String title() {
            return "Compose pool " + name + " of " + drives.size() + " drives, " + layout.title();
        }
    }

    record ComposeVolume(Volume volume) implements Change {
        @Override
        public String title() {
            return "Compose volume " + volume.name() + " on " + volume.pool();
        }
    }

    record OpenShare(Share share) implements Change {
        @Override
        public String title() {
            return "Open share " + share.name() + " on " + share.volume();
        }
    }

    record CloseShare(String share) implements Change {
        @Override
        public String title() {
            return "Close share " + share;
        }
    }

    /** Sets a limit rule, in place of one with the same share, folder and reach if there is one. */
    record SetLimit(LimitRule rule) implements Change {
        @Override
        public String title() {
            return "Limit " + rule.share() + " " + rule.path() + (rule.eachChild() ? ", each child folder" : "");
        }
    }

    record DropLimit(String rule) implements Change {
        @Override
        public String title() {
            return "Drop limit " + rule;
        }
    }
}
