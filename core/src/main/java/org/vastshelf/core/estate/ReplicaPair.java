package org.vastshelf.core.estate;

import java.util.regex.Pattern;

/**
 * A volume, and a copy of it elsewhere that is kept up.
 *
 * @param volume what clients use
 * @param copy the volume that follows it
 * @param intervalMinutes how often what changed is sent, of a pair by interval: 5 to 10,080
 * @param refuses whether writes are refused while the copy does not answer, of a pair in step; else the pair falls behind
 * @param host the name by which clients reach the share wherever it is; it moves with the share
 * @param address of that name; it moves too
 * @param paused whether nothing is sent
 * @param over whether the two have changed places
 */
public record ReplicaPair(
        String volume,
        String copy,
        Mode mode,
        int intervalMinutes,
        boolean refuses,
        String host,
        String address,
        boolean paused,
        boolean over) {

    public static final int SHORTEST = 5;
    public static final int LONGEST = 10_080;

    private static final Pattern HOST = Pattern.compile("[a-z0-9]([a-z0-9.-]{0,200}[a-z0-9])?");

    /** How the copy follows. */
    public enum Mode {
        IN_STEP("in step"),
        BY_INTERVAL("by interval");

        private final String title;

        Mode(String title) {
            this.title = title;
        }

        public String title() {
            return title;
        }
    }

    public ReplicaPair {
        Names.require("name of the copy", copy);
        if (volume.equals(copy)) {
            throw new IllegalArgumentException("copy is '" + copy + "', must be another volume");
        }
        if (mode == Mode.BY_INTERVAL && (intervalMinutes < SHORTEST || intervalMinutes > LONGEST)) {
            throw new IllegalArgumentException(
                    "interval is " + intervalMinutes + " minutes, must be " + SHORTEST + " to " + LONGEST);
        }
        if (!HOST.matcher(host).matches()) {
            throw new IllegalArgumentException(
                    "name for clients is '" + host + "', must be small letters, digits, dots and hyphens");
        }
        try {
            new Cidr(address + "/32");
        } catch (IllegalArgumentException unreadable) {
            throw new IllegalArgumentException(
                    "address for clients is '" + address + "', must be like 10.20.1.60", unreadable);
        }
    }

    public ReplicaPair withPaused(boolean next) {
        return new ReplicaPair(volume, copy, mode, intervalMinutes, refuses, host, address, next, over);
    }

    public ReplicaPair withOver(boolean next) {
        return new ReplicaPair(volume, copy, mode, intervalMinutes, refuses, host, address, paused, next);
    }
}
