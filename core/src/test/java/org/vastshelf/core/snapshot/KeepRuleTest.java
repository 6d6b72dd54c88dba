package org.vastshelf.core.snapshot;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.time.Duration;
import java.time.Instant;
import java.time.ZoneId;
import java.time.ZonedDateTime;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import java.util.SortedSet;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.IntRange;
import org.junit.jupiter.api.Test;

class KeepRuleTest {

    private static final ZoneId LONDON = ZoneId.of("Europe/London");

    private static List<Instant> hourly(String from, int hours) {
        return Stream.iterate(Instant.parse(from), at -> at.plus(Duration.ofHours(1)))
                .limit(hours)
                .toList();
    }

    private static List<String> days(SortedSet<Instant> kept) {
        return kept.stream()
                .map(at -> at.atZone(LONDON).toString().substring(0, 16))
                .toList();
    }

    @Test
    void the_newest_of_each_span_stays() {
        List<Instant> taken = hourly("2026-01-28T00:00:00Z", 24 * 6);
        assertThat(days(new KeepRule(0, 2, 3, 0, 0, 0).kept(taken, LONDON)))
                .containsExactly("2026-01-31T23:00", "2026-02-01T23:00", "2026-02-02T22:00", "2026-02-02T23:00");
        assertThat(days(new KeepRule(0, 0, 0, 2, 2, 2).kept(taken, LONDON)))
                .containsExactly("2026-01-31T23:00", "2026-02-01T23:00", "2026-02-02T23:00");
        assertThat(new KeepRule(0, 0, 0, 0, 0, 0).kept(taken, LONDON)).isEmpty();
        assertThat(new KeepRule(KeepRule.MOST, 0, 0, 0, 0, 0).kept(taken, LONDON))
                .hasSize(144);
    }

    @Test
    void a_new_year_begins_where_its_first_week_does() {
        List<Instant> taken = List.of(
                Instant.parse("2026-12-31T12:00:00Z"),
                Instant.parse("2027-01-01T12:00:00Z"),
                Instant.parse("2027-01-04T12:00:00Z"));
        assertThat(days(new KeepRule(0, 0, 0, 2, 0, 0).kept(taken, LONDON)))
                .containsExactly("2027-01-01T12:00", "2027-01-04T12:00");
        assertThat(days(new KeepRule(0, 0, 0, 0, 0, 2).kept(taken, LONDON)))
                .containsExactly("2026-12-31T12:00", "2027-01-04T12:00");
    }

    @Test
    void a_day_is_one_of_the_zone_and_an_hour_shown_twice_is_two() {
        List<Instant> taken = hourly("2026-10-24T22:00:00Z", 6);
        assertThat(days(new KeepRule(0, 0, 2, 0, 0, 0).kept(taken, LONDON)))
                .containsExactly("2026-10-24T23:00", "2026-10-25T03:00");
        assertThat(new KeepRule(0, 6, 0, 0, 0, 0).kept(taken, LONDON)).hasSize(6);
    }

    @Property(tries = 200)
    void rules_are_idempotent_and_more_keeps_more(
            @ForAll @IntRange(max = 5) int newest,
            @ForAll @IntRange(max = 30) int hourly,
            @ForAll @IntRange(max = 10) int daily,
            @ForAll @IntRange(max = 6) int weekly,
            @ForAll @IntRange(max = 4) int monthly,
            @ForAll @IntRange(max = 3) int yearly,
            @ForAll long seed) {
        Random random = new Random(seed);
        List<Instant> taken = new ArrayList<>();
        Instant at = ZonedDateTime.of(2025, 3, 1, 0, 0, 0, 0, LONDON).toInstant();
        for (int i = 0; i < 200; i++) {
            at = at.plus(Duration.ofMinutes(1 + random.nextInt(60 * 60)));
            taken.add(at);
        }
        KeepRule rule = new KeepRule(newest, hourly, daily, weekly, monthly, yearly);
        SortedSet<Instant> kept = rule.kept(taken, LONDON);
        assertThat(rule.kept(List.copyOf(kept), LONDON)).isEqualTo(kept);
        assertThat(new KeepRule(newest + 1, hourly, daily, weekly, monthly, yearly).kept(taken, LONDON))
                .containsAll(kept);
        assertThat(new KeepRule(newest, hourly + 1, daily + 1, weekly + 1, monthly + 1, yearly + 1).kept(taken, LONDON))
                .containsAll(kept);
        List<Instant> byAndBy = new ArrayList<>();
        for (Instant one : taken) {
            byAndBy.add(one);
            byAndBy = new ArrayList<>(rule.kept(byAndBy, LONDON));
        }
        assertThat(byAndBy).containsExactlyElementsOf(kept);
    }

    @Test
    void of_the_hours_of_a_day_that_is_over_the_last_is_worth_it() {
        KeepRule rule = new KeepRule(3, 24, 14, 8, 12, 2);
        List<Instant> before = hourly("2026-01-26T00:20:00Z", 24);
        List<Instant> day = hourly("2026-01-27T00:20:00Z", 24);
        assertThat(rule.worth(before, day, hourly("2026-01-28T00:20:00Z", 24), LONDON))
                .containsExactly(Instant.parse("2026-01-27T23:20:00Z"));
        assertThat(rule.worth(before, day, hourly("2026-01-28T00:20:00Z", 10), LONDON))
                .hasSize(14);
        assertThat(rule.worth(before, day, List.of(), LONDON)).hasSize(24);
        assertThat(new KeepRule(0, 6, 0, 0, 0, 0).worth(before, day, hourly("2026-01-28T00:20:00Z", 24), LONDON))
                .hasSize(6);
    }

    /** Whatever is left out, at each change there is one of each state that there would have been, and in the end all are. */
    @Property(tries = 200)
    void what_is_not_worth_it_is_missed_by_nobody(
            @ForAll @IntRange(max = 3) int newest,
            @ForAll @IntRange(max = 30) int hourly,
            @ForAll @IntRange(max = 5) int daily,
            @ForAll @IntRange(max = 3) int weekly,
            @ForAll long seed) {
        Random random = new Random(seed);
        KeepRule rule = new KeepRule(newest, hourly, daily, weekly, 0, 0);
        List<List<Instant>> states = new ArrayList<>();
        Instant at = ZonedDateTime.of(2026, 3, 26, 0, 20, 0, 0, LONDON).toInstant();
        for (int i = 0; i < 25; i++) {
            List<Instant> same = new ArrayList<>();
            for (int n = 1 + random.nextInt(30); n > 0; n--) {
                at = at.plus(Duration.ofMinutes(20 + random.nextInt(100)));
                same.add(at);
            }
            states.add(same);
        }
        List<Instant> all = List.of();
        List<Instant> some = List.of();
        for (int i = 0; i < states.size(); i++) {
            List<Instant> same = states.get(i);
            List<Instant> later = i + 1 < states.size() ? states.get(i + 1) : List.of();
            SortedSet<Instant> kept = rule.kept(joined(all, same), LONDON);
            all = List.copyOf(kept);
            List<Instant> taken = List.copyOf(rule.worth(some, same, later, LONDON));
            List<Instant> before = some;
            some = joined(before, taken).stream()
                    .filter(rule.kept(joined(before, same), LONDON)::contains)
                    .toList();
            assertThat(held(states, some)).isEqualTo(held(states, all));
        }
        assertThat(some).isEqualTo(all);
    }

    private static List<Instant> joined(List<Instant> before, List<Instant> after) {
        return Stream.concat(before.stream(), after.stream()).toList();
    }

    /** The states of which there is a snapshot. */
    private static List<Integer> held(List<List<Instant>> states, List<Instant> snapshots) {
        return IntStream.range(0, states.size())
                .filter(i -> states.get(i).stream().anyMatch(snapshots::contains))
                .boxed()
                .toList();
    }

    @Test
    void figures_have_bounds() {
        assertThatThrownBy(() -> new KeepRule(0, 0, -1, 0, 0, 0))
                .hasMessageContaining("keep.daily is -1, must be 0 to");
    }
}
