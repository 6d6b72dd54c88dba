package org.vastshelf.core.change;

import java.util.List;
import java.util.Optional;
import org.vastshelf.core.estate.EstateDefinition;
import org.vastshelf.core.estate.GrowthRule;
import org.vastshelf.core.estate.LiftRule;
import org.vastshelf.core.estate.Names;
import org.vastshelf.core.estate.Pace;
import org.vastshelf.core.estate.PaceClass;
import org.vastshelf.core.estate.Share;
import org.vastshelf.core.estate.Volume;
import org.vastshelf.core.layout.Layout;
import org.vastshelf.core.limit.LimitRule;
import org.vastshelf.core.unit.Bytes;
import org.vastshelf.core.unit.Counted;
import org.vastshelf.core.unit.UnitSystem;

/** One thing that somebody wants to be different. A draft holds one or more of them. */
public sealed interface Change {

    /** In words, for the draft. */
    String title();

    /**
     * Makes a pool of unclaimed drives; {@code spares} of them, the largest, stand by.
     *
     * @param groups how many equal groups of this layout the others are divided into, by size; 0 or none for one
     */
    record ComposePool(
            String name,
            String server,
            List<String> drives,
            Layout layout,
            int spares,
            boolean surfaceCheck,
            Integer groups)
            implements Change {
        public ComposePool {
            Names.require("pool name", name);
            drives = List.copyOf(drives);
            groups = groups == null ? 1 : Math.max(1, groups);
        }

        @Override
        public String title() {
            return "Compose pool " + name + " of " + Counted.of(drives.size(), "drive") + ", "
                    + (groups > 1 ? groups + " × " : "") + layout.title();
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
            return "Limit " + rule.title();
        }
    }

    record DropLimit(String rule) implements Change {
        @Override
        public String title() {
            return "Drop limit " + rule;
        }
    }

    /** Adds drives to a pool as a group of their own; {@code fast} ones in front of the bulk. */
    record AddGroup(String pool, List<String> drives, Layout layout, boolean fast, boolean asCache) implements Change {
        public AddGroup {
            drives = List.copyOf(drives);
        }

        @Override
        public String title() {
            return "Add a " + (fast ? "fast " : "") + "group of " + Counted.of(drives.size(), "drive") + ", "
                    + layout.title() + ", to pool " + pool;
        }
    }

    /** Takes a group out of a pool; what it holds goes to the other groups. {@code group} counts from 0. */
    record RemoveGroup(String pool, int group) implements Change {
        @Override
        public String title() {
            return "Take group " + (group + 1) + " out of pool " + pool;
        }
    }

    /** Takes drives out of their bays, and out of all that they belong to before. */
    record RemoveDrives(List<String> drives) implements Change {
        public RemoveDrives {
            drives = List.copyOf(drives);
        }

        @Override
        public String title() {
            return "Take " + (drives.size() == 1 ? "drive " + drives.getFirst() : drives.size() + " drives") + " out";
        }
    }

    /** Adds drives to a group that is there; {@code group} counts from 0. */
    record AddDrives(String pool, int group, List<String> drives) implements Change {
        public AddDrives {
            drives = List.copyOf(drives);
        }

        @Override
        public String title() {
            return "Add " + Counted.of(drives.size(), "drive") + " to group " + (group + 1) + " of pool " + pool;
        }
    }

    record AddSpares(String pool, List<String> drives) implements Change {
        public AddSpares {
            drives = List.copyOf(drives);
        }

        @Override
        public String title() {
            return "Keep " + Counted.of(drives.size(), "hot spare") + " for pool " + pool;
        }
    }

    record ReleaseSpares(String pool, List<String> drives) implements Change {
        public ReleaseSpares {
            drives = List.copyOf(drives);
        }

        @Override
        public String title() {
            return "Release " + Counted.of(drives.size(), "hot spare") + " of pool " + pool;
        }
    }

    /** One drive in place of another. */
    record Swap(String old, String next) {}

    /** Replaces members one at a time; with {@code takeSpace} the pool takes the new space at the end. */
    record ReplaceDrives(String pool, List<Swap> swaps, boolean takeSpace) implements Change {
        public ReplaceDrives {
            swaps = List.copyOf(swaps);
        }

        @Override
        public String title() {
            return "Replace " + Counted.of(swaps.size(), "drive") + " of pool " + pool;
        }
    }

    /** Lets a pool take the space of larger drives that were put in before. */
    record TakeSpace(String pool) implements Change {
        @Override
        public String title() {
            return "Let pool " + pool + " take its drives' new space";
        }
    }

    record SetPoolReserve(String pool, Bytes reserve) implements Change {
        @Override
        public String title() {
            return "Keep " + UnitSystem.BINARY.format(reserve) + " of pool " + pool + " back";
        }
    }

    /** Makes or changes a pool at a managed service. */
    record ReservePool(String name, String server, Bytes size, PaceClass pace) implements Change {
        public ReservePool {
            Names.require("pool name", name);
        }

        @Override
        public String title() {
            return "Reserve " + UnitSystem.BINARY.format(size) + ", " + pace.title() + ", as pool " + name;
        }
    }

    record DissolvePool(String pool) implements Change {
        @Override
        public String title() {
            return "Dissolve pool " + pool;
        }
    }

    /** Takes in an enclosure that a rescan has seen. */
    record AddEnclosure(String server, int number) implements Change {
        @Override
        public String title() {
            return "Add enclosure " + number + " of " + server;
        }
    }

    /** Takes an enclosure out, with all that has to be done before. */
    record RemoveEnclosure(String server, int number) implements Change {
        @Override
        public String title() {
            return "Remove enclosure " + number + " of " + server;
        }
    }

    record RestartNode(String server, int node) implements Change {
        @Override
        public String title() {
            return "Restart node " + node + " of " + server;
        }
    }

    /** Lets a pool be scrubbed every so many days; 0 for never. */
    record SetScrub(String pool, int everyDays) implements Change {
        @Override
        public String title() {
            return everyDays == 0
                    ? "Scrub pool " + pool + " no more by itself"
                    : "Scrub pool " + pool + " every " + Counted.of(everyDays, "day");
        }
    }

    /** When busy files rise to a pool's fast part and quiet ones sink. */
    record SetLift(String pool, LiftRule rule) implements Change {
        @Override
        public String title() {
            return rule.everyDays() == 0
                    ? "Run the lift of pool " + pool + " no more by itself"
                    : "Run the lift of pool " + pool + " every " + Counted.of(rule.everyDays(), "day") + " for "
                            + Counted.of(rule.hours(), "hour") + " at " + rule.limitMibps() + " MiB/s";
        }
    }

    record ResizeVolume(String volume, Bytes size) implements Change {
        @Override
        public String title() {
            return "Grow volume " + volume + " to " + UnitSystem.BINARY.format(size);
        }
    }

    record ConvertVolume(String volume, boolean thin) implements Change {
        @Override
        public String title() {
            return "Make volume " + volume + (thin ? " thin" : " thick");
        }
    }

    record SetPace(String volume, Pace pace) implements Change {
        @Override
        public String title() {
            return "Set the pace of volume " + volume
                    + (pace.byHand() ? " to " + pace.mibps() + " MiB/s" : " by its size");
        }
    }

    record SetAlarm(String volume, int percent) implements Change {
        @Override
        public String title() {
            return "Set the alarm level of volume " + volume + " to " + percent + " %";
        }
    }

    record SetGrowth(String volume, Optional<GrowthRule> rule) implements Change {
        @Override
        public String title() {
            return (rule.isPresent() ? "Let volume " : "Stop letting volume ") + volume + " grow by itself";
        }
    }

    /**
     * Moves a volume to another pool while clients work.
     *
     * @param limitMibps bandwidth it may take, 1 to {@value #MOST_BANDWIDTH}
     */
    record MoveVolume(String volume, String pool, int limitMibps) implements Change {
        public static final int MOST_BANDWIDTH = 100_000;

        public MoveVolume {
            if (limitMibps < 1 || limitMibps > MOST_BANDWIDTH) {
                throw new IllegalArgumentException("bandwidth is " + limitMibps + " MiB/s, must be 1 to 100,000");
            }
        }

        @Override
        public String title() {
            return "Move volume " + volume + " to pool " + pool;
        }
    }

    record RemoveVolume(String volume) implements Change {
        @Override
        public String title() {
            return "Remove volume " + volume;
        }
    }

    /** Makes a whole estate of its definition; only where nothing is yet. */
    record ApplyEstate(EstateDefinition definition) implements Change {
        @Override
        public String title() {
            return "Make an estate of " + Counted.of(definition.servers().size(), "file server") + " and "
                    + Counted.of(definition.volumes().size(), "volume");
        }
    }

    /** A change that an earlier version wrote down and this one can't read; it can only be struck. */
    record Unreadable(String why) implements Change {
        @Override
        public String title() {
            return "A change that can't be read";
        }
    }
}
