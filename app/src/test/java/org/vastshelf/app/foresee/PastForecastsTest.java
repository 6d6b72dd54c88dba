package org.vastshelf.app.foresee;

import static org.assertj.core.api.Assertions.assertThat;
import static org.mockito.ArgumentMatchers.any;
import static org.mockito.ArgumentMatchers.anyCollection;
import static org.mockito.ArgumentMatchers.eq;
import static org.mockito.Mockito.atLeast;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.never;
import static org.mockito.Mockito.verify;
import static org.mockito.Mockito.when;

import java.time.DayOfWeek;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.mockito.ArgumentCaptor;
import org.vastshelf.app.store.EstateStore;
import org.vastshelf.app.store.UsageStore;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.Usage;
import org.vastshelf.standins.scenario.DemoEstate;

class PastForecastsTest {

    /** A Wednesday. */
    private static final LocalDate DAY = LocalDate.of(2026, 3, 4);

    private final PastForecastStore store = mock(PastForecastStore.class);
    private final ForecastRound round = mock(ForecastRound.class);
    private final Set<LocalDate> there = new HashSet<>();
    private final EstateStore estates = mock(EstateStore.class);
    private PastForecasts pasts;

    @BeforeEach
    void pasts() {
        UsageStore usage = mock(UsageStore.class);
        when(estates.load()).thenReturn(DemoEstate.create());
        when(usage.load()).thenReturn(Usage.NONE);
        when(store.days()).thenReturn(there);
        when(round.expected(any(), any(), any(), any())).thenReturn(Map.of());
        pasts = new PastForecasts(store, mock(ForecastStore.class), round, estates, usage);
    }

    private List<LocalDate> workedOut(LocalDate day) {
        while (pasts.workOutOne(day)) {
            assertThat(there.size()).isLessThan(100);
        }
        ArgumentCaptor<LocalDate> days = ArgumentCaptor.forClass(LocalDate.class);
        verify(round, atLeast(0)).expected(any(), any(), days.capture(), any());
        return days.getAllValues();
    }

    @Test
    void a_new_installation_looks_back_a_year_by_sundays_each_once() {
        List<LocalDate> days = workedOut(DAY);
        assertThat(days)
                .hasSize(9)
                .doesNotHaveDuplicates()
                .allMatch(day -> day.getDayOfWeek() == DayOfWeek.SUNDAY)
                .contains(LocalDate.of(2026, 2, 22), LocalDate.of(2025, 3, 2));
        assertThat(pasts.workOutOne(DAY))
                .as("where nothing is known it is not tried again")
                .isFalse();
    }

    @Test
    void a_past_that_is_there_before_the_estate_waits_for_it() {
        when(estates.load()).thenReturn(Estate.EMPTY);
        assertThat(workedOut(DAY)).isEmpty();
        when(estates.load()).thenReturn(DemoEstate.create());
        assertThat(workedOut(DAY)).hasSize(9);
    }

    @Test
    void sundays_that_were_noted_are_not_worked_out() {
        for (LocalDate sunday = LocalDate.of(2025, 1, 5); sunday.isBefore(DAY); sunday = sunday.plusWeeks(1)) {
            there.add(sunday);
        }
        assertThat(workedOut(DAY)).isEmpty();
        there.remove(LocalDate.of(2026, 2, 22));
        there.remove(LocalDate.of(2025, 12, 28));
        assertThat(new ArrayList<>(workedOut(DAY)))
                .as("the week before is wanted itself, further back a neighbour will do")
                .containsExactly(LocalDate.of(2026, 2, 22));
    }

    @Test
    void on_sundays_what_is_expected_is_noted_and_each_day_what_was_is_written_beside() {
        pasts.note(DAY);
        verify(store, never()).put(anyCollection(), eq(false));
        verify(store).judge(DAY);
        LocalDate sunday = LocalDate.of(2026, 3, 8);
        pasts.note(sunday);
        verify(store).put(anyCollection(), eq(false));
        verify(store).judge(sunday);
    }
}
