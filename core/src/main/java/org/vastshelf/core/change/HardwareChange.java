package org.vastshelf.core.change;

import java.util.List;

/** Changes of what stands in a rack. */
public sealed interface HardwareChange extends Change {

    /** Takes drives out of their bays, and out of all that they belong to before. */
    record RemoveDrives(List<String> drives) implements HardwareChange {
        public RemoveDrives {
            drives = List.copyOf(drives);
        }

        @Override
        public String title() {
            return "Take " + (drives.size() == 1 ? "drive " + drives.getFirst() : drives.size() + " drives") + " out";
        }
    }

    /** Takes in an enclosure that a rescan has seen. */
    record AddEnclosure(String server, int number) implements HardwareChange {
        @Override
        public String title() {
            return "Add enclosure " + number + " of " + server;
        }
    }

    /** Takes an enclosure out, with all that has to be done before. */
    record RemoveEnclosure(String server, int number) implements HardwareChange {
        @Override
        public String title() {
            return "Remove enclosure " + number + " of " + server;
        }
    }

    record RestartNode(String server, int node) implements HardwareChange {
        @Override
        public String title() {
            return "Restart node " + node + " of " + server;
        }
    }
}
