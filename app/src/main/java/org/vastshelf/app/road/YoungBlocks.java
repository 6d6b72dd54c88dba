package org.vastshelf.app.road;

/** Which blocks of a file are younger than a snapshot. */
public final class YoungBlocks {

    private YoungBlocks() {}

    /**
     * Bytes of the blocks that were not there when a snapshot was taken.
     *
     * @param born of the file's entry
     * @param code of its blocks, as its row has it
     * @param number of the snapshot
     * @param block bytes of one
     */
    public static long bytes(int born, long allocated, byte[] code, int number, long block) {
        if (code.length == 0) {
            return born >= number ? allocated : 0;
        }
        return LivesCode.read(code, born, allocated / block).byBirth().tailMap(number).values().stream()
                        .mapToLong(Long::longValue)
                        .sum()
                * block;
    }
}
