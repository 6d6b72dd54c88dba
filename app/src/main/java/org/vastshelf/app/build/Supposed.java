package org.vastshelf.app.build;

import java.util.List;
import java.util.stream.Stream;
import org.vastshelf.app.kit.Figures;
import org.vastshelf.app.kit.LedgerPicture;
import org.vastshelf.app.kit.LedgerTable;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.Usage;
import org.vastshelf.core.ledger.ByteLedger;
import org.vastshelf.core.ledger.Ledgers;
import org.vastshelf.core.unit.Bytes;

/** The ledger of a pool as it is and as it would be, to one scale. */
public record Supposed(
        String pool, LedgerPicture before, LedgerPicture after, String become, List<LedgerTable.Row> rows) {

    private static final int BAR = 700;

    static Supposed of(Figures fmt, Estate estate, Estate supposed, Usage held, String pool) {
        ByteLedger before = Ledgers.ofPool(estate, held, estate.pools().get(pool));
        ByteLedger after = Ledgers.ofPool(supposed, held, supposed.pools().get(pool));
        Bytes whole = before.label().max(after.label());
        LedgerTable table = LedgerTable.of(fmt, after, "", "on the labels", "");
        return new Supposed(
                pool,
                LedgerPicture.draw(before, whole, BAR),
                LedgerPicture.draw(after, whole, BAR),
                fmt.size(Ledgers.usable(estate, estate.pools().get(pool))) + " usable become "
                        + fmt.size(Ledgers.usable(supposed, supposed.pools().get(pool))),
                Stream.concat(Stream.of(table.whole()), table.rows().stream()).toList());
    }
}
