package org.vastshelf.core.change;

import java.time.Duration;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.FileServer;
import org.vastshelf.core.estate.Pool;
import org.vastshelf.core.estate.Usage;
import org.vastshelf.core.ledger.Ledgers;
import org.vastshelf.core.unit.Bytes;

/** Plans pools at a managed service. */
final class ReservationPlans {

    private ReservationPlans() {}

    private static final Bytes LEAST_RESERVATION = Bytes.tib(1);

    private static final Bytes MOST_RESERVATION = Bytes.tib(4_096);

    static void reserve(PlanDraft draft, Usage usage, PoolChange.ReservePool change) {
        String key = "pool " + change.name() + ": ";
        if (isSold(draft, change, key) && reserved(draft, usage, change, key)) {
            draft.fine(key + "price", price(draft.estate(), change));
        }
    }

    private static boolean isSold(PlanDraft draft, PoolChange.ReservePool change, String key) {
        FileServer server = draft.estate().servers().get(change.server());
        if (server == null || !server.managed()) {
            draft.refuse(
                    key + "server", "There is no managed file server '" + change.server() + "'", "compose of drives");
            return false;
        }
        boolean sold = change.size().compareTo(LEAST_RESERVATION) >= 0
                && !change.size().isMoreThan(MOST_RESERVATION)
                && change.size().value() % Bytes.TIB == 0;
        if (!sold) {
            draft.refuse(
                    key + "size",
                    "A reservation of " + change.size().value()
                            + " bytes is not sold, must be whole TiB from 1 to 4,096",
                    "round it to a TiB");
        }
        return sold;
    }

    private static boolean reserved(PlanDraft draft, Usage usage, PoolChange.ReservePool change, String key) {
        Pool before = draft.estate().pools().get(change.name());
        if (before == null) {
            draft.step(new PoolStep.CreatePool(
                    Pool.reservation(change.name(), change.server(), change.size(), change.pace())));
            return true;
        }
        if (!before.isReservation() || !before.server().equals(change.server())) {
            draft.refuse(key + "name", "The pool name '" + change.name() + "' is taken", "choose another name");
            return false;
        }
        Bytes held = Ledgers.usable(draft.estate(), before)
                .minus(Ledgers.ofPool(draft.estate(), usage, before).free());
        if (held.plus(before.reserve()).isMoreThan(change.size())) {
            draft.refuse(
                    key + "held",
                    "Pool " + before.name() + " has " + draft.units().format(held) + " in use",
                    "reserve at least as much");
            return false;
        }
        draft.step(new PoolStep.ChangePool(
                change.title(draft.units()),
                Duration.ofSeconds(60),
                before.name(),
                new RoomEdit.Reserve(change.size(), change.pace(), before.reserved(), before.pace())));
        return true;
    }

    private static String price(Estate estate, PoolChange.ReservePool change) {
        long tib = change.size().value() / Bytes.TIB;
        long each =
                estate.servers().get(change.server()).paces().of(change.pace()).cents();
        return "%d TiB × %d.%02d a month = %d.%02d a month"
                .formatted(tib, each / 100, each % 100, tib * each / 100, tib * each % 100);
    }
}
