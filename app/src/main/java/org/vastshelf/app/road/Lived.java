package org.vastshelf.app.road;

import org.vastshelf.core.snapshot.BlockLives;

/**
 * Since when a file is as it is.
 *
 * @param born how many snapshots had been taken when it got its name, or was last saved
 * @param blocks since when it holds each of its blocks
 */
record Lived(int born, BlockLives blocks) {}
