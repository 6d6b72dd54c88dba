package org.vastshelf.app.snapshot;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Instant;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.vastshelf.core.estate.SnapshotRule;
import org.vastshelf.core.snapshot.KeepRule;
import org.vastshelf.core.time.Schedule;

class RunsControllerTest {

    private static final Instant NOW = Instant.parse("2026-03-02T08:00:00Z");
    private static final KeepRule KEEP = new KeepRule(3, 0, 0, 0, 0, 0);

    private static long events(String calendar) {
        return calendar.lines().filter("BEGIN:VEVENT"::equals).count();
    }

    @Test
    void four_weeks_of_runs_are_events_at_their_moments() {
        String text = RunsController.calendar(
                List.of(new SnapshotRule("film", Schedule.of("FREQ=WEEKLY;BYDAY=SA;BYHOUR=2"), KEEP, "n")), NOW);
        assertThat(text)
                .startsWith("BEGIN:VCALENDAR\r\nVERSION:2.0\r\nPRODID:-//Vast Shelf//snapshots//EN\r\n")
                .contains("DTSTAMP:20260302T080000Z\r\nDTSTART:20260307T020000Z\r\nSUMMARY:Snapshot of volume film\r\n")
                .contains("UID:snapshot-film-1772848800@vast-shelf")
                .endsWith("END:VEVENT\r\nEND:VCALENDAR\r\n");
        assertThat(events(text)).isEqualTo(4);
    }

    @Test
    void one_each_five_minutes_is_bounded_and_none_is_an_empty_calendar() {
        SnapshotRule often = new SnapshotRule("film", Schedule.of("FREQ=MINUTELY;INTERVAL=5"), KEEP, "n");
        assertThat(events(RunsController.calendar(List.of(often), NOW))).isEqualTo(700);
        assertThat(events(RunsController.calendar(List.of(), NOW))).isZero();
    }
}
