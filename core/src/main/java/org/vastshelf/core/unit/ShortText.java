package org.vastshelf.core.unit;

/** Text that has to fit somewhere. */
public final class ShortText {

    private ShortText() {}

    /** The text, or its beginning and an ellipsis, at most so many characters in all. */
    public static String of(String text, int most) {
        return text.length() <= most ? text : text.substring(0, most - 1) + "…";
    }
}
