package org.vastshelf.core.estate;

import java.util.List;
import java.util.Map;
import org.vastshelf.core.unit.Bytes;

/**
 * What an order that was carried out still needs and has not got yet. Nobody else may take it.
 *
 * @param order number of the order
 * @param drives keys of unclaimed drives that it will put to use
 * @param room bytes of free space that it will take, by pool
 */
public record Hold(long order, List<String> drives, Map<String, Bytes> room) {

    public Hold {
        drives = List.copyOf(drives);
        room = Map.copyOf(room);
    }

    public String key() {
        return String.valueOf(order);
    }

    public boolean isEmpty() {
        return drives.isEmpty() && room.isEmpty();
    }
}
