package org.vastshelf.app.road;

import java.io.ByteArrayOutputStream;
import java.util.ArrayList;
import java.util.List;
import org.vastshelf.core.snapshot.BlockLives;

/**
 * Births of blocks as they stand in the row of a file: for each run how many blocks and their birth, seven bits a byte
 * with the lowest first (LEB128). Nothing at all where all are as old as the entry of the file.
 */
public final class LivesCode {

    private static final int MORE = 0x80;

    private LivesCode() {}

    static byte[] write(Lived lived) {
        ByteArrayOutputStream code = new ByteArrayOutputStream();
        if (!lived.blocks().areAll(lived.born())) {
            for (BlockLives.Run run : lived.blocks().runs()) {
                number(code, run.blocks());
                number(code, run.born());
            }
        }
        return code.toByteArray();
    }

    private static void number(ByteArrayOutputStream code, long number) {
        long left = number;
        while ((left & -MORE) != 0) {
            code.write((int) (left & MORE - 1) | MORE);
            left >>>= 7;
        }
        code.write((int) left);
    }

    /**
     * Since when a file holds its blocks.
     *
     * @param born of its entry
     * @param blocks how many it takes
     */
    public static BlockLives read(byte[] code, int born, long blocks) {
        if (code.length == 0) {
            return BlockLives.of(blocks, born);
        }
        List<BlockLives.Run> runs = new ArrayList<>();
        int[] at = {0};
        while (at[0] < code.length) {
            long count = number(code, at);
            runs.add(new BlockLives.Run(count, Math.toIntExact(number(code, at))));
        }
        return new BlockLives(runs);
    }

    private static long number(byte[] code, int[] at) {
        long number = 0;
        for (int shift = 0; ; shift += 7) {
            byte next = code[at[0]++];
            number |= (long) (next & MORE - 1) << shift;
            if ((next & MORE) == 0) {
                return number;
            }
        }
    }
}
