package org.vastshelf.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Duration;
import java.time.Instant;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import org.jooq.DSLContext;
import org.junit.jupiter.api.Test;
import org.vastshelf.app.agenda.AgendaRunner;
import org.vastshelf.app.agenda.AgendaStore;
import org.vastshelf.app.clock.ShelfClock;
import org.vastshelf.app.trace.AuditStore;
import org.vastshelf.core.agenda.Agenda.Entry;
import org.vastshelf.core.agenda.DueKind;
import org.vastshelf.core.audit.AuditLine;
import org.vastshelf.core.estate.Kinds;

/** What falls due, against the real database. */
class AgendaTest {

    private static final Set<DueKind> UNHURRIED = Set.of(DueKind.AGES, DueKind.HELD, DueKind.KEPT);

    private final AgendaStore agenda = App.bean(AgendaStore.class);
    private final ShelfClock clock = App.bean(ShelfClock.class);

    private Optional<AgendaStore.Row> row(Entry entry) {
        return agenda.all().stream().filter(r -> r.entry().equals(entry)).findFirst();
    }

    private static void jump(int hours) {
        assertThat(App.post("odile", "/api/v1/time", "{\"hours\":" + hours + "}")
                        .status())
                .isEqualTo(200);
    }

    private static long days() {
        return App.bean(DSLContext.class)
                .fetchSingle("SELECT COUNT(*) FROM space_history WHERE kind = 'estate'")
                .get(0, Long.class);
    }

    @Test
    void what_fails_is_said_tried_again_later_each_time_and_stops_nothing_else() {
        Entry broken = new Entry(DueKind.ORDER, "nonsense");
        agenda.enter(broken, clock.instant().minusSeconds(60));
        try {
            long before = days();
            jump(25);
            assertThat(days()).as("the days beside it are written").isEqualTo(before + 1);
            AgendaStore.Row failed = row(broken).orElseThrow();
            assertThat(failed.tries()).isPositive();
            assertThat(failed.problem()).contains("nonsense");
            assertThat(failed.retryAt().orElseThrow()).isAfter(clock.real().minusSeconds(5));
            Instant until = clock.real().plusSeconds(30);
            Instant next = failed.retryAt().orElseThrow();
            int tries = failed.tries();
            while (tries < 4 && clock.real().isBefore(until)) {
                App.bean(AgendaRunner.class).run();
                AgendaStore.Row later = row(broken).orElseThrow();
                if (later.tries() > tries) {
                    // A try is never before its time, and the next one is twice as far.
                    assertThat(Duration.between(next, later.retryAt().orElseThrow()))
                            .isGreaterThanOrEqualTo(Duration.ofSeconds(1L << later.tries() - 1));
                    next = later.retryAt().orElseThrow();
                    tries = later.tries();
                }
            }
            assertThat(tries).isGreaterThanOrEqualTo(4);
            try (Browser browser = new Browser(1280, 800).signIn("tomas")) {
                assertThat(browser.page.context().request().get("/look").text())
                        .contains("Order of nonsense", "was due and failed");
            }
        } finally {
            agenda.drop(broken);
        }
    }

    @Test
    void a_rule_falls_due_when_it_is_set_moves_when_it_is_changed_and_ends_with_its_drop() {
        Entry scrub = new Entry(DueKind.of(Kinds.SCRUBBING), "reed");
        String rule = "{\"change\":\"SetRule\",\"rule\":{\"rule\":\"ScrubRule\",\"pool\":\"reed\",\"when\":"
                + "{\"from\":\"2026-01-01T03:00\",\"rule\":\"FREQ=DAILY;INTERVAL=%d\"}}}";
        Drafts.carryOut(rule.formatted(400));
        Instant first = row(scrub).orElseThrow().at();
        Drafts.carryOut(rule.formatted(1));
        Instant daily = row(scrub).orElseThrow().at();
        assertThat(daily).isBefore(first).isBeforeOrEqualTo(clock.instant().plus(Duration.ofDays(1)));
        jump(24);
        assertThat(App.get("odile", "/api/v1/scrubs").text()).contains("\"reed\"");
        assertThat(row(scrub).orElseThrow().at()).isEqualTo(daily.plus(Duration.ofDays(1)));
        Drafts.carryOut("{\"change\":\"DropRule\",\"kind\":\"scrub rule\",\"governs\":\"reed\"}");
        assertThat(row(scrub)).isEmpty();
    }

    @Test
    void everything_is_done_in_the_order_of_its_moments() {
        AuditStore audit = App.bean(AuditStore.class);
        AuditLine last = audit.page(AuditStore.Filter.NONE, Long.MAX_VALUE, 1).getFirst();
        jump(24 * 3);
        Instant midnight = clock.lastMidnight();
        List<AgendaStore.Row> behind = agenda.all().stream()
                .filter(row -> !row.at().isAfter(clock.instant().minusSeconds(5)))
                .toList();
        assertThat(behind)
                .allMatch(
                        row -> UNHURRIED.contains(row.entry().kind())
                                && row.at().equals(midnight),
                        "nothing is left behind that somebody waits for");
        List<Instant> told = audit.page(AuditStore.Filter.NONE, Long.MAX_VALUE, 20_000).stream()
                .takeWhile(line -> line.number() > last.number())
                .map(AuditLine::at)
                .toList();
        assertThat(told).hasSizeGreaterThan(1_000).isSortedAccordingTo(Comparator.reverseOrder());
    }
}
