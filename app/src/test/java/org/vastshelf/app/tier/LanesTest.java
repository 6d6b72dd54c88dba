package org.vastshelf.app.tier;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.atomic.AtomicInteger;
import org.junit.jupiter.api.Test;

class LanesTest {

    private static void await(CountDownLatch latch) {
        try {
            latch.await();
        } catch (InterruptedException interrupted) {
            throw new IllegalStateException(interrupted);
        }
    }

    @Test
    void so_many_are_at_work_at_once_and_no_more() {
        AtomicInteger now = new AtomicInteger();
        AtomicInteger most = new AtomicInteger();
        Set<Integer> done = ConcurrentHashMap.newKeySet();
        CountDownLatch all = new CountDownLatch(3);
        try (Lanes lanes = new Lanes(3)) {
            for (int i = 0; i < 60; i++) {
                int number = i;
                lanes.begin(() -> {
                    most.accumulateAndGet(now.incrementAndGet(), Math::max);
                    // None goes on before three are there: with fewer lanes this would stand still.
                    all.countDown();
                    await(all);
                    done.add(number);
                    now.decrementAndGet();
                });
            }
            lanes.rest();
            assertThat(done).hasSize(60);
        }
        assertThat(most).hasValue(3);
    }

    @Test
    void the_first_failure_is_told_and_what_was_begun_comes_to_its_end() {
        AtomicInteger ended = new AtomicInteger();
        CountDownLatch failed = new CountDownLatch(1);
        try (Lanes lanes = new Lanes(2)) {
            lanes.begin(() -> {
                await(failed);
                ended.incrementAndGet();
            });
            lanes.begin(() -> {
                failed.countDown();
                throw new IllegalStateException("the store is away");
            });
            assertThatThrownBy(() -> {
                        for (int i = 0; i < 1_000; i++) {
                            lanes.begin(() -> {});
                        }
                    })
                    .hasMessage("the store is away");
            assertThatThrownBy(lanes::rest).hasMessage("the store is away");
        }
        assertThat(ended).hasValue(1);
    }
}
