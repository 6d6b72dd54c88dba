package org.vastshelf.app.clock;

import static org.assertj.core.api.Assertions.assertThat;
import static org.mockito.ArgumentMatchers.any;
import static org.mockito.ArgumentMatchers.eq;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.never;
import static org.mockito.Mockito.verify;
import static org.mockito.Mockito.when;

import java.time.Duration;
import java.time.Instant;
import org.junit.jupiter.api.Test;
import org.mockito.ArgumentCaptor;
import org.vastshelf.app.store.LeaseStore;

class CountedClockTest {

    private static final Instant NOW = Instant.parse("2026-03-02T08:00:00Z");

    private final CountedClockStore store = mock(CountedClockStore.class);
    private final LeaseStore leases = mock(LeaseStore.class);
    private final ShelfClock clock = mock(ShelfClock.class);

    private CountedClock counted() {
        when(clock.now()).thenReturn(NOW);
        return new CountedClock(store, leases, clock);
    }

    @Test
    void it_begins_with_the_installation_and_passes_as_the_machine_counts() throws Exception {
        when(leases.take(any(), any())).thenReturn(true);
        CountedClock counted = counted();
        verify(store).begin(NOW);
        when(clock.now()).thenReturn(NOW.plus(Duration.ofDays(4_000)));
        Thread.sleep(30);
        counted.pass();
        ArgumentCaptor<Duration> by = ArgumentCaptor.forClass(Duration.class);
        verify(store).forward(by.capture(), eq(NOW.plus(Duration.ofDays(4_000))));
        assertThat(by.getValue())
                .as("as long as it ran, whatever the clock was moved by")
                .isBetween(Duration.ofMillis(30), Duration.ofSeconds(50));
    }

    @Test
    void one_node_lets_it_pass_for_all() {
        when(leases.take(any(), any())).thenReturn(false);
        counted().pass();
        verify(store, never()).forward(any(), any());
    }

    @Test
    void it_is_what_the_database_says() {
        when(store.at()).thenReturn(NOW.minusSeconds(9));
        assertThat(counted().instant()).isEqualTo(NOW.minusSeconds(9));
    }
}
