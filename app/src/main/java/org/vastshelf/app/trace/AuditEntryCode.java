package org.vastshelf.app.trace;

import java.nio.ByteBuffer;
import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
import java.util.List;

/**
 * Lines that wait, as bytes: of each the microseconds since 1970, its texts as UTF-8 with their lengths before, the bytes
 * that it tells of, and 1 when it was allowed; numbers with their highest byte first.
 */
final class AuditEntryCode {

    private AuditEntryCode() {}

    static byte[] write(List<AuditEntry> entries) {
        List<byte[]> parts = new ArrayList<>();
        for (AuditEntry entry : entries) {
            parts.add(number(ChronoUnit.MICROS.between(Instant.EPOCH, entry.at())));
            text(parts, entry.person());
            text(parts, entry.client());
            text(parts, entry.share());
            text(parts, entry.operation());
            text(parts, entry.path());
            text(parts, entry.target());
            parts.add(number(entry.bytes()));
            parts.add(new byte[] {(byte) (entry.allowed() ? 1 : 0)});
            text(parts, entry.reason());
        }
        ByteBuffer all =
                ByteBuffer.allocate(parts.stream().mapToInt(part -> part.length).sum());
        parts.forEach(all::put);
        return all.array();
    }

    private static byte[] number(long value) {
        return ByteBuffer.allocate(Long.BYTES).putLong(value).array();
    }

    private static void text(List<byte[]> parts, String text) {
        byte[] bytes = text.getBytes(StandardCharsets.UTF_8);
        parts.add(ByteBuffer.allocate(Integer.BYTES).putInt(bytes.length).array());
        parts.add(bytes);
    }

    static List<AuditEntry> read(byte[] written) {
        ByteBuffer from = ByteBuffer.wrap(written);
        List<AuditEntry> entries = new ArrayList<>();
        while (from.hasRemaining()) {
            entries.add(new AuditEntry(
                    Instant.EPOCH.plus(from.getLong(), ChronoUnit.MICROS),
                    text(from),
                    text(from),
                    text(from),
                    text(from),
                    text(from),
                    text(from),
                    from.getLong(),
                    from.get() == 1,
                    text(from)));
        }
        return entries;
    }

    private static String text(ByteBuffer from) {
        int length = from.getInt();
        String text = new String(from.array(), from.position(), length, StandardCharsets.UTF_8);
        from.position(from.position() + length);
        return text;
    }
}
