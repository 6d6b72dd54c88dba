package org.vastshelf.app.orders;

import java.time.Instant;
import java.time.temporal.ChronoUnit;
import java.util.List;
import java.util.Optional;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.boot.context.event.ApplicationReadyEvent;
import org.springframework.context.event.EventListener;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Component;
import org.vastshelf.app.agenda.AgendaStore;
import org.vastshelf.app.clock.ShelfClock;
import org.vastshelf.app.orders.Order.StepState;
import org.vastshelf.app.store.Heartbeat;
import org.vastshelf.app.store.Transactions;

/**
 * Says of each order that a stop or a kill interrupted that it goes on. Where another node lives, none was; one that
 * starts sooner than the killed one is known to be gone waits until it is.
 */
@Component
class Interruptions {

    private static final Logger LOG = LoggerFactory.getLogger(Interruptions.class);
    /** One a second: who lives for longer than a killed node is remembered was not killed. */
    private static final int MOST_TRIES = 2 * (int) Heartbeat.LIFE.toSeconds();

    private final OrderStore orders;
    private final AgendaStore agenda;
    private final ShelfClock clock;
    private final Heartbeat heartbeat;
    private final Transactions transactions;
    private List<Found> found = List.of();
    private int tries;

    Interruptions(
            OrderStore orders, AgendaStore agenda, ShelfClock clock, Heartbeat heartbeat, Transactions transactions) {
        this.orders = orders;
        this.agenda = agenda;
        this.clock = clock;
        this.heartbeat = heartbeat;
        this.transactions = transactions;
    }

    /** An order that was under way when this node had started. */
    private record Found(long order, long done, int steps, Instant at) {}

    @EventListener(ApplicationReadyEvent.class)
    synchronized void resume() {
        tries = MOST_TRIES;
        List<Long> ids = orders.underWay();
        found = ids.stream().map(this::found).flatMap(Optional::stream).toList();
        ids.forEach(id -> transactions.run(() -> agenda.ensure(OrderRunner.entry(id), clock.instant())));
        tell();
    }

    private Optional<Found> found(long id) {
        return orders.find(id)
                .map(order -> new Found(
                        id,
                        order.steps().stream()
                                .filter(step -> step.state() == StepState.DONE)
                                .count(),
                        order.steps().size(),
                        clock.instant().truncatedTo(ChronoUnit.SECONDS)));
    }

    @Scheduled(fixedDelay = 1_000)
    synchronized void tell() {
        if (found.isEmpty()) {
            return;
        }
        if (heartbeat.isAlone()) {
            found.forEach(this::tell);
            found = List.of();
        } else if (--tries == 0) {
            found = List.of();
        }
    }

    private void tell(Found was) {
        String note = "Interrupted after " + was.done + " of " + was.steps + " steps, went on at " + was.at + ".";
        transactions.run(() -> orders.lock(was.order)
                .filter(order -> order.state().isUnderWay())
                .ifPresent(order -> {
                    orders.state(was.order, order.state(), OrderRunner.joined(order.outcome(), note), null);
                    LOG.info("order {}: {}", was.order, note);
                }));
    }
}
