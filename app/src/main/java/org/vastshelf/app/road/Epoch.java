package org.vastshelf.app.road;

/**
 * Where a share stands among the snapshots of its volume. It stays so until the transaction has ended.
 *
 * @param taken how many were ever taken
 * @param newest the number of the newest that is there; 0 for none
 */
record Epoch(int taken, int newest) {

    /** Whether a snapshot that is there holds what was born so and dies now. */
    boolean holds(int born) {
        return born < newest;
    }
}
