package org.vastshelf.core.change;

import java.util.List;
import org.vastshelf.core.estate.Names;
import org.vastshelf.core.estate.PaceClass;
import org.vastshelf.core.layout.Layout;
import org.vastshelf.core.unit.Bytes;
import org.vastshelf.core.unit.Counted;
import org.vastshelf.core.unit.UnitSystem;

/** Changes of pools. */
public sealed interface PoolChange extends Change {

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
            implements PoolChange {
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

    /** Adds drives to a pool as a group of their own; {@code fast} ones in front of the bulk. */
    record AddGroup(String pool, List<String> drives, Layout layout, boolean fast, boolean asCache)
            implements PoolChange {
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
    record RemoveGroup(String pool, int group) implements PoolChange {
        @Override
        public String title() {
            return "Take group " + (group + 1) + " out of pool " + pool;
        }
    }

    /** Adds drives to a group that is there; {@code group} counts from 0. */
    record AddDrives(String pool, int group, List<String> drives) implements PoolChange {
        public AddDrives {
            drives = List.copyOf(drives);
        }

        @Override
        public String title() {
            return "Add " + Counted.of(drives.size(), "drive") + " to group " + (group + 1) + " of pool " + pool;
        }
    }

    record AddSpares(String pool, List<String> drives) implements PoolChange {
        public AddSpares {
            drives = List.copyOf(drives);
        }

        @Override
        public String title() {
            return title(UnitSystem.BINARY);
        }

        @Override
        public String title(UnitSystem units) {
            return "Keep " + Counted.of(drives.size(), "hot spare") + " for pool " + pool;
        }
    }

    record ReleaseSpares(String pool, List<String> drives) implements PoolChange {
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
    record ReplaceDrives(String pool, List<Swap> swaps, boolean takeSpace) implements PoolChange {
        public ReplaceDrives {
            swaps = List.copyOf(swaps);
        }

        @Override
        public String title() {
            return "Replace " + Counted.of(swaps.size(), "drive") + " of pool " + pool;
        }
    }

    /** Lets a pool take the space of larger drives that were put in before. */
    record TakeSpace(String pool) implements PoolChange {
        @Override
        public String title() {
            return "Let pool " + pool + " take its drives' new space";
        }
    }

    record SetPoolReserve(String pool, Bytes reserve) implements PoolChange {
        @Override
        public String title() {
            return "Keep " + UnitSystem.BINARY.format(reserve) + " of pool " + pool + " back";
        }
    }

    /** Makes or changes a pool at a managed service. */
    record ReservePool(String name, String server, Bytes size, PaceClass pace) implements PoolChange {
        public ReservePool {
            Names.require("pool name", name);
        }

        @Override
        public String title() {
            return title(UnitSystem.BINARY);
        }

        @Override
        public String title(UnitSystem units) {
            return "Reserve " + units.format(size) + ", " + pace.title() + ", as pool " + name;
        }
    }

    record DissolvePool(String pool) implements PoolChange {
        @Override
        public String title() {
            return "Dissolve pool " + pool;
        }
    }
}
