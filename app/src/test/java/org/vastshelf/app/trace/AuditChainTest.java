package org.vastshelf.app.trace;

import static org.mockito.ArgumentMatchers.any;
import static org.mockito.ArgumentMatchers.eq;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.never;
import static org.mockito.Mockito.times;
import static org.mockito.Mockito.verify;
import static org.mockito.Mockito.when;

import java.time.Instant;
import java.util.Optional;
import java.util.function.Supplier;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.mockito.ArgumentMatchers;
import org.vastshelf.app.agenda.AgendaStore;
import org.vastshelf.app.clock.ShelfClock;
import org.vastshelf.app.store.Transactions;
import org.vastshelf.core.agenda.DueKind;

class AuditChainTest {

    private static final Instant NOW = Instant.parse("2027-03-02T08:00:00Z");
    private static final Instant SINCE = Instant.parse("2026-06-01T00:00:00Z");

    private final AuditChainStore store = mock();
    private final WaitingLineStore waiting = mock();
    private final AgendaStore agenda = mock();
    private final ShelfClock clock = mock();
    private final Transactions transactions = mock();
    private final AuditChain chain = new AuditChain(store, waiting, agenda, clock, transactions);

    @BeforeEach
    void lines_wait() {
        when(clock.now()).thenReturn(NOW);
        when(waiting.isAny()).thenReturn(true);
        when(transactions.run(ArgumentMatchers.<Supplier<Boolean>>any()))
                .thenAnswer(call -> call.<Supplier<?>>getArgument(0).get());
        when(store.batch(any())).thenReturn(true, false);
        when(agenda.behindSince(DueKind.TRAFFIC, NOW)).thenReturn(Optional.of(SINCE));
    }

    @Test
    void while_days_pass_they_wait() {
        chain.regularly();
        verify(store, never()).batch(any());
    }

    @Test
    void the_rest_waits_where_days_begin_to_pass_meanwhile() {
        when(agenda.behindSince(DueKind.TRAFFIC, NOW)).thenReturn(Optional.empty(), Optional.of(SINCE));
        chain.regularly();
        verify(store).batch(Optional.empty());
    }

    @Test
    void those_of_days_that_are_over_are_chained_when_they_are_many() {
        when(waiting.areMany()).thenReturn(true);
        chain.regularly();
        verify(store, times(2)).batch(eq(Optional.of(Instant.parse("2026-05-31T00:00:00Z"))));
    }

    @Test
    void all_are_chained_when_no_day_is_to_come_and_for_whoever_looks() {
        when(agenda.behindSince(DueKind.TRAFFIC, NOW)).thenReturn(Optional.empty());
        chain.regularly();
        verify(store, times(2)).batch(Optional.empty());
        when(agenda.behindSince(DueKind.TRAFFIC, NOW)).thenReturn(Optional.of(SINCE));
        chain.extend();
        verify(store, times(3)).batch(Optional.empty());
    }
}
