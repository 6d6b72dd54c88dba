package org.vastshelf.core.catalogue;

import org.vastshelf.core.unit.Bytes;

/** Sizes of files in steps of 32: the powers of two are 5 apart. */
public enum SizeClass {
    EMPTY("empty", 0),
    TO_32_KIB("to 32 KiB", 32 * Bytes.KIB),
    TO_1_MIB("to 1 MiB", Bytes.MIB),
    TO_32_MIB("to 32 MiB", 32 * Bytes.MIB),
    TO_1_GIB("to 1 GiB", Bytes.GIB),
    TO_32_GIB("to 32 GiB", 32 * Bytes.GIB),
    ABOVE("above 32 GiB", Long.MAX_VALUE);

    private final String title;
    private final long most;

    SizeClass(String title, long most) {
        this.title = title;
        this.most = most;
    }

    public static SizeClass of(long bytes) {
        for (SizeClass size : values()) {
            if (bytes <= size.most) {
                return size;
            }
        }
        return ABOVE;
    }

    /** The largest size that belongs here, in bytes. */
    public long most() {
        return most;
    }

    public String title() {
        return title;
    }
}
