package org.vastshelf.core.estate;

import java.util.Map;
import org.vastshelf.core.unit.Bytes;

/** What volumes hold right now, by volume name. */
public record Usage(Map<String, Held> byVolume) {

    public static final Usage NONE = new Usage(Map.of());

    public Usage {
        byVolume = Map.copyOf(byVolume);
    }

    /** Bytes of live files, allocated, and bytes that only snapshots hold. */
    public record Held(Bytes live, Bytes snapshots) {
        static final Held NOTHING = new Held(Bytes.ZERO, Bytes.ZERO);

        public Bytes used() {
            return live.plus(snapshots);
        }
    }

    public Held of(String volume) {
        return byVolume.getOrDefault(volume, Held.NOTHING);
    }
}
