package org.vastshelf.core.tier;

import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import org.vastshelf.core.catalogue.AgeBasis;

/**
 * Which files of a catalogue may leave: all in its scope that are old enough and that no earlier rule is about.
 *
 * @param olderThanDays whole days of 86,400 seconds, 0 to 36,500
 * @param earlier scopes of rules that decide before it
 * @param keepBelow where it is given, only the coldest leave, until no more than this is used
 */
public record TierRule(
        int olderThanDays, AgeBasis by, Scope scope, List<Scope> earlier, Optional<KeepBelow> keepBelow) {

    public static final int MOST_DAYS = 36_500;

    public TierRule {
        if (olderThanDays < 0 || olderThanDays > MOST_DAYS) {
            throw new IllegalArgumentException("olderThanDays is " + olderThanDays + ", must be 0 to " + MOST_DAYS);
        }
        earlier = List.copyOf(earlier);
    }

    /** One that decides alone. */
    public TierRule(int olderThanDays, AgeBasis by, Scope scope, Optional<KeepBelow> keepBelow) {
        this(olderThanDays, by, scope, List.of(), keepBelow);
    }

    /**
     * The last moment, in seconds since 1970, at which a file that leaves was used or changed: its age is
     * ⌊(at − its time) / 86,400 s⌋ days.
     */
    public long lastTime(Instant at) {
        return at.minus(Duration.ofDays(olderThanDays)).getEpochSecond();
    }
}
