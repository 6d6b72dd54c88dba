package org.vastshelf.core.saving;

/**
 * What keeping equal chunks once would spare.
 *
 * @param files that were read
 * @param bytes in them
 * @param uniqueBytes in chunks that differ
 * @param standardErrorBytes of that; 0 where all chunks were compared
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
