package org.vastshelf.core.estate;

/**
 * A volume that began as a snapshot of another and shares its blocks: it takes room only as it differs.
 *
 * @param volume the clone
 * @param source the volume whose snapshot it shares blocks with
 * @param snapshot number of that snapshot, which stays as long as the clone shares
 */
public record CloneOf(String volume, String source, int snapshot) {

    public CloneOf {
        Names.require("name of the clone", volume);
        if (volume.equals(source)) {
            throw new IllegalArgumentException(
                    "name of the clone is '" + volume + "', must be another than its source's");
        }
    }
}
