package org.vastshelf.core.estate;

import java.util.List;
import org.vastshelf.core.layout.Layout;
import org.vastshelf.core.unit.Bytes;

/**
 * Drive groups joined into one space; or, on a managed file server, a reservation without drives.
 *
 * @param members keys of the drives in the layout
 * @param spares keys of its hot spares
 * @param reserve kept back in the pool
 * @param reserved what a managed service keeps for it; zero where there are drives
 */
public record Pool(
        String name,
        String server,
        Layout layout,
        List<String> members,
        List<String> spares,
        Bytes driveReserve,
        Bytes align,
        Bytes reserve,
        Bytes reserved) {

    public Pool {
        members = List.copyOf(members);
        spares = List.copyOf(spares);
    }

    public boolean isReservation() {
        return members.isEmpty();
    }
}
