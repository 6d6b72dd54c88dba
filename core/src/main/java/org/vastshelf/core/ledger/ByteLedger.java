package org.vastshelf.core.ledger;

import java.util.ArrayList;
import java.util.List;
import org.vastshelf.core.unit.Bytes;

/**
 * The lines that lead from the label bytes to the free bytes. They add up exactly; a ledger that does not cannot be
 * made.
 *
 * @param label bytes on the labels of the drives, or what a managed service reserved
 * @param lines where they went, in order, ending with what is free
 * @param beyond what volumes were promised and the pool does not have; not part of the sum
 * @param saved what files would take more if they had nothing in common and were not packed; not part of the sum
 */
public record ByteLedger(Bytes label, List<Line> lines, Bytes beyond, Bytes saved) {

    public static final ByteLedger EMPTY = new ByteLedger(Bytes.ZERO, List.of(), Bytes.ZERO, Bytes.ZERO);

    /** One line: what the bytes are, and how the figure comes about. */
    public record Line(ByteKind kind, String title, Bytes bytes, String how) {}

    public ByteLedger {
        lines = List.copyOf(lines);
        Bytes sum = Bytes.sum(lines.stream().map(Line::bytes).toList());
        if (!sum.equals(label)) {
            throw new IllegalArgumentException(
                    "ledger lines add up to " + sum.value() + " bytes, must be " + label.value());
        }
    }

    public Bytes of(ByteKind kind) {
        return Bytes.sum(
                lines.stream().filter(l -> l.kind() == kind).map(Line::bytes).toList());
    }

    public Bytes free() {
        return of(ByteKind.FREE);
    }

    /** Both ledgers as one; lines of the same title are joined. */
    public ByteLedger plus(ByteLedger other) {
        List<Line> joined = new ArrayList<>(lines);
        for (Line line : other.lines) {
            int at = titles(joined).indexOf(line.title());
            if (at < 0) {
                joined.add(line);
            } else {
                Line mine = joined.get(at);
                joined.set(at, new Line(mine.kind(), mine.title(), mine.bytes().plus(line.bytes()), "sum over pools"));
            }
        }
        joined.sort(java.util.Comparator.comparingInt(l -> Ledgers.ORDER.indexOf(l.title())));
        return new ByteLedger(label.plus(other.label), joined, beyond.plus(other.beyond), saved.plus(other.saved));
    }

    private static List<String> titles(List<Line> lines) {
        return lines.stream().map(Line::title).toList();
    }
}
