package org.vastshelf.app.road;

import org.vastshelf.core.snapshot.BlockLives;

/**
 * Since when a file is as it is.
 *
 * @param born how many snapshots had been taken when it got its name, or was last saved
 * @param blocks since when it holds each of its blocks
 * @param common how its units were taken in, and then it has no blocks; 0 for not at all
 */
record Lived(int born, BlockLives blocks, int common) {

    Lived(int born, BlockLives blocks) {
        this(born, blocks, 0);
    }

    /** Whether it has no blocks of its own, since its units were taken in. */
    boolean isTakenIn() {
        return common > 0;
    }
}
