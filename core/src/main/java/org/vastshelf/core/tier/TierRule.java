package org.vastshelf.core.tier;

import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import org.vastshelf.core.catalogue.AgeBasis;

/**
 * Which files may leave: all that are old enough and large enough and lie below no excluded folder.
 *
 * @param olderThanDays whole days of 86,400 seconds, 0 to 36,500
 * @param largerThanBytes files of this size stay; -1 for a rule that goes by age alone
 * @param excludedFolders paths from the root of what is planned, each beginning with a slash
 * @param keepBelow where it is given, only the coldest leave, until no more than this is used
 */
public record TierRule(
        int olderThanDays,
        AgeBasis by,
        long largerThanBytes,
        List<String> excludedFolders,
        Optional<KeepBelow> keepBelow) {

    public static final int MOST_DAYS = 36_500;
    /** A size below which no file lies. */
    public static final long ANY_SIZE = -1;

    public TierRule {
        if (olderThanDays < 0 || olderThanDays > MOST_DAYS) {
            throw new IllegalArgumentException("olderThanDays is " + olderThanDays + ", must be 0 to " + MOST_DAYS);
        }
        if (largerThanBytes < ANY_SIZE) {
            throw new IllegalArgumentException("largerThanBytes is " + largerThanBytes + ", must be at least 0");
        }
        excludedFolders = List.copyOf(excludedFolders);
    }

    /**
     * The last moment, in seconds since 1970, at which a file that leaves was used or changed: its age is
     * ⌊(at − its time) / 86,400 s⌋ days.
     */
    public long lastTime(Instant at) {
        return at.minus(Duration.ofDays(olderThanDays)).getEpochSecond();
    }
}
