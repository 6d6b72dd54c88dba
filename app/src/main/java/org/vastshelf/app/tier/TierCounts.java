package org.vastshelf.app.tier;

import java.time.Duration;
import java.time.Instant;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import org.springframework.stereotype.Component;
import org.vastshelf.app.catalogue.CatalogueStore.Catalogue;
import org.vastshelf.core.tier.CountedFiles;
import org.vastshelf.core.tier.TierRule;

/**
 * Files that were counted a moment ago, so that somebody who tries one age after the other waits once. They are counted
 * anew when something came or went, and after a minute: what is only read changes no sum.
 */
@Component
class TierCounts {

    private static final Duration LONGEST = Duration.ofMinutes(1);
    /** Of the largest catalogues some 50 MB each. */
    private static final int MOST = 3;

    static final long MOST_FILES = 3_000_000;

    private final TierStore store;
    private final Map<Asked, CountedFiles> counts = new ConcurrentHashMap<>();

    TierCounts(TierStore store) {
        this.store = store;
    }

    private record Asked(Catalogue catalogue, long allocated, TierRule ofAnyAge) {}

    /** Whether files are counted; of catalogues with sums, and of those that are too large, the database is asked. */
    boolean counts(Catalogue catalogue, TierRule rule) {
        return !store.isSummedUp(catalogue, rule) && catalogue.files() <= MOST_FILES;
    }

    CountedFiles of(Catalogue catalogue, TierRule ofAnyAge, Instant now) {
        counts.values().removeIf(counted -> isPast(counted, now));
        Asked asked = new Asked(catalogue, store.allocated(catalogue), ofAnyAge);
        if (counts.size() >= MOST && !counts.containsKey(asked)) {
            counts.clear();
        }
        return counts.computeIfAbsent(asked, which -> store.count(catalogue, ofAnyAge, now));
    }

    private static boolean isPast(CountedFiles counted, Instant now) {
        return Duration.between(counted.at(), now).abs().compareTo(LONGEST) > 0;
    }
}
