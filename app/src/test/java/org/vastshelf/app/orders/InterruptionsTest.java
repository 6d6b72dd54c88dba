package org.vastshelf.app.orders;

import static org.mockito.ArgumentMatchers.any;
import static org.mockito.ArgumentMatchers.contains;
import static org.mockito.ArgumentMatchers.eq;
import static org.mockito.ArgumentMatchers.isNull;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.never;
import static org.mockito.Mockito.verify;
import static org.mockito.Mockito.when;

import java.time.Instant;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.springframework.transaction.PlatformTransactionManager;
import org.vastshelf.app.agenda.AgendaStore;
import org.vastshelf.app.clock.ShelfClock;
import org.vastshelf.app.store.Heartbeat;
import org.vastshelf.app.store.Transactions;

class InterruptionsTest {

    private static final Instant START = Instant.parse("2026-03-02T08:00:00.25Z");

    private final OrderStore store = mock(OrderStore.class);
    private final Heartbeat heartbeat = mock(Heartbeat.class);
    private final ShelfClock clock = mock(ShelfClock.class);
    private final Interruptions interruptions = new Interruptions(
            store, mock(AgendaStore.class), clock, heartbeat, new Transactions(mock(PlatformTransactionManager.class)));

    @BeforeEach
    void anOrderIsUnderWay() {
        when(clock.instant()).thenReturn(START);
        when(store.underWay()).thenReturn(List.of(7L));
        when(store.find(7)).thenReturn(Optional.of(order(OrderState.RUNNING)));
        when(store.lock(7)).thenReturn(Optional.of(order(OrderState.RUNNING)));
    }

    private static Order order(OrderState state) {
        return new Order(
                7, "odile", "odile", state, START, START, null, null, Set.of(), "So far.", List.of(), List.of());
    }

    private void toldOnce() {
        verify(store)
                .state(
                        eq(7L),
                        eq(OrderState.RUNNING),
                        contains("So far. Interrupted after 0 of 0 steps, went on at 2026-03-02T08:00:00Z."),
                        isNull());
    }

    @Test
    void an_order_is_told_to_have_been_interrupted_once_the_killed_node_is_known_to_be_gone() {
        interruptions.resume();
        verify(store, never()).state(eq(7L), any(), any(), any());
        when(heartbeat.isAlone()).thenReturn(true);
        interruptions.tell();
        interruptions.tell();
        toldOnce();
    }

    @Test
    void where_another_node_goes_on_living_nothing_was_interrupted() {
        interruptions.resume();
        for (int second = 0; second < 12; second++) {
            interruptions.tell();
        }
        when(heartbeat.isAlone()).thenReturn(true);
        interruptions.tell();
        verify(store, never()).state(eq(7L), any(), any(), any());
    }

    @Test
    void what_has_ended_meanwhile_is_left_as_it_is() {
        interruptions.resume();
        when(store.lock(7)).thenReturn(Optional.of(order(OrderState.DONE)));
        when(heartbeat.isAlone()).thenReturn(true);
        interruptions.tell();
        verify(store, never()).state(eq(7L), any(), any(), any());
    }
}
