package org.vastshelf.core.change;

import java.util.Optional;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.FileServer;
import org.vastshelf.core.estate.Pool;
import org.vastshelf.core.estate.Usage;
import org.vastshelf.core.estate.Volume;
import org.vastshelf.core.ledger.ByteLedger;
import org.vastshelf.core.ledger.Ledgers;
import org.vastshelf.core.unit.Bytes;
import org.vastshelf.core.unit.UnitSystem;

/** Plans volumes. */
final class VolumePlans {

    private VolumePlans() {}

    static void plan(PlanDraft draft, Usage usage, VolumeChange change) {
        switch (change) {
            case VolumeChange.ComposeVolume compose -> compose(draft, usage, compose.volume());
            case VolumeChange.ResizeVolume resize -> VolumeEdits.resize(draft, usage, resize);
            case VolumeChange.ConvertVolume convert -> VolumeEdits.convert(draft, usage, convert);
            case VolumeChange.SetPace pace -> VolumeEdits.setPace(draft, pace);
            case VolumeChange.SetAlarm alarm -> VolumeEdits.setAlarm(draft, usage, alarm);
            case VolumeChange.MoveVolume move -> MovePlans.move(draft, usage, move);
            case VolumeChange.RemoveVolume remove -> VolumeEdits.remove(draft, usage, remove.volume());
        }
    }

    static void compose(PlanDraft draft, Usage usage, Volume volume) {
        Estate estate = draft.estate();
        String key = "volume " + volume.name() + ": ";
        Pool pool = estate.pools().get(volume.pool());
        if (estate.volumes().containsKey(volume.name())) {
            draft.refuse(key + "name", "The volume name '" + volume.name() + "' is taken", "choose another name");
        } else if (pool == null) {
            draft.refuse(key + "pool", "There is no pool '" + volume.pool() + "'", "compose it first");
        } else if (isPossible(draft, usage, volume, pool, key)) {
            draft.step(new VolumeStep.CreateVolume(volume));
            promises(draft, usage, pool, key);
            draft.permanent("Of " + volume.name() + " can't be changed: block size " + volume.blockSize() / Bytes.KIB
                    + " KiB; " + volume.kind().title() + "; " + (volume.encrypted() ? "encrypted" : "not encrypted")
                    + ". Undoing means copying its files to another volume.");
        }
    }

    private static boolean isPossible(PlanDraft draft, Usage usage, Volume volume, Pool pool, String key) {
        FileServer server = draft.estate().servers().get(pool.server());
        Bytes free = Ledgers.ofPool(draft.estate(), usage, pool).free();
        Optional<String> unfit = server.sizes().problem(volume.size());
        if (unfit.isPresent()) {
            draft.refuse(
                    key + "size",
                    "A volume of " + server.name() + " can't have this size: it is " + unfit.get(),
                    "choose one of these sizes, or another pool");
            return false;
        }
        if (volume.thin() && pool.isTiered()) {
            draft.refuse(
                    key + "thin",
                    "Thin volumes are not possible on " + pool.name() + ", which has a fast and a bulk part",
                    "make it thick, or choose another pool");
            return false;
        }
        if (!volume.thin() && volume.size().isMoreThan(free)) {
            draft.refuse(
                    key + "space",
                    "A thick volume of " + text(volume.size()) + " does not fit: " + pool.name() + " has " + text(free)
                            + " free",
                    "at most " + free.value() + " bytes, or thin");
            return false;
        }
        return true;
    }

    private static void promises(PlanDraft draft, Usage usage, Pool pool, String key) {
        ByteLedger after = Ledgers.ofPool(draft.estate(), usage, pool);
        Bytes usable = Ledgers.usable(draft.estate(), pool);
        if (after.beyond().isZero()) {
            draft.fine(key + "promise", "All that " + pool.name() + " promises is there");
        } else {
            draft.watch(
                    key + "promise",
                    pool.name() + " promises " + text(usable.plus(after.beyond())) + " of " + text(usable) + ", "
                            + text(after.beyond()) + " beyond its end",
                    "make it smaller, or watch the fill date");
        }
    }

    private static String text(Bytes bytes) {
        return UnitSystem.BINARY.format(bytes);
    }
}
