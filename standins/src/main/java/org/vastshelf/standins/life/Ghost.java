package org.vastshelf.standins.life;

/**
 * Something that was on a share in the last month and is gone.
 *
 * @param files of this length each
 * @param born and died in seconds since 1970
 */
public record Ghost(String share, long files, long bytes, long born, long died) {}
