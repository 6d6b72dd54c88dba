package org.vastshelf.app.catalogue;

import java.time.Instant;
import java.time.ZoneOffset;
import org.vastshelf.core.catalogue.FileKind;

/**
 * One file of a catalogue. Times are seconds since 1970.
 *
 * @param name the bytes of its name, in whatever encoding
 */
public record FileRow(
        byte[] name,
        long bytes,
        long allocated,
        String owner,
        String group,
        long modified,
        long accessed,
        long changed,
        FileKind kind) {

    /** The same file, used at another time. */
    public FileRow usedAt(long seconds) {
        return new FileRow(name, bytes, allocated, owner, group, modified, seconds, changed, kind);
    }

    /** Whether what it holds lies in a cold store; of a file on a simulated server. */
    public boolean isAway() {
        return bytes > 0 && allocated == 0;
    }

    /** The same file, taking so much of its volume. */
    public FileRow taking(long other) {
        return new FileRow(name, bytes, other, owner, group, modified, accessed, changed, kind);
    }

    /** The same file under another name. */
    public FileRow named(byte[] other, FileKind otherKind, long seconds) {
        return new FileRow(other, bytes, allocated, owner, group, modified, accessed, seconds, otherKind);
    }

    /** Last use: the later of reading and writing, since many hosts do not record reads. */
    public long lastUse() {
        return Math.max(modified, accessed);
    }

    /** Calendar month of the last use, counted from year 0; times outside years 1 to 9999 are drawn in. */
    public int month() {
        long seconds = Math.clamp(lastUse(), -62_135_596_800L, 253_402_300_799L);
        var date = Instant.ofEpochSecond(seconds).atOffset(ZoneOffset.UTC);
        return date.getYear() * 12 + date.getMonthValue() - 1;
    }
    /** Its name as people read it. */
    public String shownName() {
        return PathBytes.shown(name);
    }
}
