package org.vastshelf.core.layout;

/** How the drives of one group protect each other. The order is the order in which layouts are shown. */
public enum Layout {
    RAID_0("RAID 0", 1),
    RAID_1("RAID 1", 2),
    RAID_10("RAID 10", 4),
    RAID_5("RAID 5", 3),
    RAID_6("RAID 6", 4),
    RAID_TRIPLE("Triple parity", 5),
    RAID_50("RAID 50", 6),
    RAID_60("RAID 60", 8),
    TERRACED_1("Terraced, one-safe", 2),
    TERRACED_2("Terraced, two-safe", 4);

    private final String title;
    private final int leastDrives;

    Layout(String title, int leastDrives) {
        this.title = title;
        this.leastDrives = leastDrives;
    }

    public String title() {
        return title;
    }

    public int leastDrives() {
        return leastDrives;
    }

    /** Reads and writes that one small write costs with so many members: old data and parity are read, new written. */
    public int smallWriteCost(int members) {
        return switch (this) {
            case RAID_0 -> 1;
            case RAID_1 -> members;
            case RAID_10 -> 2;
            case RAID_5, RAID_50, TERRACED_1 -> 4;
            case RAID_6, RAID_60, TERRACED_2 -> 6;
            case RAID_TRIPLE -> 8;
        };
    }

    public boolean isTerraced() {
        return this == TERRACED_1 || this == TERRACED_2;
    }
}
