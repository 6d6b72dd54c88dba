package org.vastshelf.core.estate;

import java.util.function.Function;

/**
 * One kind of thing in the estate.
 *
 * @param name of one, in words and in the database
 * @param plural of many, in a definition
 * @param type what one is
 * @param key what tells it from the others
 * @param defined whether it is part of what the estate is, and not only of what goes on in it
 */
public record Kind<T>(String name, String plural, Class<T> type, Function<T, String> key, boolean defined) {

    /** A kind that belongs to what the estate is. */
    static <T> Kind<T> of(String name, String plural, Class<T> type, Function<T, String> key) {
        return new Kind<>(name, plural, type, key, true);
    }

    /** A kind that comes and goes with what is going on. */
    static <T> Kind<T> passing(String name, String plural, Class<T> type, Function<T, String> key) {
        return new Kind<>(name, plural, type, key, false);
    }

    /** The key of something of this kind. */
    public String keyOf(Object thing) {
        return key.apply(type.cast(thing));
    }

    @Override
    public boolean equals(Object other) {
        return other instanceof Kind<?> kind && kind.name.equals(name);
    }

    @Override
    public int hashCode() {
        return name.hashCode();
    }

    @Override
    public String toString() {
        return name;
    }
}
