package org.vastshelf.core.audit;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Instant;
import java.util.HexFormat;
import org.junit.jupiter.api.Test;

class AuditLineTest {

    private static AuditLine line(String path) {
        return new AuditLine(
                7,
                Instant.parse("2026-03-02T08:00:00.1234567Z"),
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

    @Test
    void the_canonical_form_is_pinned() {
        assertThat(line("/a \"b\"\n\\").canonical())
                .isEqualTo(
                        "{\"n\":7,\"at\":\"2026-03-02T08:00:00.123456Z\",\"person\":\"suki\",\"client\":\"10.20.4.20\","
                                + "\"share\":\"film\",\"operation\":\"WRITE\",\"path\":\"/a \\\"b\\\"\\u000a\\\\\",\"bytes\":5,"
                                + "\"verdict\":\"ALLOWED\",\"reason\":\"allowed\"}");
    }

    @Test
    void the_hash_depends_on_the_line_and_on_the_one_before() {
        byte[] first = line("/a").hashAfter(AuditLine.GENESIS);
        assertThat(HexFormat.of().formatHex(first)).hasSize(64);
        assertThat(line("/a").hashAfter(AuditLine.GENESIS)).isEqualTo(first);
        assertThat(line("/b").hashAfter(AuditLine.GENESIS)).isNotEqualTo(first);
        assertThat(line("/a").hashAfter(first)).isNotEqualTo(first);
    }
}
