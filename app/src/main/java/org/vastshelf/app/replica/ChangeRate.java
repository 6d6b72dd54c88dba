package org.vastshelf.app.replica;

import java.time.Duration;
import java.time.Instant;
import java.util.OptionalLong;
import org.springframework.stereotype.Component;
import org.vastshelf.app.snapshot.ChangedStore;
import org.vastshelf.app.snapshot.SnapshotViews;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.Share;

/** How much of a volume changes in a day, as its snapshots tell. */
@Component
class ChangeRate {

    private static final Duration LEAST = Duration.ofHours(20);
    private static final Duration MOST = Duration.ofDays(8);

    private final SnapshotViews views;
    private final ChangedStore changed;

    ChangeRate(SnapshotViews views, ChangedStore changed) {
        this.views = views;
        this.changed = changed;
    }

    /** Bytes in a day, since the oldest snapshot of the last week; empty where there is none that is a day old. */
    OptionalLong daily(Estate estate, String volume, Instant now) {
        return views.brief(volume).stream()
                .filter(s -> s.at().isAfter(now.minus(MOST)) && s.at().isBefore(now.minus(LEAST)))
                .findFirst()
                .map(oldest -> {
                    long bytes = changed.changedSince(
                            estate.sharesOn(volume).map(Share::name).toList(),
                            oldest.number(),
                            estate.volumes().get(volume).blockSize());
                    double days = Duration.between(oldest.at(), now).toSeconds() / 86_400.0;
                    return OptionalLong.of(Math.round(bytes / days));
                })
                .orElse(OptionalLong.empty());
    }
}
