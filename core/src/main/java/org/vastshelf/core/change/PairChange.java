package org.vastshelf.core.change;

import org.vastshelf.core.estate.Link;
import org.vastshelf.core.estate.ReplicaPair;

/** Changes of replica pairs, and of the links between sites. */
public sealed interface PairChange extends Change {

    /** Makes a copy of a volume on another pool, and keeps it up. */
    record MakePair(ReplicaPair pair, String pool) implements PairChange {
        @Override
        public String title() {
            return "Keep a copy of volume " + pair.volume() + " on pool " + pool + ", "
                    + (pair.mode() == ReplicaPair.Mode.IN_STEP
                            ? "in step"
                            : "every " + pair.intervalMinutes() + " minutes");
        }
    }

    /** Keeps a copy up no longer; what it holds goes. */
    record EndPair(String volume) implements PairChange {
        @Override
        public String title() {
            return "Keep no copy of volume " + volume + " any more";
        }
    }

    /** Lets a pair rest, or go on. */
    record RestPair(String volume, boolean paused) implements PairChange {
        @Override
        public String title() {
            return (paused ? "Pause" : "Go on with") + " the copying of volume " + volume;
        }
    }

    /**
     * Lets the copy take over.
     *
     * @param inNeed whether it does so as it is; else all that is missing is sent before
     */
    record FailOver(String volume, boolean inNeed) implements PairChange {
        @Override
        public String title() {
            return "Fail volume " + volume + " over to its copy, " + (inNeed ? "in need" : "as planned");
        }
    }

    /** Lets the volume go back to where it was; what changed meanwhile is sent before. */
    record GoBack(String volume) implements PairChange {
        @Override
        public String title() {
            return "Let volume " + volume + " go back to where it was";
        }
    }

    /**
     * Fails over on a clone that nobody reaches, compares what it would serve, and removes it again.
     *
     * @param snapshot number of one that the copy has
     */
    record Rehearse(String volume, int snapshot) implements PairChange {
        @Override
        public String title() {
            return "Rehearse failing over volume " + volume;
        }
    }

    /** Says what a link between two sites carries. */
    record SetLink(Link link) implements PairChange {
        @Override
        public String title() {
            return "Link " + link.one() + " and " + link.other();
        }
    }
}
