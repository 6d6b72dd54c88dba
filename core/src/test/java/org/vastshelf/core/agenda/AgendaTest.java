package org.vastshelf.core.agenda;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Instant;
import java.time.ZoneOffset;
import java.util.Collections;
import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.vastshelf.core.Samples;
import org.vastshelf.core.change.Planner;
import org.vastshelf.core.change.PoolChange;
import org.vastshelf.core.change.RuleChange;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.Kinds;
import org.vastshelf.core.estate.ScrubRule;
import org.vastshelf.core.estate.Usage;
import org.vastshelf.core.failure.Mishap;
import org.vastshelf.core.failure.Mishaps;
import org.vastshelf.core.failure.Rebuilds;
import org.vastshelf.core.failure.WearOut;
import org.vastshelf.core.layout.Layout;
import org.vastshelf.core.time.Schedule;

class AgendaTest {

    private static final Instant NOON = Instant.parse("2026-03-02T12:00:00Z");
    private static final Agenda.Entry HARDWARE = new Agenda.Entry(DueKind.HARDWARE, "oak");

    private static Estate estate(int spares) {
        List<String> bays = List.of("hill/1/1", "hill/1/2", "hill/1/3", "hill/1/4", "hill/1/5");
        return Planner.plan(
                        Samples.racked(Collections.nCopies(6, 6_000_000_000_000L)),
                        Usage.NONE,
                        List.of(
                                new PoolChange.ComposePool("oak", "hill", bays, Layout.RAID_5, spares, false, 1),
                                new RuleChange.SetRule(new ScrubRule("oak", Schedule.of("FREQ=WEEKLY")))))
                .after();
    }

    private static Optional<Instant> next(Estate estate, Agenda.Entry entry, Instant after) {
        return Agenda.next(estate, () -> Usage.NONE, entry, after, ZoneOffset.UTC);
    }

    @Test
    void rules_fall_due_by_their_schedules_and_days_at_midnight() {
        Estate estate = estate(0);
        Agenda.Entry scrub = new Agenda.Entry(DueKind.of(Kinds.SCRUBBING), "oak");
        assertThat(Agenda.causes(estate)).containsKeys(scrub, HARDWARE, new Agenda.Entry(DueKind.HISTORY, ""));
        assertThat(next(estate, scrub, NOON)).contains(Instant.parse("2026-03-09T00:00:00Z"));
        assertThat(next(estate, new Agenda.Entry(DueKind.HISTORY, ""), NOON))
                .contains(Instant.parse("2026-03-03T00:00:00Z"));
        Estate without = estate.without(Kinds.SCRUBBING, "oak");
        assertThat(next(without, scrub, NOON)).isEmpty();
        assertThat(Agenda.causes(without)).doesNotContainKey(scrub);
    }

    @Test
    void a_rebuild_is_due_when_it_ends_and_not_while_its_server_is_dark() {
        Estate estate = estate(1);
        assertThat(next(estate, HARDWARE, NOON)).isEmpty();
        Estate hurt = Mishaps.apply(estate, Usage.NONE, new Mishap.DriveFails("hill/1/1"), NOON)
                .estate();
        Instant end = Rebuilds.expectedEnd(hurt, hurt.rebuildsOf("oak").getFirst());
        assertThat(next(hurt, HARDWARE, NOON)).contains(end);
        assertThat(Agenda.causes(hurt).get(HARDWARE))
                .isNotEqualTo(Agenda.causes(estate).get(HARDWARE));
        Estate dark = Mishaps.apply(hurt, Usage.NONE, new Mishap.PowerCut("hill"), NOON)
                .estate();
        assertThat(next(dark, HARDWARE, NOON)).isEmpty();
    }

    @Test
    void a_drive_that_ails_is_due_when_it_has_no_sector_left() {
        Estate ailing = Mishaps.apply(estate(1), Usage.NONE, new Mishap.DriveAils("hill/1/1"), NOON)
                .estate();
        assertThat(next(ailing, HARDWARE, NOON))
                .isEqualTo(WearOut.next(ailing, ailing.pools().get("oak")))
                .isPresent();
    }

    @Test
    void a_hot_spare_that_comes_late_is_due_at_once() {
        Estate hurt = Mishaps.apply(estate(0), Usage.NONE, new Mishap.DriveFails("hill/1/1"), NOON)
                .estate();
        assertThat(next(hurt, HARDWARE, NOON)).isEmpty();
        Estate spared = Planner.plan(hurt, Usage.NONE, List.of(new PoolChange.AddSpares("oak", List.of("hill/1/6"))))
                .after();
        assertThat(next(spared, HARDWARE, NOON)).contains(NOON);
    }

    @Test
    void everything_has_its_turn_at_one_moment() {
        assertThat(DueKind.TRAFFIC.turn()).isLessThan(DueKind.of(Kinds.LIFT).turn());
        assertThat(DueKind.of(Kinds.LIFT).turn()).isLessThan(DueKind.HISTORY.turn());
    }
}
