package org.vastshelf.core.saving;

import java.util.function.LongConsumer;
import java.util.function.LongSupplier;

/** Texts among numbers. */
final class Numbers {

    private Numbers() {}

    static void write(String text, LongConsumer out) {
        out.accept(text.length());
        text.chars().forEach(out::accept);
    }

    static String read(LongSupplier in) {
        StringBuilder text = new StringBuilder();
        for (long left = in.getAsLong(); left > 0; left--) {
            text.append((char) in.getAsLong());
        }
        return text.toString();
    }
}
