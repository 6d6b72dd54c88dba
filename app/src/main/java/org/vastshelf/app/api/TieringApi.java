package org.vastshelf.app.api;

import java.math.BigDecimal;
import java.time.Instant;
import java.time.format.DateTimeParseException;
import java.util.List;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RestController;
import org.vastshelf.app.clock.ShelfClock;
import org.vastshelf.app.tier.TierPlanning;
import org.vastshelf.core.catalogue.AgeBasis;
import org.vastshelf.core.tier.KeepBelow;
import org.vastshelf.core.tier.Scope;
import org.vastshelf.core.tier.TierPlan;
import org.vastshelf.core.tier.TierRule;

/** What rules of tiering would do. */
@RestController
class TieringApi {

    private static final int MOST_FOLDERS = 1_000;
    private static final Instant EARLIEST = Instant.parse("1970-01-01T00:00:00Z");
    private static final Instant LATEST = Instant.parse("9999-12-31T23:59:59Z");

    private final TierPlanning planning;
    private final ShelfClock clock;

    TieringApi(TierPlanning planning, ShelfClock clock) {
        this.planning = planning;
        this.clock = clock;
    }

    /**
     * @param catalogue the name of a share, of a folder that was brought in, or of a table
     * @param olderThanDays whole days of 86,400 seconds since the last use or change, 0 to 36,500
     * @param by {@code LAST_USE}, the later of reading and writing, or {@code LAST_CHANGE}
     * @param largerThanBytes files of this size stay; left out, files of all sizes leave
     * @param excludeFolders paths that begin with a slash; what lies in them, or below, stays
     * @param keepWhileBelowPercent of {@code capacityBytes}; given both, the coldest leave, and only until no more is used
     * @param at the moment at which ages are counted; left out, it is now
     */
    record Ask(
            String catalogue,
            Integer olderThanDays,
            AgeBasis by,
            @Nullable Long largerThanBytes,
            @Nullable List<String> excludeFolders,
            @Nullable BigDecimal keepWhileBelowPercent,
            @Nullable Long capacityBytes,
            @Nullable String at) {

        TierRule rule() {
            if (largerThanBytes != null && largerThanBytes < 0) {
                throw new IllegalArgumentException("largerThanBytes is " + largerThanBytes + ", must be at least 0");
            }
            return new TierRule(
                    olderThanDays,
                    by,
                    Scope.except(
                            folders(excludeFolders == null ? List.of() : excludeFolders),
                            largerThanBytes == null ? Scope.ANY_SIZE : largerThanBytes),
                    keepBelow());
        }

        private static List<String> folders(List<String> paths) {
            if (paths.size() > MOST_FOLDERS) {
                throw new IllegalArgumentException(
                        "excludeFolders has " + paths.size() + " entries, must have at most " + MOST_FOLDERS);
            }
            for (int i = 0; i < paths.size(); i++) {
                if (!paths.get(i).startsWith("/")) {
                    throw new IllegalArgumentException(
                            "excludeFolders[" + i + "] is '" + paths.get(i) + "', must begin with /");
                }
            }
            return paths.stream()
                    .map(path -> path.length() > 1 && path.endsWith("/") ? path.substring(0, path.length() - 1) : path)
                    .toList();
        }

        private Optional<KeepBelow> keepBelow() {
            if (keepWhileBelowPercent == null && capacityBytes == null) {
                return Optional.empty();
            }
            if (keepWhileBelowPercent == null || capacityBytes == null) {
                throw new IllegalArgumentException(
                        (keepWhileBelowPercent == null ? "keepWhileBelowPercent" : "capacityBytes")
                                + " is missing; keepWhileBelowPercent and capacityBytes go together");
            }
            return Optional.of(new KeepBelow(keepWhileBelowPercent, capacityBytes));
        }
    }

    /**
     * Which files of a catalogue would leave, which stay and why, and which have left: as a whole, by folders of the first
     * level, and by age.
     */
    @PostMapping("/api/v1/tiering/plan")
    TierPlan plan(@RequestBody Ask ask) {
        return planning.plan(ask.catalogue, ask.rule(), ask.at == null ? clock.instant() : instant(ask.at));
    }

    private static Instant instant(String text) {
        try {
            Instant at = Instant.parse(text);
            if (at.isBefore(EARLIEST) || at.isAfter(LATEST)) {
                throw new IllegalArgumentException("at is " + at + ", must be " + EARLIEST + " to " + LATEST);
            }
            return at;
        } catch (DateTimeParseException none) {
            throw new IllegalArgumentException(
                    "at is '" + text + "', must be a moment such as 2026-03-02T08:00:00Z", none);
        }
    }
}
