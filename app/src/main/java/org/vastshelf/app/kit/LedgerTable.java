package org.vastshelf.app.kit;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import org.vastshelf.core.ledger.ByteKind;
import org.vastshelf.core.ledger.ByteLedger;
import org.vastshelf.core.unit.UnitSystem;

/** A byte ledger with its sum, line by line, below its drawing. */
public record LedgerTable(LedgerPicture picture, String said, String unit, Row whole, List<Row> rows) {

    private static final int BAR = 780;
    private static final String SAVED = "files would take so much more with nothing in common, and not packed";
    private static final String BEYOND = "promised or used and not there; not part of the sum";

    /**
     * A line of the sum.
     *
     * @param id by which the drawing leads to it
     * @param kind of byte, as the pictures have it
     */
    public record Row(String id, String kind, String title, Figure size, String exact, String how) {}

    /**
     * Writes a ledger out.
     *
     * @param subject whose it is, such as "pool oak"; empty for nobody's that has a name
     * @param first what its first line is called
     * @param how where that comes from
     */
    public static LedgerTable of(Figures fmt, ByteLedger ledger, String subject, String first, String how) {
        LedgerPicture picture = LedgerPicture.draw(ledger, ledger.label(), BAR);
        List<Row> rows = new ArrayList<>();
        for (ByteLedger.Line line : ledger.lines()) {
            String kind = line.kind().name().toLowerCase(Locale.ROOT);
            String sign = line.kind() == ByteKind.FREE ? "= " : "− ";
            rows.add(new Row(
                    "line-" + rows.size(),
                    kind,
                    sign + line.title(),
                    subject.isEmpty()
                            ? Figure.of(fmt.size(line.bytes()))
                            : fmt.figure(subject + " " + line.title(), line.bytes()),
                    fmt.exact(line.bytes()),
                    line.how()));
        }
        if (!ledger.beyond().isZero()) {
            rows.add(new Row(
                    "line-beyond",
                    "beyond",
                    "beyond its end",
                    Figure.of(fmt.size(ledger.beyond())),
                    fmt.exact(ledger.beyond()),
                    BEYOND));
        }
        if (!ledger.saved().isZero()) {
            rows.add(new Row(
                    "line-saved",
                    "saved",
                    "saved",
                    Figure.of(fmt.size(ledger.saved())),
                    fmt.exact(ledger.saved()),
                    SAVED));
        }
        return new LedgerTable(
                picture,
                picture.said(fmt),
                fmt.units() == UnitSystem.BINARY ? "in binary units" : "in decimal units",
                new Row(
                        "line-whole",
                        "none",
                        first,
                        Figure.of(fmt.size(ledger.label())),
                        fmt.exact(ledger.label()),
                        how),
                rows);
    }
}
