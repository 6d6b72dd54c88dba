package org.vastshelf.core.saving;

import org.vastshelf.core.content.StreamId;

/**
 * What units of one making have in common: they follow each other in a stream, one after the other.
 *
 * @param stream of which they are; {@link #PIECED} of those that are put together from several ranges
 * @param phase where in the stream the first of them begins, or what tells a pieced one from others
 * @param bytes length of each, at least 1
 * @param packed bytes that each takes when it is kept
 * @param once whether equal ones are kept once
 */
public record UnitKind(StreamId stream, long phase, int bytes, int packed, boolean once) {

    /** Texture of units that do not lie in one stream. */
    public static final int PIECED = 126;

    public UnitKind {
        if (bytes < 1 || packed < 1 || packed > bytes) {
            throw new IllegalArgumentException(
                    "a unit of " + bytes + " bytes takes " + packed + ", must take from 1 to as many as it has");
        }
    }
}
