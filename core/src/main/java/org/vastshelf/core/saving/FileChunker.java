package org.vastshelf.core.saving;

import com.dynatrace.hash4j.hashing.HashValue128;
import com.dynatrace.hash4j.hashing.Hasher128;
import com.dynatrace.hash4j.hashing.Hashing;
import java.util.Arrays;

/** Reads files once from beginning to end, and hands over what they are cut into. Not for several threads at once. */
public final class FileChunker {

    private static final Hasher128 HASH = Hashing.xxh3_128();
    /** Read at a time: what was just read is still near when it is cut. */
    private static final int READ = 1 << 18;

    private final Chunking chunking;
    private final Packer packer;
    private final Chunks chunks;
    private final byte[] buffer;
    private final byte[] zeros;

    public FileChunker(Chunking chunking, Packer packer, Chunks chunks) {
        this.packer = packer;
        this.chunking = chunking;
        this.chunks = chunks;
        this.buffer = new byte[2 * chunking.longest() + READ];
        this.zeros = new byte[chunking.longest()];
    }

    /** Where the bytes of a file come from, one after the other. */
    @FunctionalInterface
    public interface Source<X extends Exception> {

        /**
         * Fills a part of an array.
         *
         * @return how many there were; fewer than wanted only where the file ends
         */
        int read(byte[] into, int from, int wanted) throws X;
    }

    /** Cuts a file of which nothing else is known. */
    public <X extends Exception> long file(Source<X> file) throws X {
        return file(MeasuredFile.UNKNOWN, file);
    }

    /**
     * Cuts one file.
     *
     * @return its length as it was read
     */
    public <X extends Exception> long file(MeasuredFile which, Source<X> file) throws X {
        chunks.file(which);
        long length = 0;
        int begin = 0;
        int end = 0;
        boolean more = true;
        while (more || begin < end) {
            if (more && end - begin < chunking.longest()) {
                if (buffer.length - end < READ) {
                    System.arraycopy(buffer, begin, buffer, 0, end - begin);
                    end -= begin;
                    begin = 0;
                }
                int read = file.read(buffer, end, READ);
                more = read == READ;
                end += read;
                length += read;
            }
            while (begin < end && (!more || end - begin >= chunking.longest())) {
                int chunk = chunking.cut(buffer, begin, end);
                hand(begin, chunk);
                begin += chunk;
            }
        }
        return length;
    }

    private void hand(int from, int length) {
        if (buffer[from] == 0 && Arrays.equals(buffer, from, from + length, zeros, 0, length)) {
            chunks.addZeros(length, () -> packer.packed(zeros, 0, length));
            return;
        }
        HashValue128 hash = HASH.hashBytesTo128Bits(buffer, from, length);
        chunks.add(
                hash.getMostSignificantBits(),
                hash.getLeastSignificantBits(),
                length,
                () -> packer.packed(buffer, from, length));
    }
}
