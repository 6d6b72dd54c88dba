package org.vastshelf.core.forecast;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Random;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import org.junit.jupiter.api.Test;
import org.vastshelf.core.forecast.FillForecast.Finding;
import org.vastshelf.core.unit.Bytes;

class MendedHistoryTest {

    private static final LocalDate FIRST = LocalDate.of(2026, 1, 1);

    private static History.DayUse day(int number, long bytes) {
        return new History.DayUse(FIRST.plusDays(number), Bytes.of(bytes));
    }

    private static List<History.DayUse> line(int days) {
        List<History.DayUse> line = new ArrayList<>();
        for (int i = 0; i < days; i++) {
            line.add(day(i, 1_000 + 10L * i));
        }
        return line;
    }

    @Test
    void what_is_whole_is_left_alone() {
        MendedHistory mended = MendedHistory.of(line(30));
        assertThat(mended.findings()).isEmpty();
        assertThat(mended.history()).isEqualTo(History.of(line(30)));
    }

    @Test
    void a_gap_is_filled_on_a_line_and_each_day_of_it_told() {
        List<History.DayUse> days = line(60);
        days.subList(10, 13).clear();
        MendedHistory mended = MendedHistory.of(days);
        assertThat(mended.history()).isEqualTo(History.of(line(60)));
        assertThat(mended.findings())
                .containsExactly(
                        new Finding(Finding.Kind.GAP, FIRST.plusDays(10), 1_100),
                        new Finding(Finding.Kind.GAP, FIRST.plusDays(11), 1_110),
                        new Finding(Finding.Kind.GAP, FIRST.plusDays(12), 1_120));
    }

    @Test
    void the_last_of_several_values_for_a_day_counts() {
        List<History.DayUse> days = line(20);
        days.add(6, day(5, 7));
        MendedHistory mended = MendedHistory.of(days);
        assertThat(mended.history().used().get(5)).isEqualTo(Bytes.of(7));
        assertThat(mended.findings()).containsExactly(new Finding(Finding.Kind.REPEAT, FIRST.plusDays(5), 1_050));
    }

    @Test
    void beyond_the_bound_it_is_refused_with_the_bound() {
        List<History.DayUse> longGap = line(400);
        longGap.subList(100, 115).clear();
        assertThatThrownBy(() -> MendedHistory.of(longGap))
                .hasMessage("history lacks the 15 days from 2026-04-11 to 2026-04-25, a gap may have at most 14");
        List<History.DayUse> sparse = new ArrayList<>(
                line(40).stream().filter(d -> d.day().getDayOfMonth() % 4 != 0).toList());
        assertThatThrownBy(() -> MendedHistory.of(sparse))
                .hasMessageStartingWith("history lacks ")
                .hasMessageEndingWith("one in 10");
        assertThatThrownBy(() -> MendedHistory.of(List.of())).hasMessageContaining("must be 7 to");
    }

    @Test
    void large_figures_do_not_run_over() {
        List<History.DayUse> days = line(30);
        days.set(10, day(10, 0));
        days.set(12, day(12, Long.MAX_VALUE));
        days.remove(11);
        assertThat(MendedHistory.of(days).history().used().get(11).value()).isEqualTo(Long.MAX_VALUE / 2);
    }

    @Property(tries = 100)
    void the_order_in_which_days_come_changes_nothing_but_what_is_told(@ForAll long seed) {
        List<History.DayUse> days = line(50);
        days.remove(new Random(seed).nextInt(48) + 1);
        MendedHistory inOrder = MendedHistory.of(days);
        Collections.shuffle(days, new Random(seed));
        assertThat(MendedHistory.of(days).history()).isEqualTo(inOrder.history());
    }
}
