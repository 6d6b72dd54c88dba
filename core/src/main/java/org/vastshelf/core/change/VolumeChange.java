package org.vastshelf.core.change;

import org.vastshelf.core.estate.Pace;
import org.vastshelf.core.estate.Volume;
import org.vastshelf.core.unit.Bytes;
import org.vastshelf.core.unit.UnitSystem;

/** Changes of volumes. */
public sealed interface VolumeChange extends Change {

    record ComposeVolume(Volume volume) implements VolumeChange {
        @Override
        public String title() {
            return "Compose volume " + volume.name() + " on " + volume.pool();
        }
    }

    record ResizeVolume(String volume, Bytes size) implements VolumeChange {
        @Override
        public String title() {
            return title(UnitSystem.BINARY);
        }

        @Override
        public String title(UnitSystem units) {
            return "Grow volume " + volume + " to " + units.format(size);
        }
    }

    record ConvertVolume(String volume, boolean thin) implements VolumeChange {
        @Override
        public String title() {
            return "Make volume " + volume + (thin ? " thin" : " thick");
        }
    }

    record SetPace(String volume, Pace pace) implements VolumeChange {
        @Override
        public String title() {
            return "Set the pace of volume " + volume
                    + (pace.byHand() ? " to " + pace.mibps() + " MiB/s" : " by its size");
        }
    }

    record SetAlarm(String volume, int percent) implements VolumeChange {
        @Override
        public String title() {
            return "Set the alarm level of volume " + volume + " to " + percent + " %";
        }
    }

    /**
     * Moves a volume to another pool while clients work.
     *
     * @param limitMibps bandwidth it may take, 1 to {@value #MOST_BANDWIDTH}
     */
    record MoveVolume(String volume, String pool, int limitMibps) implements VolumeChange {
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

    record RemoveVolume(String volume) implements VolumeChange {
        @Override
        public String title() {
            return "Remove volume " + volume;
        }
    }
}
