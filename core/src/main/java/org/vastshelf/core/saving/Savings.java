package org.vastshelf.core.saving;

/**
 * What keeping equal pieces once would spare.
 *
 * @param files that were read
 * @param bytes in them
 * @param uniqueBytes in pieces that differ
 * @param standardErrorBytes of that; 0 where all pieces were compared
 */
public record Savings(long files, long bytes, long uniqueBytes, long standardErrorBytes) {

    public Savings {
        if (uniqueBytes < 0 || uniqueBytes > bytes) {
            throw new IllegalArgumentException("unique bytes are " + uniqueBytes + ", must be 0 to " + bytes);
        }
    }

    public long savedBytes() {
        return bytes - uniqueBytes;
    }
}
