package org.vastshelf.app.snapshot;

import java.time.Duration;
import java.time.Instant;
import java.util.Comparator;
import java.util.List;
import org.springframework.http.HttpHeaders;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.GetMapping;
import org.vastshelf.app.clock.ShelfClock;
import org.vastshelf.app.kit.CalendarText;
import org.vastshelf.app.kit.Page;
import org.vastshelf.app.store.EstateStore;
import org.vastshelf.core.estate.Kinds;
import org.vastshelf.core.estate.SnapshotRule;

/** When snapshots are taken in the next weeks, as a calendar. */
@Page
class RunsController {

    private static final Duration AHEAD = Duration.ofDays(28);
    /** Of each volume. */
    private static final int MOST = 700;

    private final EstateStore estates;
    private final ShelfClock clock;

    RunsController(EstateStore estates, ShelfClock clock) {
        this.estates = estates;
        this.clock = clock;
    }

    @GetMapping("/protect/runs.ics")
    ResponseEntity<String> runs() {
        List<SnapshotRule> rules = estates.load().all(Kinds.SNAPSHOTTING).values().stream()
                .sorted(Comparator.comparing(SnapshotRule::volume))
                .toList();
        return ResponseEntity.ok()
                .contentType(MediaType.parseMediaType("text/calendar;charset=UTF-8"))
                .header(HttpHeaders.CONTENT_DISPOSITION, "attachment; filename=\"runs.ics\"")
                .body(calendar(rules, clock.instant()));
    }

    static String calendar(List<SnapshotRule> rules, Instant now) {
        CalendarText calendar = new CalendarText("snapshots", now);
        for (SnapshotRule rule : rules) {
            rule.when().runs(now, ShelfClock.ZONE, MOST).stream()
                    .filter(at -> at.isBefore(now.plus(AHEAD)))
                    .forEach(at -> calendar.at(
                            at,
                            new CalendarText.Event(
                                    "snapshot-" + rule.volume() + "-" + at.getEpochSecond(),
                                    "Snapshot of volume " + rule.volume(),
                                    rule.title())));
        }
        return calendar.ended();
    }
}
