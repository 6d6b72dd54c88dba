package org.vastshelf.standins.life;

import java.time.LocalDate;
import java.util.Random;
import java.util.SplittableRandom;

/**
 * Random numbers of a day. Names of neighbouring days have neighbouring hashes, and what {@link Random} draws first from
 * such seeds is nearly the same: a season would bring nothing, and the next something each day. So they are spread.
 */
final class DayRandom {

    private DayRandom() {}

    /** The same for the same day, unlike that of any other. */
    static Random of(String what, LocalDate day) {
        return new Random(new SplittableRandom((what + day).hashCode()).nextLong());
    }
}
