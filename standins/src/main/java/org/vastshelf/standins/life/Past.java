package org.vastshelf.standins.life;

import java.util.Optional;
import org.vastshelf.core.content.Contents;
import org.vastshelf.core.content.Extent;
import org.vastshelf.core.content.StreamId;

/**
 * What a file of the demo held before it was saved anew or deleted, within the last month.
 *
 * @param born and died in seconds since 1970
 */
public record Past(String share, String folder, String name, Staffer owner, Contents contents, long born, long died) {

    /** Sets other bytes of the same sort apart from those of a file. */
    private static final long OTHERS = 0x5EED;

    /** Bytes such as those of a file, so many of them, and others; empty for one that was really made. */
    static Optional<Contents> like(LivingFile file, long length) {
        Contents contents = file.contents();
        if (contents.extents().isEmpty() || !contents.kept().isEmpty()) {
            return Optional.empty();
        }
        Extent first = contents.extents().getFirst();
        return Optional.of(Contents.of(
                new StreamId(first.stream().texture(), first.stream().number() ^ OTHERS), length));
    }
}
