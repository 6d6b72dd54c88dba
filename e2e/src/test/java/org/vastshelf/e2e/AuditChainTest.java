package org.vastshelf.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import java.sql.Connection;
import java.sql.ResultSet;
import java.time.Instant;
import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import javax.sql.DataSource;
import org.junit.jupiter.api.Test;
import org.vastshelf.app.clock.ShelfClock;
import org.vastshelf.app.store.Transactions;
import org.vastshelf.app.trace.AuditEntry;
import org.vastshelf.app.trace.AuditStore;
import org.vastshelf.core.audit.AuditLine;

/** The stored chain, checked line by line from what is stored. */
class AuditChainTest {

    private static byte[] hash(Connection connection, long number) throws Exception {
        try (var sql = connection.prepareStatement("SELECT hash FROM audit_line WHERE number = ?")) {
            sql.setLong(1, number);
            try (ResultSet row = sql.executeQuery()) {
                row.next();
                return row.getBytes(1);
            }
        }
    }

    @Test
    void the_newest_lines_follow_from_each_other_across_demo_and_own_operations() throws Exception {
        App.post(
                "odile",
                "/api/v1/desk/operations",
                "{\"person\":\"suki\",\"share\":\"film\",\"operation\":\"WRITE\",\"path\":\"/chain \\\"ü\\\".mov\",\"bytes\":7}");
        AuditStore audit = App.bean(AuditStore.class);
        List<AuditLine> lines =
                audit.page(AuditStore.Filter.NONE, Long.MAX_VALUE, 400).reversed();
        assertThat(lines.getLast().path()).isEqualTo("/chain \"ü\".mov");
        try (Connection connection = App.bean(DataSource.class).getConnection()) {
            byte[] before = hash(connection, lines.getFirst().number());
            for (AuditLine line : lines.subList(1, lines.size())) {
                byte[] stored = hash(connection, line.number());
                assertThat(Arrays.equals(line.hashAfter(before), stored))
                        .as("line " + line.number())
                        .isTrue();
                before = stored;
            }
        }
        assertThat(audit.count()).isEqualTo(lines.getLast().number());
    }

    private static AuditEntry entry(Instant at, int i) {
        return new AuditEntry(at, "walker", "10.20.9.94", "", "READ", "/" + i, 0, true, "");
    }

    /** More rows than are read at once, and one that lies across all of them: what is later in it waits. */
    @Test
    void what_was_written_together_is_numbered_among_others_in_the_order_of_its_times() {
        AuditStore audit = App.bean(AuditStore.class);
        Instant begin = App.bean(ShelfClock.class).instant().truncatedTo(ChronoUnit.SECONDS);
        List<AuditEntry> together = new ArrayList<>();
        App.bean(Transactions.class).run(() -> {
            together.clear();
            for (int i = 0; i < 600; i += 2) {
                audit.append(entry(begin.minusSeconds(600 - i), i));
                together.add(entry(begin.minusSeconds(599 - i), i + 1));
            }
            audit.append(together.reversed());
        });
        List<AuditLine> lines = audit.page(new AuditStore.Filter("walker", "", "", ""), Long.MAX_VALUE, 1_000)
                .reversed();
        assertThat(lines).hasSize(600);
        for (int i = 0; i < lines.size(); i++) {
            assertThat(lines.get(i).path()).isEqualTo("/" + i);
            assertThat(lines.get(i).at()).isEqualTo(begin.minusSeconds(600 - i));
            assertThat(lines.get(i).verdict()).isEqualTo("ALLOWED");
        }
    }

    @Test
    void a_line_is_found_by_its_receipt_and_kept_as_long_as_there_is_room() {
        AuditStore audit = App.bean(AuditStore.class);
        Instant at = App.bean(ShelfClock.class).instant();
        String path = "/\"'\\\n\u0001 ü 𝄞";
        long receipt = audit.append(
                new AuditEntry(at, "walker".repeat(20), "", "", "MOVE", path, "/there", 7, false, "n".repeat(2_000)));
        AuditLine line = audit.find(receipt).orElseThrow();
        assertThat(line.path()).isEqualTo(path);
        assertThat(line.target()).isEqualTo("/there");
        assertThat(line.bytes()).isEqualTo(7);
        assertThat(line.verdict()).isEqualTo("REFUSED");
        assertThat(line.at()).isEqualTo(at.truncatedTo(ChronoUnit.MICROS));
        assertThat(line.person()).hasSize(64);
        assertThat(line.reason()).hasSize(AuditEntry.LONGEST_REASON);
        assertThat(audit.find(receipt + 1_000_000)).isEmpty();
    }
}
