package org.vastshelf.app.kit;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import org.vastshelf.core.ledger.ByteLedger;
import org.vastshelf.core.unit.Bytes;

/** A byte ledger as a bar of segments, up to a common width. */
public record LedgerPicture(ByteLedger ledger, List<Segment> segments, int width) {

    /** One line of the ledger as a stretch of the bar, in px. */
    public record Segment(String kind, String title, int x, int width, Bytes bytes) {

        public String said(Figures fmt) {
            return title + ": " + fmt.size(bytes);
        }
    }

    /** Draws a ledger; {@code whole} bytes are as long as {@code width} px. */
    public static LedgerPicture draw(ByteLedger ledger, Bytes whole, int width) {
        List<Segment> segments = new ArrayList<>();
        long before = 0;
        for (ByteLedger.Line line : ledger.lines()) {
            int from = place(before, whole, width);
            before += line.bytes().value();
            int to = place(before, whole, width);
            segments.add(new Segment(
                    line.kind().name().toLowerCase(Locale.ROOT),
                    line.title(),
                    from,
                    Math.max(0, to - from),
                    line.bytes()));
        }
        return new LedgerPicture(ledger, segments, Math.max(1, place(before, whole, width)));
    }

    private static int place(long bytes, Bytes whole, int width) {
        return whole.isZero() ? 0 : (int) Math.round((double) bytes / whole.value() * width);
    }

    /** What it draws, in a sentence. */
    public String said(Figures fmt) {
        return "Byte ledger: free " + fmt.size(ledger.free()) + " of " + fmt.size(ledger.label());
    }
}
