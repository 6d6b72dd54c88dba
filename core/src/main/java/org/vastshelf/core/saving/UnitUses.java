package org.vastshelf.core.saving;

import java.util.ArrayList;
import java.util.List;

/** How often units of one kind are used, as spans of numbers; what nobody uses is in no span. */
public final class UnitUses {

    private UnitUses() {}

    /**
     * Units that are used equally often.
     *
     * @param past number behind the last
     * @param uses at least 1
     */
    public record Span(long first, long past, long uses) {}

    /**
     * What a change makes of spans.
     *
     * @param spans those that take the place of the ones that were given, ascending
     * @param bytes that are kept from now on, less those that are no more
     */
    public record Changed(List<Span> spans, long bytes) {}

    /**
     * Uses units so much more often, or less.
     *
     * @param spans all that have units in common with the run, ascending and apart from each other
     * @param sign 1 or −1
     * @throws IllegalStateException when units are used less often than nothing
     */
    public static Changed change(List<Span> spans, UnitRun run, int sign) {
        long more = Math.multiplyExact(sign, run.times());
        List<Span> next = new ArrayList<>();
        long come = 0;
        long at = run.first();
        for (Span span : spans) {
            come += add(next, new Span(at, span.first, 0), more);
            add(next, new Span(span.first, Math.min(at, span.past), span.uses), 0);
            long from = Math.max(at, span.first);
            long to = Math.min(span.past, run.past());
            come += add(next, new Span(from, to, span.uses), more);
            add(next, new Span(Math.max(to, span.first), span.past, span.uses), 0);
            at = Math.max(at, to);
        }
        come += add(next, new Span(at, run.past(), 0), more);
        long kept = run.kind().once() ? come : Math.multiplyExact(more, run.count());
        return new Changed(
                List.copyOf(next), Math.multiplyExact(kept, (long) run.kind().packed()));
    }

    /** Adds a span that is used so much more often; says how many units come to be there by that, or go. */
    private static long add(List<Span> spans, Span span, long more) {
        if (span.first >= span.past) {
            return 0;
        }
        long uses = span.uses + more;
        if (uses < 0) {
            throw new IllegalStateException("units are used " + uses + " times");
        }
        if (uses > 0) {
            Span last = spans.isEmpty() ? null : spans.getLast();
            if (last != null && last.past == span.first && last.uses == uses) {
                spans.set(spans.size() - 1, new Span(last.first, span.past, uses));
            } else {
                spans.add(new Span(span.first, span.past, uses));
            }
        }
        long units = span.past - span.first;
        return span.uses == 0 && uses > 0 ? units : span.uses > 0 && uses == 0 ? -units : 0;
    }
}
