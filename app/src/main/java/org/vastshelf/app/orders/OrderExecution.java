package org.vastshelf.app.orders;

import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.atomic.AtomicReference;
import java.util.stream.Collectors;
import org.springframework.stereotype.Service;
import org.vastshelf.app.agenda.AgendaStore;
import org.vastshelf.app.clock.ShelfClock;
import org.vastshelf.app.store.EstateStore;
import org.vastshelf.app.store.Transactions;
import org.vastshelf.core.change.Check;
import org.vastshelf.core.change.Devices;
import org.vastshelf.core.change.Holds;
import org.vastshelf.core.change.Plan;
import org.vastshelf.core.change.Planner;
import org.vastshelf.core.change.Step;
import org.vastshelf.core.estate.EstateAnswer;
import org.vastshelf.core.unit.UnitSystem;

/** Orders on their way: carried out, paused, going on, taken back. */
@Service
public class OrderExecution {

    private final OrderService drafts;
    private final OrderStore orders;
    private final EstateStore estates;
    private final Devices devices;
    private final OrderAudit audit;
    private final AgendaStore agenda;
    private final ShelfClock clock;
    private final RetentionBound bound;
    private final Transactions transactions;

    OrderExecution(
            OrderService drafts,
            OrderStore orders,
            EstateStore estates,
            Devices devices,
            OrderAudit audit,
            AgendaStore agenda,
            ShelfClock clock,
            RetentionBound bound,
            Transactions transactions) {
        this.drafts = drafts;
        this.orders = orders;
        this.estates = estates;
        this.devices = devices;
        this.audit = audit;
        this.agenda = agenda;
        this.clock = clock;
        this.bound = bound;
        this.transactions = transactions;
    }

    /**
     * Starts a draft.
     *
     * @throws OrderService.NotReady when a check refuses it or waits to be confirmed, or when it is in somebody else's work
     */
    public Order carryOut(long id, String who) {
        return transactions.run(() -> {
            begin(id, who, clock.instant()).ifPresent(why -> {
                throw OrderService.notReady(why);
            });
            return drafts.order(id);
        });
    }

    /**
     * Starts a draft as of a time, which a jump of the clock may have passed. From here on the order holds what it
     * needs.
     *
     * @return why it was not started; empty when it was
     */
    public Optional<String> begin(long id, String who, Instant now) {
        return transactions.run(() -> {
            Order order = drafts.requireDraft(id);
            if (order.state() == OrderState.DRAFT && !order.author().equals(who)) {
                return Optional.of("Order " + id + " is in " + order.author() + "'s work, must be called ready first");
            }
            List<Check> found = drafts.found(order.changes(), UnitSystem.BINARY);
            AtomicReference<List<Step>> steps = new AtomicReference<>(List.of());
            EstateAnswer answer = estates.change((estate, held) -> {
                Plan plan = Planner.plan(estate, held.within(bound.of()), order.changes())
                        .with(found);
                steps.set(plan.steps());
                return obstacle(order, plan)
                        .<EstateAnswer>map(EstateAnswer.Refused::new)
                        .orElseGet(() ->
                                new EstateAnswer.Changed(estate.withHold(Holds.of(id, estate, held, plan.steps()))));
            });
            if (answer instanceof EstateAnswer.Refused refused) {
                return Optional.of(refused.because());
            }
            orders.start(id, who, steps.get(), now);
            agenda.enter(OrderRunner.entry(id), now);
            audit.note(id, who, now, "carried out: " + order.title());
            return Optional.empty();
        });
    }

    private static Optional<String> obstacle(Order order, Plan plan) {
        if (plan.isRefused()) {
            return Optional.of(texts(plan.checks().stream()
                    .filter(c -> c.verdict() == Check.Verdict.REFUSE)
                    .toList()));
        }
        if (plan.steps().isEmpty()) {
            return Optional.of("The draft holds no change");
        }
        List<Check> open = plan.unconfirmed(order.confirmed());
        return open.isEmpty() ? Optional.empty() : Optional.of("To be confirmed first: " + texts(open));
    }

    /** Lets a running order rest where it is. */
    public void pause(long id, String who) {
        transactions.run(() -> {
            drafts.require(id, OrderState.RUNNING);
            Instant now = clock.instant();
            orders.hold(id, OrderState.PAUSED, now);
            agenda.drop(OrderRunner.entry(id));
            audit.note(id, who, now, "paused");
        });
    }

    /** Lets a paused order go on; what its step still had to do when it was paused is still to do. */
    public void goOn(long id, String who) {
        transactions.run(() -> {
            Order order = drafts.require(id, OrderState.PAUSED);
            Instant now = clock.instant();
            Duration rested = Duration.between(order.heldAt(), now);
            for (Order.Journalled step : order.steps()) {
                if (step.state() == Order.StepState.STARTED) {
                    devices.delay(OrderRunner.key(order, step), rested);
                    orders.journal(id, step.delayed(rested));
                }
            }
            orders.hold(id, OrderState.RUNNING, now);
            agenda.enter(OrderRunner.entry(id), now);
            audit.note(id, who, now, "went on");
        });
    }

    /** Turns a running or paused order round, or lets one that asks try again. */
    public void takeBack(long id, String who) {
        transactions.run(() -> {
            Order order = drafts.require(id, OrderState.RUNNING, OrderState.PAUSED, OrderState.ASKING);
            String note = order.state() == OrderState.ASKING ? " Tried again." : " Taken back on request.";
            orders.state(id, OrderState.TAKING_BACK, (order.outcome() + note).strip(), null);
            agenda.enter(OrderRunner.entry(id), clock.instant());
            audit.note(id, who, clock.instant(), "taking back");
        });
    }

    /** Ends an order that asks; what it has done so far stays as it is. */
    public void leave(long id, String who) {
        transactions.run(() -> {
            Order order = drafts.require(id, OrderState.ASKING);
            Instant now = clock.instant();
            orders.state(id, OrderState.LEFT, (order.outcome() + " Left as it is by " + who + ".").strip(), now);
            audit.note(id, who, now, "left as it is");
        });
    }

    private static String texts(List<Check> checks) {
        return checks.stream().map(Check::text).collect(Collectors.joining("; "));
    }
}
