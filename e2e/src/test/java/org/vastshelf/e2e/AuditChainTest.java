package org.vastshelf.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import java.sql.Connection;
import java.sql.ResultSet;
import java.util.Arrays;
import java.util.List;
import javax.sql.DataSource;
import org.junit.jupiter.api.Test;
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
}
