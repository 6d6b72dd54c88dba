package org.vastshelf.core.unit;

import java.util.Collection;

/**
 * An exact, non-negative number of bytes. Arithmetic that would overflow or fall below zero throws
 * {@link ArithmeticException}; nothing is rounded before it reaches a reader.
 *
 * @param value bytes, 0 to {@link Long#MAX_VALUE}
 */
public record Bytes(long value) implements Comparable<Bytes> {

    public static final Bytes ZERO = new Bytes(0);
    public static final long KIB = 1L << 10;
    public static final long MIB = 1L << 20;
    public static final long GIB = 1L << 30;
    public static final long TIB = 1L << 40;

    public Bytes {
        if (value < 0) {
            throw new IllegalArgumentException("size is " + value + " bytes, must be at least 0");
        }
    }

    public static Bytes of(long value) {
        return value == 0 ? ZERO : new Bytes(value);
    }

    public static Bytes gib(long count) {
        return of(Math.multiplyExact(count, GIB));
    }

    public static Bytes tib(long count) {
        return of(Math.multiplyExact(count, TIB));
    }

    public static Bytes sum(Collection<Bytes> parts) {
        return parts.stream().reduce(ZERO, Bytes::plus);
    }

    public Bytes plus(Bytes other) {
        return of(Math.addExact(value, other.value));
    }

    public Bytes minus(Bytes other) {
        return of(Math.subtractExact(value, other.value));
    }

    /** The difference, or zero where {@code other} is the larger. */
    public Bytes minusOrZero(Bytes other) {
        return value <= other.value ? ZERO : of(value - other.value);
    }

    public Bytes times(long factor) {
        return of(Math.multiplyExact(value, factor));
    }

    public Bytes min(Bytes other) {
        return value <= other.value ? this : other;
    }

    public Bytes max(Bytes other) {
        return value >= other.value ? this : other;
    }

    /** The largest multiple of {@code step} that is not above this; a step of zero changes nothing. */
    public Bytes roundDownTo(Bytes step) {
        return step.value == 0 ? this : of(value - value % step.value);
    }

    public boolean isZero() {
        return value == 0;
    }

    public boolean isMoreThan(Bytes other) {
        return value > other.value;
    }

    /** This over {@code whole}, for display only; 0 when the whole is empty. */
    public double shareOf(Bytes whole) {
        return whole.value == 0 ? 0 : (double) value / whole.value;
    }

    @Override
    public int compareTo(Bytes other) {
        return Long.compare(value, other.value);
    }

    @Override
    public String toString() {
        return value + " B";
    }
}
