package org.vastshelf.core.saving;

/**
 * Units of one kind that follow each other.
 *
 * @param first number of the first, from 0
 * @param count how many, at least 1
 * @param times how often each of them comes
 */
public record UnitRun(UnitKind kind, long first, long count, long times) {

    /** Number behind the last. */
    public long past() {
        return first + count;
    }
}
