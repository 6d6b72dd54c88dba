package org.vastshelf.app.content;

import java.io.ByteArrayOutputStream;

/** Numbers of few bytes where they are small: seven bits a byte, the lowest first (LEB128). */
public final class SevenBits {

    private static final int MORE = 0x80;

    private SevenBits() {}

    /** Writes a number of 0 or more. */
    public static void write(ByteArrayOutputStream code, long number) {
        long left = number;
        while ((left & -MORE) != 0) {
            code.write((int) (left & MORE - 1) | MORE);
            left >>>= 7;
        }
        code.write((int) left);
    }

    /** Reads the number that begins at a place, and moves the place behind it. */
    public static long read(byte[] code, int[] at) {
        long number = 0;
        for (int shift = 0; ; shift += 7) {
            byte next = code[at[0]++];
            number |= (long) (next & MORE - 1) << shift;
            if ((next & MORE) == 0) {
                return number;
            }
        }
    }
}
