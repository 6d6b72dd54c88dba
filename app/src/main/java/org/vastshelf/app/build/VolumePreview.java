package org.vastshelf.app.build;

import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;
import org.vastshelf.app.kit.Figures;
import org.vastshelf.app.kit.LedgerPicture;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.FileServer;
import org.vastshelf.core.estate.Pool;
import org.vastshelf.core.estate.Volume;
import org.vastshelf.core.ledger.ByteKind;
import org.vastshelf.core.ledger.ByteLedger;
import org.vastshelf.core.volume.PaceBudget;

/**
 * What a volume that is being composed would take of its pool.
 *
 * @param pace empty where its size can't be read
 * @param after empty where it can't be made
 * @param problem why it can't; empty where it can
 */
public record VolumePreview(
        String pool,
        String pace,
        String budget,
        LedgerPicture before,
        Optional<LedgerPicture> after,
        List<Row> rows,
        String problem) {

    private static final int BAR = 420;
    private static final List<ByteKind> KINDS =
            List.of(ByteKind.LIVE, ByteKind.SNAPSHOTS, ByteKind.PROMISED, ByteKind.FREE);

    /** A line of the ledger. */
    public record Row(String title, String before, String after) {}

    static VolumePreview possible(
            Figures fmt, Estate estate, Pool pool, Volume volume, ByteLedger before, ByteLedger after) {
        return new VolumePreview(
                pool.name(),
                pace(fmt, estate, pool, volume),
                budget(fmt, estate, pool),
                LedgerPicture.draw(before, before.label(), BAR),
                Optional.of(LedgerPicture.draw(after, after.label(), BAR)),
                Stream.concat(
                                KINDS.stream()
                                        .map(kind -> new Row(
                                                kind.title(), fmt.exact(before.of(kind)), fmt.exact(after.of(kind)))),
                                Stream.of(new Row(
                                        "promised beyond its end",
                                        fmt.exact(before.beyond()),
                                        fmt.exact(after.beyond()))))
                        .toList(),
                "");
    }

    static VolumePreview refused(
            Figures fmt, Estate estate, Pool pool, Optional<Volume> volume, ByteLedger before, String problem) {
        return new VolumePreview(
                pool.name(),
                volume.map(v -> pace(fmt, estate, pool, v)).orElse(""),
                budget(fmt, estate, pool),
                LedgerPicture.draw(before, before.label(), BAR),
                Optional.empty(),
                List.of(),
                problem);
    }

    private static String pace(Figures fmt, Estate estate, Pool pool, Volume volume) {
        return "Pace " + fmt.whole(volume.pace().of(volume.size(), estate.terms(pool))) + " MiB/s";
    }

    private static String budget(Figures fmt, Estate estate, Pool pool) {
        PaceBudget budget = PaceBudget.of(estate, pool);
        FileServer server = estate.servers().get(pool.server());
        return "of " + fmt.whole(budget.budget()) + " that " + pool.name() + " gives ("
                + pool.pace().title() + "), " + fmt.whole(budget.left()) + " not given by hand"
                + (server.managed() ? "; " + server.sizes().text() : "");
    }
}
