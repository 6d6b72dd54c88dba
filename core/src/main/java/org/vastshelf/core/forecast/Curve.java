package org.vastshelf.core.forecast;

/** What a method expects. */
@FunctionalInterface
interface Curve {

    /** Bytes so many days after the last one of the history; 0 for that one itself. */
    double at(int days);
}
