package org.vastshelf.app.orders;

import java.time.Duration;
import java.time.Instant;
import java.time.temporal.ChronoUnit;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import java.util.concurrent.atomic.AtomicReference;
import java.util.function.Supplier;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.stereotype.Component;
import org.vastshelf.app.agenda.AgendaStore;
import org.vastshelf.app.agenda.DueWork;
import org.vastshelf.app.clock.ShelfClock;
import org.vastshelf.app.orders.Order.Journalled;
import org.vastshelf.app.orders.Order.StepState;
import org.vastshelf.app.store.EstateStore;
import org.vastshelf.app.store.Transactions;
import org.vastshelf.core.agenda.Agenda;
import org.vastshelf.core.agenda.DueKind;
import org.vastshelf.core.change.Devices;
import org.vastshelf.core.change.OrderSteps;
import org.vastshelf.core.change.Step;
import org.vastshelf.core.change.Wait;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.EstateAnswer;
import org.vastshelf.core.unit.ShortText;

/**
 * Carries out orders, one move each time one falls due. The journal is written before a step acts and after it acted, so
 * that whatever the moment at which the application is killed, the next move knows whether to ask the devices, to begin
 * again or to take back. After a jump of the clock each step begins when the one before it was done, not when somebody
 * looked. An order that fails in a way that nobody foresaw stays where it is and stops no other.
 */
@Component
class OrderRunner implements DueWork {

    private static final Logger LOG = LoggerFactory.getLogger(OrderRunner.class);
    /** How exactly the end of a wait is known whose end nobody could foretell. */
    private static final Duration OPEN_WAIT = Duration.ofSeconds(5);

    private static final String STUCK = "Could not go on: ";
    private static final int LONGEST_REASON = 300;

    private final OrderStore orders;
    private final EstateStore estates;
    private final Devices devices;
    private final OrderAudit audit;
    private final AgendaStore agenda;
    private final ShelfClock clock;
    private final Transactions transactions;
    private final List<StepWork> works;

    OrderRunner(
            OrderStore orders,
            EstateStore estates,
            Devices devices,
            OrderAudit audit,
            AgendaStore agenda,
            ShelfClock clock,
            Transactions transactions,
            List<StepWork> works) {
        this.works = works;
        this.orders = orders;
        this.estates = estates;
        this.devices = devices;
        this.audit = audit;
        this.agenda = agenda;
        this.clock = clock;
        this.transactions = transactions;
    }

    static Agenda.Entry entry(long order) {
        return new Agenda.Entry(DueKind.ORDER, String.valueOf(order));
    }

    @Override
    public DueKind kind() {
        return DueKind.ORDER;
    }

    /** One move of one order. */
    @Override
    public void act(String key, Instant at) {
        orders.lock(Long.parseLong(key)).ifPresent(order -> {
            switch (order.state()) {
                case RUNNING -> forward(order, at);
                case TAKING_BACK -> back(order, at);
                case DRAFT, READY, PAUSED, ASKING, DONE, TAKEN_BACK, LEFT -> {}
            }
        });
    }

    @Override
    public Optional<Instant> again(String key, Instant at, Supplier<Optional<Instant>> byAgenda) {
        return orders.find(Long.parseLong(key))
                .filter(order -> order.state().isUnderWay())
                .map(order -> next(order, at));
    }

    /** When an order can move on: at once, when its step ends, or when what it waits for is expected to be over. */
    private Instant next(Order order, Instant at) {
        Optional<Journalled> step = order.current();
        if (order.state() != OrderState.RUNNING || step.isEmpty()) {
            return at;
        }
        if (step.get().state() == StepState.STARTED) {
            Instant due = step.get().dueAt();
            return due != null && due.isAfter(at) ? due : at;
        }
        return step.get()
                .step()
                .waits(estates.load())
                .map(wait -> wait.until().filter(at::isBefore).orElseGet(() -> afterOthers(at)))
                .orElse(at);
    }

    /** A wait whose end nobody can foretell ends by something else that is done. */
    private Instant afterOthers(Instant at) {
        Instant soon = at.plus(OPEN_WAIT);
        Instant now = clock.now();
        Instant other =
                agenda.firstOther(DueKind.ORDER, at).filter(now::isAfter).orElse(now);
        return other.isAfter(soon) ? other : soon;
    }

    /** Says so on the order, once; it is tried again until it can, or taken back where it never will. */
    @Override
    public void failed(String key, RuntimeException why) {
        if (why instanceof StepWork.Impossible) {
            orders.claim(Long.parseLong(key))
                    .filter(order -> order.state() == OrderState.RUNNING)
                    .ifPresent(order -> giveUp(order, "It could not be done: " + why.getMessage() + "."));
            return;
        }
        // What the database says of itself is for the log.
        boolean plain = why.getMessage() != null && why instanceof IllegalStateException;
        String reason = plain ? why.getMessage() : why.getClass().getSimpleName();
        String note = STUCK + ShortText.of(reason, LONGEST_REASON) + ". Tried again until it can.";
        long id = Long.parseLong(key);
        orders.claim(id)
                .filter(order -> order.state().isUnderWay() && !order.outcome().contains(STUCK))
                .ifPresent(order -> orders.state(id, order.state(), joined(order.outcome(), note), null));
    }

    private void forward(Order order, Instant now) {
        Optional<Journalled> next = order.current();
        if (next.isEmpty()) {
            finish(order, OrderState.DONE, joined(order.outcome(), "Finished."), lastEnd(order));
            return;
        }
        Journalled step = next.get();
        if (step.state() == StepState.WAITING) {
            begin(order, step, now);
        } else {
            complete(order, step, now);
        }
    }

    private void begin(Order order, Journalled step, Instant now) {
        Estate estate = estates.load();
        Optional<String> obstacle = step.step().obstacle(estate);
        if (obstacle.isPresent()) {
            giveUp(order, "Step " + (step.position() + 1) + " could not be done: " + obstacle.get() + ".");
            return;
        }
        Optional<Wait> wait = step.step().waits(estate);
        if (wait.isPresent()) {
            remember(order, wait.get(), now);
            return;
        }
        Instant end = lastEnd(order);
        Instant from = order.heldAt() != null && order.heldAt().isAfter(end) ? order.heldAt() : end;
        Instant at = from.isAfter(now) ? now : from;
        Instant due = at.plus(step.step().expected());
        orders.journal(order.id(), new Journalled(step.position(), StepState.STARTED, at, due, null, step.step()));
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

    private void complete(Order order, Journalled step, Instant now) {
        Instant end = devices.begin(key(order, step), step.step(), step.startedAt());
        if (end.isAfter(now)) {
            orders.journal(
                    order.id(),
                    new Journalled(step.position(), step.state(), step.startedAt(), whole(end), null, step.step()));
            return;
        }
        Optional<Wait> wait = step.step().waits(estates.load());
        if (wait.isPresent()) {
            devices.takeBack(key(order, step));
            orders.journal(order.id(), step.waiting());
            remember(order, wait.get(), now);
            return;
        }
        Optional<StepWork> work = workOf(step);
        StepWork.Task task = task(order, step);
        Optional<String> obstacle = work.flatMap(w -> w.obstacle(task));
        if (obstacle.isPresent()) {
            giveUp(order, "Step " + (step.position() + 1) + " could not be done: " + obstacle.get() + ".");
            return;
        }
        Optional<Instant> again = work.flatMap(w -> w.portion(task, now));
        if (again.isPresent()) {
            orders.journal(
                    order.id(),
                    new Journalled(
                            step.position(), step.state(), step.startedAt(), whole(again.get()), null, step.step()));
            return;
        }
        AtomicReference<Step> done = new AtomicReference<>(step.step());
        EstateAnswer answer = estates.change((estate, held) ->
                answer(OrderSteps.forward(order.id(), estate, held, step.step(), order.after(step)), done));
        if (answer instanceof EstateAnswer.Refused refused) {
            giveUp(order, "Step " + (step.position() + 1) + " could not be done: " + refused.because() + ".");
            return;
        }
        orders.journal(
                order.id(),
                new Journalled(step.position(), StepState.DONE, step.startedAt(), step.dueAt(), end, done.get()));
        work.map(w -> w.outcome(task))
                .filter(said -> !said.isEmpty())
                .ifPresent(said -> orders.state(order.id(), order.state(), joined(order.outcome(), said), null));
    }

    private Optional<StepWork> workOf(Journalled step) {
        return works.stream().filter(work -> work.does(step.step())).findFirst();
    }

    private static StepWork.Task task(Order order, Journalled step) {
        return new StepWork.Task(
                order.id(), step.position(), step.step(), Objects.requireNonNull(order.carriedOutBy()));
    }

    /** The next microsecond, as exactly as moments are kept. */
    private static Instant whole(Instant at) {
        return at.plusNanos(999).truncatedTo(ChronoUnit.MICROS);
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

    private void giveUp(Order order, String why) {
        orders.state(order.id(), OrderState.TAKING_BACK, joined(order.outcome(), why), null);
    }

    private void back(Order order, Instant now) {
        Optional<Journalled> last = order.steps().reversed().stream()
                .filter(s -> s.state() == StepState.DONE || s.state() == StepState.STARTED)
                .findFirst();
        if (last.isEmpty()) {
            finish(order, OrderState.TAKEN_BACK, joined(order.outcome(), "Taken back whole."), now);
            return;
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
            return;
        }
        if (workOf(step).filter(work -> !work.undo(task(order, step))).isPresent()) {
            return;
        }
        devices.takeBack(key(order, step));
        orders.journal(
                order.id(),
                new Journalled(
                        step.position(), StepState.TAKEN_BACK, step.startedAt(), step.dueAt(), now, step.step()));
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

    static String joined(String before, String more) {
        return before.isEmpty() ? more : before + " " + more;
    }
}
