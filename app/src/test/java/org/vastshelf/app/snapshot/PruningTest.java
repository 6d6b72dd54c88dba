package org.vastshelf.app.snapshot;

import static org.assertj.core.api.Assertions.assertThat;
import static org.mockito.ArgumentMatchers.any;
import static org.mockito.Mockito.after;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.timeout;
import static org.mockito.Mockito.verify;
import static org.mockito.Mockito.when;

import java.util.Map;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.TimeUnit;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.springframework.transaction.PlatformTransactionManager;
import org.vastshelf.app.clock.QuickDays;
import org.vastshelf.app.store.LeaseStore;
import org.vastshelf.app.store.Transactions;

class PruningTest {

    private static final int SOON_MILLIS = 5_000;
    private static final int WHILE_MILLIS = 300;
    private static final PruningStore.Deaths DEATHS = new PruningStore.Deaths(Map.of(), Map.of());

    private final PruningStore store = mock(PruningStore.class);
    private final LeaseStore leases = mock(LeaseStore.class);
    private final QuickDays days = new QuickDays();
    private final Pruning pruning =
            new Pruning(store, leases, new Transactions(mock(PlatformTransactionManager.class)), days);

    @BeforeEach
    void somethingToBeRemoved() {
        when(store.deaths()).thenReturn(DEATHS);
        when(leases.take(any(), any())).thenReturn(true);
    }

    @Test
    void nothing_begins_while_days_pass_quickly() {
        days.during(() -> {
            pruning.keepUp();
            verify(store, after(WHILE_MILLIS).never()).deaths();
        });
        pruning.keepUp();
        verify(store, timeout(SOON_MILLIS)).pruneSome(DEATHS);
    }

    @Test
    void what_is_under_way_stops_for_days_that_pass_quickly_and_is_gone_on_with() throws InterruptedException {
        CountDownLatch begun = new CountDownLatch(1);
        CountDownLatch passing = new CountDownLatch(1);
        when(store.pruneSome(DEATHS)).thenAnswer(some -> {
            begun.countDown();
            passing.await();
            return true;
        });
        pruning.keepUp();
        begun.await();
        days.during(() -> {
            passing.countDown();
            verify(leases, timeout(SOON_MILLIS)).giveBack(any());
        });
        verify(store).pruneSome(DEATHS);
        CountDownLatch again = new CountDownLatch(1);
        when(store.pruneSome(DEATHS)).thenAnswer(none -> {
            again.countDown();
            return false;
        });
        long until = System.nanoTime() + TimeUnit.MILLISECONDS.toNanos(SOON_MILLIS);
        while (!again.await(1, TimeUnit.MILLISECONDS) && System.nanoTime() < until) {
            pruning.keepUp();
        }
        assertThat(again.getCount()).isZero();
    }
}
