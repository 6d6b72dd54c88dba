package org.vastshelf.core.unit;

import java.util.Locale;

/** Numbers of things as people read them: "one drive", "2 drives". */
public final class Counted {

    private Counted() {}

    /** The number and the thing; its plural ends with an s. */
    public static String of(long count, String thing) {
        return count == 1 ? "one " + thing : String.format(Locale.ROOT, "%,d %ss", count, thing);
    }
}
