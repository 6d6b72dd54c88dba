package org.vastshelf.core.saving;

/**
 * What keeping equal chunks once would spare, and packing them besides.
 *
 * @param files that were read
 * @param bytes in them
 * @param uniqueBytes in chunks that differ
 * @param standardErrorBytes of that; 0 where all chunks were compared
 * @param packedBytes of these chunks when each is packed; the same where none is
 * @param packedErrorBytes the standard error of that
 */
public record Savings(
        long files, long bytes, long uniqueBytes, long standardErrorBytes, long packedBytes, long packedErrorBytes) {

    public Savings {
        if (uniqueBytes < 0 || uniqueBytes > bytes) {
            throw new IllegalArgumentException("unique bytes are " + uniqueBytes + ", must be 0 to " + bytes);
        }
        if (packedBytes < 0 || packedBytes > uniqueBytes) {
            throw new IllegalArgumentException("packed bytes are " + packedBytes + ", must be 0 to " + uniqueBytes);
        }
    }

    /** What duplicates take. */
    public long savedBytes() {
        return bytes - uniqueBytes;
    }

    /** What both together spare. */
    public long savedInAll() {
        return bytes - packedBytes;
    }
}
