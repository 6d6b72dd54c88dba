package org.vastshelf.app.road;

import java.io.ByteArrayOutputStream;
import java.util.ArrayList;
import java.util.List;
import org.vastshelf.app.content.SevenBits;
import org.vastshelf.core.snapshot.BlockLives;

/**
 * Births of blocks as they stand in the row of a file: for each run how many blocks and their birth, seven bits a byte
 * with the lowest first (LEB128). Nothing at all where all are as old as the entry of the file.
 */
public final class LivesCode {

    private LivesCode() {}

    static byte[] write(Lived lived) {
        ByteArrayOutputStream code = new ByteArrayOutputStream();
        if (!lived.blocks().areAll(lived.born())) {
            for (BlockLives.Run run : lived.blocks().runs()) {
                SevenBits.write(code, run.blocks());
                SevenBits.write(code, run.born());
            }
        }
        return code.toByteArray();
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
            long count = SevenBits.read(code, at);
            runs.add(new BlockLives.Run(count, Math.toIntExact(SevenBits.read(code, at))));
        }
        return new BlockLives(runs);
    }
}
