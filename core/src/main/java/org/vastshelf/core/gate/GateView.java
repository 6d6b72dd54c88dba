package org.vastshelf.core.gate;

import java.util.List;
import java.util.Optional;
import org.vastshelf.core.estate.FileServer;
import org.vastshelf.core.estate.Person;
import org.vastshelf.core.estate.Share;
import org.vastshelf.core.estate.Volume;
import org.vastshelf.core.limit.Account;
import org.vastshelf.core.unit.Bytes;

/**
 * All that the gate looks at, as it is at one moment.
 *
 * @param volumeFree what the volume can still hold
 * @param poolFree what the pool can still give to a thin volume
 * @param present the file that the operation meets, if there is one
 * @param poolLost whether the pool has lost data, so that nothing on it can be trusted
 * @param accounts accounts that a write to the path touches, outermost folder first
 */
public record GateView(
        Share share,
        FileServer server,
        Volume volume,
        Bytes volumeFree,
        Bytes poolFree,
        boolean poolLost,
        Person person,
        Optional<Present> present,
        List<Account> accounts) {

    /** A file that is there, with its length and what it takes on the volume. */
    public record Present(Bytes bytes, Bytes allocated) {}

    public GateView {
        accounts = List.copyOf(accounts);
    }

    /** What may still be allocated: the volume's room, and the pool's too where the volume is thin. */
    public Bytes room() {
        return volume.thin() ? volumeFree.min(poolFree) : volumeFree;
    }
}
