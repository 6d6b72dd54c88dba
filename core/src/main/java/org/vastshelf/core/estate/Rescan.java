package org.vastshelf.core.estate;

import java.util.List;

/** Port to the file servers: what hardware they see beside what they use. */
public interface Rescan {

    /** Enclosures that a file server sees, whether the estate knows them or not. */
    List<Arrival> of(String server);

    /** The estate with what was seen and is not part of it as arrivals; those that went are forgotten. */
    static Estate merged(Estate estate, String server, List<Arrival> seen) {
        Estate next = estate;
        for (Arrival old : estate.arrivals().values()) {
            if (old.enclosure().server().equals(server)) {
                next = next.without(Kinds.ARRIVAL, old.enclosure().key());
            }
        }
        for (Arrival arrival : seen) {
            if (!estate.enclosures().containsKey(arrival.enclosure().key())) {
                next = next.with(Kinds.ARRIVAL, arrival);
            }
        }
        return next;
    }
}
