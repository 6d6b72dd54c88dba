package org.vastshelf.app.foresee;

import static org.assertj.core.api.Assertions.assertThat;
import static org.mockito.ArgumentMatchers.any;
import static org.mockito.ArgumentMatchers.anyInt;
import static org.mockito.ArgumentMatchers.eq;
import static org.mockito.Mockito.after;
import static org.mockito.Mockito.atLeastOnce;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.never;
import static org.mockito.Mockito.timeout;
import static org.mockito.Mockito.verify;
import static org.mockito.Mockito.when;

import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.BooleanSupplier;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.mockito.ArgumentCaptor;
import org.vastshelf.app.clock.QuickDays;
import org.vastshelf.app.clock.ShelfClock;
import org.vastshelf.app.foresee.AccountForecasting.Holder;
import org.vastshelf.app.store.EstateStore;
import org.vastshelf.app.store.HistoryStore;
import org.vastshelf.app.store.LeaseStore;
import org.vastshelf.app.store.UsageStore;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.unit.Bytes;

class ForecastKeepingTest {

    private static final LocalDate DAY = LocalDate.of(2026, 3, 4);
    private static final int SOON_MILLIS = 5_000;
    private static final int WHILE_MILLIS = 200;

    private final AccountForecasting accounts = mock(AccountForecasting.class);
    private final LeaseStore leases = mock(LeaseStore.class);
    private final ShelfClock clock = mock(ShelfClock.class);
    private final QuickDays days = new QuickDays();
    private ForecastKeeping keeping;

    @BeforeEach
    void keeping() {
        EstateStore estates = mock(EstateStore.class);
        HistoryStore histories = mock(HistoryStore.class);
        when(estates.load()).thenReturn(Estate.EMPTY);
        when(histories.lastDay()).thenReturn(Optional.of(DAY));
        when(clock.today()).thenReturn(DAY);
        when(clock.real()).thenReturn(Instant.EPOCH);
        when(leases.take(any(), any())).thenReturn(true);
        keeping = new ForecastKeeping(
                estates,
                mock(UsageStore.class),
                mock(ForecastRound.class),
                accounts,
                mock(PastForecasts.class),
                mock(MovedDates.class),
                mock(SuppositionStore.class),
                histories,
                mock(ForecastStore.class),
                leases,
                clock,
                days);
    }

    @Test
    void what_is_under_way_makes_room_for_days_that_pass_quickly() {
        keeping.keepUp();
        ArgumentCaptor<BooleanSupplier> wanted = ArgumentCaptor.forClass(BooleanSupplier.class);
        verify(accounts, timeout(SOON_MILLIS)).turn(eq(DAY), any(), wanted.capture());
        assertThat(wanted.getValue().getAsBoolean()).isTrue();
        days.during(() -> assertThat(wanted.getValue().getAsBoolean()).isFalse());
        assertThat(wanted.getValue().getAsBoolean()).isTrue();
    }

    @Test
    void nothing_begins_while_days_pass_quickly() {
        days.during(() -> {
            keeping.keepUp();
            verify(accounts, after(WHILE_MILLIS).never()).turn(any(), any(), any());
        });
    }

    @Test
    void accounts_that_are_left_are_gone_on_with_later() {
        AccountForecastStore store = mock(AccountForecastStore.class);
        AccountHistoryStore histories = mock(AccountHistoryStore.class);
        Holder holder = new Holder(new byte[] {1}, new byte[] {2}, Bytes.of(1));
        when(store.levels()).thenReturn("");
        when(store.due(any(), eq(DAY), anyInt())).thenReturn(List.of(holder), List.of());
        when(histories.of(any(), any(), any())).thenReturn(Map.of());
        AccountForecasting forecasting =
                new AccountForecasting(store, histories, mock(AccountPastStore.class), leases, clock);
        forecasting.turn(DAY, Duration.ofSeconds(1), () -> false);
        verify(store, never()).due(any(), any(), anyInt());
        verify(store, never()).forget();
        forecasting.turn(DAY, Duration.ofSeconds(1), () -> true);
        verify(store, atLeastOnce()).put(List.of());
        verify(store).forget();
    }
}
