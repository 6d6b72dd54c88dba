package org.vastshelf.core.audit;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Instant;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.vastshelf.core.audit.ChainCheck.Head;
import org.vastshelf.core.audit.ChainCheck.Kept;

class ChainCheckTest {

    private static final int LINES = 40;

    private static AuditLine line(long number, String path) {
        return new AuditLine(
                number,
                Instant.parse("2026-03-02T08:00:00Z").plusSeconds(number),
                "suki",
                "10.20.4.20",
                "film",
                "WRITE",
                path,
                "",
                5,
                "ALLOWED",
                "allowed");
    }

    private static List<Kept> chain(int count) {
        List<Kept> chain = new ArrayList<>();
        byte[] before = AuditLine.GENESIS;
        for (int i = 1; i <= count; i++) {
            AuditLine line = line(i, "/file " + i);
            before = line.hashAfter(before);
            chain.add(new Kept(line, before));
        }
        return chain;
    }

    private static final Head HEAD = new Head(LINES, chain(LINES).getLast().hash());

    private static String check(List<Kept> chain) {
        return check(chain, HEAD, Optional.empty());
    }

    private static String check(List<Kept> chain, Head head, Optional<Head> noted) {
        return ChainCheck.of(
                        from -> chain.stream()
                                .filter(k -> k.line().number() >= from)
                                .iterator(),
                        head,
                        noted)
                .text();
    }

    /** Numbers closed up again, hashes left as they are. */
    private static List<Kept> renumbered(List<Kept> chain) {
        List<Kept> closed = new ArrayList<>();
        for (Kept kept : chain) {
            closed.add(new Kept(kept.line().numbered(closed.size() + 1L), kept.hash()));
        }
        return closed;
    }

    @Test
    void a_chain_that_nobody_touched_is_whole() {
        assertThat(check(chain(LINES))).isEqualTo("All 40 lines are as they were written");
        assertThat(check(List.of(), new Head(0, AuditLine.GENESIS), Optional.empty()))
                .isEqualTo("All 0 lines are as they were written");
    }

    @Test
    void the_changed_line_is_named_wherever_it_is() {
        for (int at = 1; at <= LINES; at++) {
            List<Kept> chain = chain(LINES);
            chain.set(at - 1, new Kept(line(at, "/another"), chain.get(at - 1).hash()));
            assertThat(check(chain)).startsWith("Line " + at + " was changed");
        }
    }

    @Test
    void a_line_changed_with_its_hash_shows_at_the_next_one() {
        List<Kept> chain = chain(LINES);
        AuditLine other = line(9, "/another");
        chain.set(8, new Kept(other, other.hashAfter(chain.get(7).hash())));
        assertThat(check(chain)).isEqualTo("Line 10 was changed, or line 9 with its hash");
        List<Kept> last = chain(LINES);
        AuditLine end = line(LINES, "/another");
        last.set(LINES - 1, new Kept(end, end.hashAfter(last.get(LINES - 2).hash())));
        assertThat(check(last)).startsWith("Line 40 was changed");
    }

    @Test
    void the_removed_line_is_named_with_and_without_closing_the_gap() {
        for (int at = 1; at <= LINES; at++) {
            List<Kept> chain = chain(LINES);
            chain.remove(at - 1);
            assertThat(check(chain)).isEqualTo("Line " + at + " was removed");
            if (at < LINES - 1) {
                assertThat(check(renumbered(chain))).isEqualTo("Line " + at + " was removed");
            }
        }
    }

    @Test
    void the_inserted_line_is_named() {
        for (int at = 1; at <= LINES; at++) {
            List<Kept> chain = chain(LINES);
            chain.add(at - 1, new Kept(line(at, "/never happened"), new byte[32]));
            assertThat(check(renumbered(chain))).isEqualTo("Line " + at + " was inserted");
        }
        List<Kept> longer = chain(LINES + 1);
        assertThat(check(longer)).isEqualTo("Line 41 was inserted");
    }

    @Test
    void swapped_lines_are_named_both_with_and_without_their_hashes() {
        for (int other : new int[] {8, 9, 40}) {
            List<Kept> whole = chain(LINES);
            Collections.swap(whole, 6, other - 1);
            assertThat(check(renumbered(whole))).isEqualTo("Lines 7 and " + other + " were swapped");
            List<Kept> contents = chain(LINES);
            Kept first = contents.get(6);
            Kept second = contents.get(other - 1);
            contents.set(6, new Kept(second.line().numbered(7), first.hash()));
            contents.set(other - 1, new Kept(first.line().numbered(other), second.hash()));
            assertThat(check(contents)).isEqualTo("Lines 7 and " + other + " were swapped");
        }
    }

    @Test
    void a_chain_computed_anew_does_not_pass_through_a_noted_head() {
        List<Kept> forged = new ArrayList<>();
        byte[] before = AuditLine.GENESIS;
        for (int i = 1; i <= LINES; i++) {
            AuditLine line = line(i, i == 5 ? "/another" : "/file " + i);
            before = line.hashAfter(before);
            forged.add(new Kept(line, before));
        }
        Head anew = new Head(LINES, before);
        assertThat(check(forged, anew, Optional.empty())).startsWith("All 40");
        Head noted = new Head(20, chain(20).getLast().hash());
        assertThat(check(forged, anew, Optional.of(noted))).startsWith("Line 20 does not have the hash");
        List<Kept> cut = chain(10);
        assertThat(check(cut, new Head(10, cut.getLast().hash()), Optional.of(noted)))
                .isEqualTo("Line 11 was removed");
    }
}
