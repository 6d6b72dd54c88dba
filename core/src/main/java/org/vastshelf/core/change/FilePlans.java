package org.vastshelf.core.change;

import java.time.Duration;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.Pool;
import org.vastshelf.core.estate.Share;
import org.vastshelf.core.estate.Volume;
import org.vastshelf.core.unit.Bytes;
import org.vastshelf.core.volume.PoolPace;

/** Plans what is done to files. */
final class FilePlans {

    private FilePlans() {}

    static void plan(PlanDraft draft, FileChange change) {
        switch (change) {
            case FileChange.BringBack back -> bringBack(draft, back);
        }
    }

    private static void bringBack(PlanDraft draft, FileChange.BringBack change) {
        Estate estate = draft.estate();
        String key = "bring back " + change.share() + ": ";
        Share share = estate.shares().get(change.share());
        if (share == null) {
            draft.refuse(key + "share", "There is no share '" + change.share() + "'", "");
            return;
        }
        Volume volume = estate.volumes().get(share.volume());
        Pool pool = estate.pools().get(volume.pool());
        if (pool.isLost()) {
            draft.refuse(key + "pool", "Pool " + pool.name() + " has lost data, its snapshots with it", "");
            return;
        }
        if (change.onto() == FileChange.Onto.EXACT) {
            draft.confirm(key + "exact", "What is in '" + change.to() + "' and was not there then goes");
        }
        draft.fine(key + "undo", "The state before is kept as a snapshot, so that it can be undone from there");
        // What is brought back is read and written on the same drives.
        double seconds = 2.0 * change.bytes() / (Math.max(1, PoolPace.mibps(estate, pool)) * Bytes.MIB);
        draft.step(new FileStep.KeepBefore(volume.name(), change));
        draft.step(new FileStep.BringFilesBack(
                volume.name(), change, Duration.ofSeconds(Math.max(1, Math.round(seconds)))));
    }
}
