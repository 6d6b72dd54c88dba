package org.vastshelf.app.orders;

import java.time.Duration;
import java.time.Instant;
import java.util.Optional;
import java.util.concurrent.atomic.AtomicReference;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.boot.context.event.ApplicationReadyEvent;
import org.springframework.context.event.EventListener;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Component;
import org.vastshelf.app.clock.ShelfClock;
import org.vastshelf.app.orders.Order.Journalled;
import org.vastshelf.app.orders.Order.StepState;
import org.vastshelf.app.store.EstateStore;
import org.vastshelf.app.store.Transactions;
import org.vastshelf.core.change.Devices;
import org.vastshelf.core.change.OrderSteps;
import org.vastshelf.core.change.Step;
import org.vastshelf.core.change.Wait;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.EstateAnswer;

/**
 * Carries out orders. The journal is written before a step acts and after it acted, so that whatever the moment at
 * which the application is killed, the next start knows whether to ask the devices, to begin again or to take back.
 * After a jump of the clock each step begins when the one before it was done, not when somebody looked. An order that
 * fails in a way that nobody foresaw stays where it is and stops no other.
 */
@Component
public class OrderRunner {

    private static final Logger LOG = LoggerFactory.getLogger(OrderRunner.class);
    /** How exactly the end of a wait is known whose end nobody could foretell. */
    private static final Duration OPEN_WAIT = Duration.ofSeconds(5);

    private final OrderStore orders;
    private final EstateStore estates;
    private final Devices devices;
    private final OrderAudit audit;
    private final ShelfClock clock;
    private final Transactions transactions;

    OrderRunner(
            OrderStore orders,
            EstateStore estates,
            Devices devices,
            OrderAudit audit,
            ShelfClock clock,
            Transactions transactions) {
        this.orders = orders;
        this.estates = estates;
        this.devices = devices;
        this.audit = audit;
        this.clock = clock;
        this.transactions = transactions;
    }

    /** Says of each order that a stop or a kill interrupted that it goes on. */
    @EventListener(ApplicationReadyEvent.class)
    void resume() {
        for (long id : orders.underWay()) {
            transactions.run(() -> orders.claim(id).ifPresent(order -> {
                long done = order.steps().stream()
                        .filter(s -> s.state() == StepState.DONE)
                        .count();
                String note =
                        "Interrupted after " + done + " of " + order.steps().size() + " steps, went on at "
                                + clock.instant().truncatedTo(java.time.temporal.ChronoUnit.SECONDS) + ".";
                orders.state(id, order.state(), joined(order.outcome(), note), null);
                LOG.info("order {}: {}", id, note);
            }));
        }
    }

    @Scheduled(fixedDelay = 500)
    public void run() {
        Instant now = clock.instant();
        for (long id : orders.underWay()) {
            try {
                while (transactions.run(() -> advance(id, now))) {
                    LOG.debug("order {} moved on", id);
                }
            } catch (RuntimeException unforeseen) {
                LOG.error("order {} could not go on", id, unforeseen);
                stumble(id, unforeseen);
            }
        }
    }

    /** Says so on the order, once; it is tried again at the next turn. */
    private void stumble(long id, RuntimeException why) {
        String note = "Could not go on: " + why.getClass().getSimpleName() + ". Tried again until it can.";
        transactions.run(() -> orders.claim(id)
                .filter(order -> order.state().isUnderWay() && !order.outcome().contains(note))
                .ifPresent(order -> orders.state(id, order.state(), joined(order.outcome(), note), null)));
    }

    /** One move of one order, in one transaction; false when there is nothing more to do by now. */
    private boolean advance(long id, Instant now) {
        return orders.claim(id)
                .map(order -> switch (order.state()) {
                    case RUNNING -> forward(order, now);
                    case TAKING_BACK -> back(order, now);
                    case DRAFT, READY, PAUSED, ASKING, DONE, TAKEN_BACK, LEFT -> false;
                })
                .orElse(false);
    }

    private boolean forward(Order order, Instant now) {
        Optional<Journalled> next = order.current();
        if (next.isEmpty()) {
            finish(order, OrderState.DONE, joined(order.outcome(), "Finished."), lastEnd(order));
            return false;
        }
        Journalled step = next.get();
        return step.state() == StepState.WAITING ? begin(order, step, now) : complete(order, step, now);
    }

    private boolean begin(Order order, Journalled step, Instant now) {
        Estate estate = estates.load();
        Optional<String> obstacle = step.step().obstacle(estate);
        if (obstacle.isPresent()) {
            return giveUp(order, "Step " + (step.position() + 1) + " could not be done: " + obstacle.get() + ".");
        }
        Optional<Wait> wait = step.step().waits(estate);
        if (wait.isPresent()) {
            remember(order, wait.get(), now);
            return false;
        }
        Instant end = lastEnd(order);
        Instant from = order.heldAt() != null && order.heldAt().isAfter(end) ? order.heldAt() : end;
        Instant at = from.isAfter(now) ? now : from;
        Instant due = at.plus(step.step().expected());
        orders.journal(order.id(), new Journalled(step.position(), StepState.STARTED, at, due, null, step.step()));
        return true;
    }

    /** So that the step begins when what it waits for ended, not when somebody looked. */
    private void remember(Order order, Wait wait, Instant now) {
        Instant until = wait.until()
                .orElseGet(() ->
                        order.heldAt() != null && order.heldAt().isAfter(now.minus(OPEN_WAIT)) ? order.heldAt() : now);
        if (!until.equals(order.heldAt())) {
            orders.hold(order.id(), OrderState.RUNNING, until);
        }
    }

    private boolean complete(Order order, Journalled step, Instant now) {
        Instant end = devices.begin(key(order, step), step.step(), step.startedAt());
        if (end.isAfter(now)) {
            return false;
        }
        if (step.step().waits(estates.load()).isPresent()) {
            devices.takeBack(key(order, step));
            orders.journal(order.id(), step.waiting());
            return true;
        }
        AtomicReference<Step> done = new AtomicReference<>(step.step());
        EstateAnswer answer = estates.change((estate, held) ->
                answer(OrderSteps.forward(order.id(), estate, held, step.step(), order.after(step)), done));
        if (answer instanceof EstateAnswer.Refused refused) {
            return giveUp(order, "Step " + (step.position() + 1) + " could not be done: " + refused.because() + ".");
        }
        orders.journal(
                order.id(),
                new Journalled(step.position(), StepState.DONE, step.startedAt(), step.dueAt(), end, done.get()));
        return true;
    }

    private static EstateAnswer answer(OrderSteps.Outcome outcome, AtomicReference<Step> done) {
        return switch (outcome) {
            case OrderSteps.Stopped stopped -> new EstateAnswer.Refused(stopped.because());
            case OrderSteps.Moved moved -> {
                done.set(moved.step());
                yield new EstateAnswer.Changed(moved.estate());
            }
        };
    }

    private boolean giveUp(Order order, String why) {
        orders.state(order.id(), OrderState.TAKING_BACK, joined(order.outcome(), why), null);
        return true;
    }

    private boolean back(Order order, Instant now) {
        Optional<Journalled> last = order.steps().reversed().stream()
                .filter(s -> s.state() == StepState.DONE || s.state() == StepState.STARTED)
                .findFirst();
        if (last.isEmpty()) {
            finish(order, OrderState.TAKEN_BACK, joined(order.outcome(), "Taken back whole."), now);
            return false;
        }
        Journalled step = last.get();
        if (step.state() == StepState.DONE && undone(order, step) instanceof EstateAnswer.Refused refused) {
            orders.state(
                    order.id(),
                    OrderState.ASKING,
                    joined(
                            order.outcome(),
                            "Step " + (step.position() + 1) + " can't be taken back: " + refused.because() + "."),
                    null);
            return false;
        }
        devices.takeBack(key(order, step));
        orders.journal(
                order.id(),
                new Journalled(
                        step.position(), StepState.TAKEN_BACK, step.startedAt(), step.dueAt(), now, step.step()));
        return true;
    }

    private EstateAnswer undone(Order order, Journalled step) {
        return estates.change((estate, held) ->
                answer(OrderSteps.back(order.id(), estate, held, step.step()), new AtomicReference<>(step.step())));
    }

    private void finish(Order order, OrderState state, String outcome, Instant at) {
        estates.change((estate, held) -> new EstateAnswer.Changed(estate.withoutHold(order.id())));
        orders.state(order.id(), state, outcome, at);
        audit.note(
                order.id(), order.carriedOutBy(), at, state == OrderState.DONE, order.title() + ": " + state.title());
    }

    private static Instant lastEnd(Order order) {
        return order.steps().stream()
                .filter(s -> s.finishedAt() != null)
                .map(Journalled::finishedAt)
                .max(Instant::compareTo)
                .orElse(order.startedAt());
    }

    static String key(Order order, Journalled step) {
        return "order-" + order.id() + "-" + order.startedAt().toEpochMilli() + "-step-" + step.position();
    }

    private static String joined(String before, String more) {
        return before.isEmpty() ? more : before + " " + more;
    }
}
