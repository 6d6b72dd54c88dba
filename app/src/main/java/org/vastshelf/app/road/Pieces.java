package org.vastshelf.app.road;

import java.util.ArrayList;
import java.util.List;
import org.springframework.stereotype.Component;
import org.vastshelf.app.content.FileBytes;
import org.vastshelf.core.content.Contents;
import org.vastshelf.core.content.Extent;

/** Keeps files that are edited often from falling into more and more pieces. */
@Component
class Pieces {

    private static final int MANY = 2_048;
    static final int MOST = 16_384;
    /** Ranges shorter than a block share no block with anybody: those that lie beside each other are kept anew as one. */
    private static final long SHORT = 4_096;

    private static final long TOGETHER = 4L << 20;

    private final FileBytes bytes;

    Pieces(FileBytes bytes) {
        this.bytes = bytes;
    }

    /**
     * The same bytes in fewer pieces where there are many.
     *
     * @throws IllegalArgumentException when they are too many even so
     */
    Contents fewer(Contents contents) {
        if (contents.extents().size() <= MANY || contents.isCold()) {
            return contents;
        }
        Contents joined = joined(contents);
        if (joined.extents().size() > MOST) {
            throw new IllegalArgumentException("the file is in "
                    + joined.extents().size() + " pieces after this, must be in at most " + MOST + "; save it whole");
        }
        return joined;
    }

    private Contents joined(Contents contents) {
        List<Extent> all = new ArrayList<>();
        List<Extent> run = new ArrayList<>();
        long length = 0;
        for (Extent extent : contents.extents()) {
            if (extent.length() > SHORT || length + extent.length() > TOGETHER) {
                all.addAll(one(run));
                run.clear();
                length = 0;
            }
            if (extent.length() > SHORT) {
                all.add(extent);
            } else {
                run.add(extent);
                length += extent.length();
            }
        }
        all.addAll(one(run));
        return new Contents(all);
    }

    private List<Extent> one(List<Extent> run) {
        if (run.size() < 2) {
            return run;
        }
        Contents part = new Contents(run);
        return bytes.keep(() -> bytes.open(part, 0, part.length())).extents();
    }
}
