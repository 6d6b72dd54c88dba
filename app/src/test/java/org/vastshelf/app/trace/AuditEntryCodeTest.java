package org.vastshelf.app.trace;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Instant;
import java.util.HexFormat;
import java.util.List;
import org.junit.jupiter.api.Test;

class AuditEntryCodeTest {

    /** As the database wrote it of a line that waited when the form was changed. */
    private static final String MOVED = "00064C05F937E07B0000000470656C6C0000000831302E312E312E31000000066F6666696365"
            + "000000044D4F56450000000B2F612022C3BCF09D849E22000000022F62000000000000000700000000077768790A6E6F74";

    private static final AuditEntry MOVE = new AuditEntry(
            Instant.parse("2026-03-02T08:00:00.000123Z"),
            "pell",
            "10.1.1.1",
            "office",
            "MOVE",
            "/a \"ü𝄞\"",
            "/b",
            7,
            false,
            "why\nnot");

    @Test
    void what_the_database_wrote_is_read() {
        assertThat(AuditEntryCode.read(HexFormat.of().parseHex(MOVED))).containsExactly(MOVE);
        assertThat(AuditEntryCode.write(List.of(MOVE))).asHexString().isEqualTo(MOVED);
    }

    @Test
    void several_are_read_in_their_order() {
        AuditEntry early =
                new AuditEntry(Instant.parse("1931-05-04T03:02:01.5Z"), "", "", "", "READ", "", -1, true, "");
        List<AuditEntry> some = List.of(early, MOVE, early);
        assertThat(AuditEntryCode.read(AuditEntryCode.write(some))).isEqualTo(some);
        assertThat(AuditEntryCode.read(AuditEntryCode.write(List.of()))).isEmpty();
    }
}
