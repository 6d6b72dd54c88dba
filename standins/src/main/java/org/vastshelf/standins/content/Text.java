package org.vastshelf.standins.content;

import java.nio.charset.StandardCharsets;

/** Puts signs and figures into pages. */
final class Text {

    private static final byte[] DIGITS = "0123456789".getBytes(StandardCharsets.US_ASCII);

    private Text() {}

    static byte[] ascii(String text) {
        return text.getBytes(StandardCharsets.US_ASCII);
    }

    static void put(byte[] page, int at, long bits) {
        for (int i = 0; i < Long.BYTES; i++) {
            page[at + i] = (byte) (bits >>> (8 * i));
        }
    }

    static int put(byte[] page, int at, byte[] text) {
        System.arraycopy(text, 0, page, at, text.length);
        return at + text.length;
    }

    /** The last digits of a number of at least 0, with zeros before them. */
    static int put(byte[] page, int at, long number, int digits) {
        for (int i = at + digits - 1; i >= at; i--) {
            page[i] = DIGITS[(int) (number % 10)];
            number /= 10;
        }
        return at + digits;
    }

    /** A number given in tenths. */
    static int tenths(byte[] page, int at, int number, int digits) {
        int next = put(page, at, number / 10, digits);
        page[next] = '.';
        return put(page, next + 1, number % 10, 1);
    }
}
