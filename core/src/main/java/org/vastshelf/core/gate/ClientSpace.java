package org.vastshelf.core.gate;

import java.util.List;
import java.util.Optional;
import org.vastshelf.core.estate.FilePath;
import org.vastshelf.core.estate.Volume;
import org.vastshelf.core.limit.Account;
import org.vastshelf.core.unit.Bytes;

/**
 * What a client sees as the size of a share and what is left of it: total = min(Z, volume),
 * free = min(Z − used, volume free, pool free if thin), never negative, with Z the tightest stop level.
 */
public record ClientSpace(Bytes total, Bytes free) {

    /** At the folder that holds this path. */
    public static ClientSpace of(GateView.Limits limits, Volume volume, Bytes room, FilePath path) {
        Bytes total = volume.size();
        Bytes free = room;
        for (List<Account> here : limits.accounts().along(path)) {
            for (Account account : here) {
                Optional<Bytes> stop = account.rule().stopAt();
                if (stop.isPresent()) {
                    total = total.min(stop.get());
                    free = free.min(stop.get().minusOrZero(account.used()));
                }
            }
        }
        return new ClientSpace(total, free);
    }
}
