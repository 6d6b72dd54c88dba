package org.vastshelf.app.kit;

import org.jspecify.annotations.Nullable;

/**
 * A figure of a page.
 *
 * @param key whose and which it is, so that the same one elsewhere can be held against it; null for one that is
 *     nowhere else
 * @param value exact, that the text is rounded from; null for none
 * @param why how it was found; empty where it goes without saying
 */
public record Figure(@Nullable String key, @Nullable String value, String text, String why) {

    public static Figure of(String text) {
        return new Figure(null, null, text, "");
    }

    public Figure why(String how) {
        return new Figure(key, value, text, how);
    }

    public boolean isExplained() {
        return !why.isEmpty();
    }
}
