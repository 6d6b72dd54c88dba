package org.vastshelf.core.content;

import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import java.util.TreeSet;

/**
 * What a file holds: ranges of streams, one after the other. Ranges that go on from each other are one, so that equal
 * contents of the same making are equal values.
 */
public record Contents(List<Extent> extents) {

    public static final Contents EMPTY = new Contents(List.of());

    public Contents {
        extents = joined(extents);
    }

    /** The beginning of a stream. */
    public static Contents of(StreamId stream, long length) {
        return length == 0 ? EMPTY : new Contents(List.of(new Extent(stream, 0, length)));
    }

    private static List<Extent> joined(List<Extent> extents) {
        List<Extent> joined = new ArrayList<>(extents.size());
        for (Extent extent : extents) {
            if (!joined.isEmpty() && joined.getLast().goesOnWith(extent)) {
                joined.set(joined.size() - 1, joined.getLast().and(extent));
            } else {
                joined.add(extent);
            }
        }
        return List.copyOf(joined);
    }

    /** In bytes. */
    public long length() {
        long length = 0;
        for (Extent extent : extents) {
            length = Math.addExact(length, extent.length());
        }
        return length;
    }

    /**
     * A part of them.
     *
     * @throws IllegalArgumentException when it is not all inside
     */
    public Contents slice(long from, long length) {
        requireInside(from, length);
        List<Extent> parts = new ArrayList<>();
        long at = 0;
        for (Extent extent : extents) {
            long begin = Math.max(from, at);
            long end = Math.min(from + length, at + extent.length());
            if (begin < end) {
                parts.add(extent.part(begin - at, end - begin));
            }
            at += extent.length();
        }
        return new Contents(parts);
    }

    private void requireInside(long from, long length) {
        long whole = length();
        if (from < 0 || from > whole) {
            throw new IllegalArgumentException("offset is " + from + ", must be from 0 to " + whole);
        }
        if (length < 0 || length > whole - from) {
            throw new IllegalArgumentException("length is " + length + ", must be from 0 to " + (whole - from));
        }
    }

    public Contents then(Contents more) {
        List<Extent> all = new ArrayList<>(extents);
        all.addAll(more.extents);
        return new Contents(all);
    }

    /**
     * With other bytes in a place: what was there is covered, what lies beyond the end is added; a gap before it is
     * filled with zeros, as file systems do.
     *
     * @param at from 0
     */
    public Contents with(long at, Contents patch) {
        if (at < 0) {
            throw new IllegalArgumentException("offset is " + at + ", must be at least 0");
        }
        long length = length();
        if (patch.extents.isEmpty()) {
            return this;
        }
        long end = Math.addExact(at, patch.length());
        Contents before = at <= length ? slice(0, at) : then(of(StreamId.ZEROS, at - length));
        Contents after = end < length ? slice(end, length - end) : EMPTY;
        return before.then(patch).then(after);
    }

    /** Those of a file that has left: all that an object in a cold store holds. */
    public static Contents cold(long number, long length) {
        return of(StreamId.cold(number), length);
    }

    /** Whether some of them lie in a cold store. */
    public boolean isCold() {
        return extents.stream().anyMatch(extent -> extent.stream().isCold());
    }

    /** Bytes that do not lie in a cold store. */
    public long here() {
        return extents.stream()
                .filter(extent -> !extent.stream().isCold())
                .mapToLong(Extent::length)
                .sum();
    }

    /** Numbers of the kept bytes that are part of them, wherever they lie. */
    public Set<Long> kept() {
        Set<Long> numbers = new TreeSet<>();
        for (Extent extent : extents) {
            if (extent.stream().isKept()) {
                numbers.add(extent.stream().number());
            }
        }
        return numbers;
    }
}
