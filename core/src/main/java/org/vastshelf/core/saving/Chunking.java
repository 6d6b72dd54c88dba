package org.vastshelf.core.saving;

/** How files are cut into the chunks of which equal ones would be kept once. */
public sealed interface Chunking {

    /** The longest chunk, in bytes. */
    int longest();

    /**
     * The length of the chunk that begins at a place.
     *
     * @param end behind the last byte that is there; less than {@link #longest} bytes from the place only where the file
     *     ends
     */
    int cut(byte[] bytes, int from, int end);

    private static void requirePowerOfTwo(String name, int bytes, int least, int most) {
        if (Integer.bitCount(bytes) != 1 || bytes < least || bytes > most) {
            throw new IllegalArgumentException(
                    name + " is " + bytes + ", must be a power of two from " + least + " to " + most);
        }
    }

    /**
     * Blocks at multiples of their size; the last one of a file may be short.
     *
     * @param blockBytes a power of two from 512 to 16 MiB
     */
    record Fixed(int blockBytes) implements Chunking {

        private static final int LEAST = 512;
        private static final int MOST = 1 << 24;

        public Fixed {
            requirePowerOfTwo("blockBytes", blockBytes, LEAST, MOST);
        }

        @Override
        public int longest() {
            return blockBytes;
        }

        @Override
        public int cut(byte[] bytes, int from, int end) {
            return Math.min(blockBytes, end - from);
        }
    }

    /**
     * Chunks that end where the bytes before the end say so, so that what is inserted or taken out moves the borders near
     * it only: FastCDC with normalised chunking (Xia, Zou, Jiang, Feng, Hua, Hu, Liu, Zhang: The Design of Fast
     * Content-Defined Chunking for Data Deduplication Based Storage Systems. IEEE Transactions on Parallel and Distributed
     * Systems 31(9), 2020). Half the average is the least length, eight times the average the most; below the
     * average two bits more have to be zero than its logarithm, above it two less. The bits are the highest of the rolling
     * hash, which depend on the last 64 bytes.
     *
     * @param averageBytes a power of two from 1 KiB to 4 MiB
     */
    record ContentDefined(int averageBytes) implements Chunking {

        private static final int LEAST = 1 << 10;
        private static final int MOST = 1 << 22;
        private static final int LEVEL = 2;
        private static final int TIMES_SHORTER = 2;
        private static final int TIMES_LONGER = 8;

        public ContentDefined {
            requirePowerOfTwo("averageBytes", averageBytes, LEAST, MOST);
        }

        @Override
        public int longest() {
            return averageBytes * TIMES_LONGER;
        }

        @Override
        public int cut(byte[] bytes, int from, int end) {
            int length = Math.min(end - from, longest());
            int least = averageBytes / TIMES_SHORTER;
            if (length <= least) {
                return length;
            }
            int bits = Integer.numberOfTrailingZeros(averageBytes);
            int middle = from + Math.min(length, averageBytes);
            int found = Gear.firstBelow(bytes, from + least, middle, 0, bits + LEVEL);
            if (found < 0) {
                found = Gear.firstBelow(
                        bytes, middle, from + length, Gear.rolled(bytes, from + least, middle), bits - LEVEL);
            }
            return found < 0 ? length : found - from;
        }
    }
}
