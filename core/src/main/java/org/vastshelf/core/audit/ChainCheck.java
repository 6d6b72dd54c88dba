package org.vastshelf.core.audit;

import java.util.Arrays;
import java.util.Iterator;
import java.util.Locale;
import java.util.Optional;
import java.util.function.LongFunction;

/**
 * Checks a stored chain and names the first line that is not as it was written. A line that was changed, removed,
 * inserted or swapped is told by which hashes still fit, as long as nobody computed the hashes behind it anew; against
 * that a head that was noted elsewhere helps. Where a line and its own hash were changed together, the line behind it
 * is the first that does not fit, and both are named.
 */
public final class ChainCheck {

    private ChainCheck() {}

    /** A line with the hash that is stored beside it. */
    public record Kept(AuditLine line, byte[] hash) {}

    /** The end of a chain: the number and the hash of its last line; number 0 before the first. */
    public record Head(long number, byte[] hash) {}

    /** What was found. */
    public sealed interface Finding {
        /** In words, with the numbers. */
        String text();
    }

    /** Every line is as it was written. */
    public record Whole(long lines) implements Finding {
        @Override
        public String text() {
            return String.format(Locale.ROOT, "All %,d lines are as they were written", lines);
        }
    }

    public record Changed(long number) implements Finding {
        @Override
        public String text() {
            return "Line " + number + " was changed"
                    + (number > 1 ? ", or line " + (number - 1) + " with its hash" : "");
        }
    }

    public record Removed(long number) implements Finding {
        @Override
        public String text() {
            return "Line " + number + " was removed";
        }
    }

    public record Inserted(long number) implements Finding {
        @Override
        public String text() {
            return "Line " + number + " was inserted";
        }
    }

    public record Swapped(long number, long other) implements Finding {
        @Override
        public String text() {
            return "Lines " + number + " and " + other + " were swapped";
        }
    }

    /** The chain holds together and does not pass through a head that somebody noted: it was computed anew. */
    public record NotAsNoted(long number) implements Finding {
        @Override
        public String text() {
            return "Line " + number + " does not have the hash that was noted: the chain was computed anew";
        }
    }

    /**
     * Checks a chain from its first line.
     *
     * @param from the stored lines from a number on, ascending
     * @param head the stored end
     * @param noted an end that was noted at an earlier time
     */
    public static Finding of(LongFunction<Iterator<Kept>> from, Head head, Optional<Head> noted) {
        byte[] before = AuditLine.GENESIS;
        long number = 1;
        for (Iterator<Kept> lines = from.apply(1); lines.hasNext(); number++) {
            Kept kept = lines.next();
            if (number > head.number) {
                return new Inserted(number);
            }
            if (kept.line.number() != number) {
                return new Removed(number);
            }
            if (!fits(kept.line, before, kept.hash)) {
                return wrong(from, number, before, kept);
            }
            if (noted.isPresent() && noted.get().number == number && !Arrays.equals(noted.get().hash, kept.hash)) {
                return new NotAsNoted(number);
            }
            before = kept.hash;
        }
        if (number <= head.number) {
            return new Removed(number);
        }
        boolean cut = noted.isPresent() && noted.get().number >= number;
        return Arrays.equals(before, head.hash)
                ? cut ? new Removed(number) : new Whole(number - 1)
                : new Changed(number - 1);
    }

    private static boolean fits(AuditLine line, byte[] before, byte[] hash) {
        return Arrays.equals(line.hashAfter(before), hash);
    }

    private static Finding wrong(LongFunction<Iterator<Kept>> from, long number, byte[] before, Kept here) {
        Iterator<Kept> later = from.apply(number + 1);
        if (later.hasNext()) {
            Kept next = later.next();
            if (fits(next.line.numbered(number), before, next.hash)) {
                boolean turned = fits(here.line.numbered(number + 1), next.hash, here.hash);
                return turned ? new Swapped(number, number + 1) : new Inserted(number);
            }
            if (fits(next.line.numbered(number + 2), here.hash, next.hash)) {
                return new Removed(number);
            }
            if (isMeantFor(number, before, here, next)) {
                return new Swapped(number, next.line.number());
            }
        }
        while (later.hasNext()) {
            Kept other = later.next();
            if (isMeantFor(number, before, here, other)) {
                return new Swapped(number, other.line.number());
            }
        }
        return new Changed(number);
    }

    /** Whether the other line belongs to this number, whether or not its hash went with it. */
    private static boolean isMeantFor(long number, byte[] before, Kept here, Kept other) {
        byte[] hash = other.line.numbered(number).hashAfter(before);
        return Arrays.equals(hash, here.hash) || Arrays.equals(hash, other.hash);
    }
}
