package org.vastshelf.app.orders;

import java.time.Duration;
import java.time.Instant;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import org.vastshelf.app.clock.ShelfClock;
import org.vastshelf.app.store.EstateStore;
import org.vastshelf.app.store.UsageStore;
import org.vastshelf.core.change.Change;
import org.vastshelf.core.change.Check;
import org.vastshelf.core.change.Devices;
import org.vastshelf.core.change.Plan;
import org.vastshelf.core.change.Planner;
import org.vastshelf.core.change.Wait;
import org.vastshelf.core.estate.Estate;

/** Drafts, and what can be done with them. No object of the estate is changed by another road. */
@Service
public class OrderService {

    private static final int MOST_CHANGES = 100;

    private final OrderStore orders;
    private final EstateStore estates;
    private final UsageStore usage;
    private final Devices devices;
    private final ShelfClock clock;

    OrderService(OrderStore orders, EstateStore estates, UsageStore usage, Devices devices, ShelfClock clock) {
        this.orders = orders;
        this.estates = estates;
        this.usage = usage;
        this.devices = devices;
        this.clock = clock;
    }

    /** A draft is refused as it stands, for the reasons in the message. */
    public static final class NotReady extends RuntimeException {
        NotReady(String message) {
            super(message);
        }
    }

    /** No order has this number. */
    public static final class NoSuchOrder extends RuntimeException {
        NoSuchOrder(long id) {
            super("There is no order " + id);
        }
    }

    public Optional<Order> draftOf(String author) {
        return orders.latestDraft(author);
    }

    public Order order(long id) {
        return orders.find(id).orElseThrow(() -> new NoSuchOrder(id));
    }

    /** Whether an order is still on its way; one that was discarded is not. */
    public boolean isUnderWay(long id) {
        return orders.find(id)
                .filter(o -> o.isUnderWay() || o.state() == OrderState.PAUSED)
                .isPresent();
    }

    /** What a running order waits for before its next step. */
    public Optional<Wait> waitOf(Order order) {
        return order.current()
                .filter(s -> order.state() == OrderState.RUNNING && s.state() == Order.StepState.WAITING)
                .flatMap(s -> s.step().waits(estates.load()));
    }

    public List<Order> page(long before, int limit) {
        return orders.page(before, limit);
    }

    public Plan plan(List<Change> changes) {
        return Planner.plan(estates.load(), usage.load(), changes);
    }

    /** The estate as the author's draft would leave it, so that what is only drafted can be chosen too. */
    public Estate withDraft(String author) {
        return orders.latestDraft(author)
                .map(draft -> plan(draft.changes()).after())
                .orElseGet(estates::load);
    }

    /** Adds to the author's latest draft, or begins one. */
    @Transactional
    public Order add(String author, Change change) {
        long id =
                orders.latestDraft(author).map(Order::id).orElseGet(() -> orders.createDraft(author, clock.instant()));
        addTo(id, List.of(change));
        return order(id);
    }

    /** A draft of its own. */
    @Transactional
    public Order create(String author, List<Change> changes) {
        if (changes.isEmpty()) {
            throw new IllegalArgumentException("changes is empty, must hold 1 to " + MOST_CHANGES);
        }
        long id = orders.createDraft(author, clock.instant());
        addTo(id, changes);
        return order(id);
    }

    private void addTo(long id, List<Change> changes) {
        int count = changes.size() + order(id).lines().size();
        if (count > MOST_CHANGES) {
            throw new IllegalArgumentException("changes holds " + count + ", must be at most " + MOST_CHANGES);
        }
        changes.forEach(change -> orders.addChange(id, change));
    }

    @Transactional
    public void strike(long id, int position, boolean struck) {
        requireDraft(id);
        orders.strike(id, position, struck);
    }

    @Transactional
    public void confirm(long id, String key, boolean yes) {
        Set<String> keys = new HashSet<>(requireDraft(id).confirmed());
        if (yes) {
            keys.add(key);
        } else {
            keys.remove(key);
        }
        orders.confirm(id, keys);
    }

    @Transactional
    public void discard(long id) {
        requireDraft(id);
        orders.discard(id);
    }

    /**
     * Starts a draft.
     *
     * @throws NotReady when a check refuses it or waits to be confirmed
     */
    @Transactional
    public Order carryOut(long id) {
        return carryOut(id, clock.instant());
    }

    /** Starts a draft as of a time, which a jump of the clock may have passed. */
    @Transactional
    public Order carryOut(long id, Instant now) {
        Order order = requireDraft(id);
        Plan plan = plan(order.changes());
        if (plan.steps().isEmpty() && !plan.isRefused()) {
            throw new NotReady("The draft holds no change");
        }
        if (plan.isRefused()) {
            throw new NotReady(texts(plan.checks().stream()
                    .filter(c -> c.verdict() == Check.Verdict.REFUSE)
                    .toList()));
        }
        List<Check> open = plan.unconfirmed(order.confirmed());
        if (!open.isEmpty()) {
            throw new NotReady("To be confirmed first: " + texts(open));
        }
        orders.start(id, plan.steps(), now);
        return order(id);
    }

    /** Lets a running order rest where it is. */
    @Transactional
    public void pause(long id) {
        require(id, OrderState.RUNNING);
        orders.hold(id, OrderState.PAUSED, clock.instant());
    }

    /** Lets a paused order go on; what its step still had to do when it was paused is still to do. */
    @Transactional
    public void goOn(long id) {
        Order order = require(id, OrderState.PAUSED);
        Instant now = clock.instant();
        Duration rested = Duration.between(order.heldAt(), now);
        for (Order.Journalled step : order.steps()) {
            if (step.state() == Order.StepState.STARTED) {
                devices.delay(OrderRunner.key(order, step), rested);
                orders.journal(id, step.delayed(rested));
            }
        }
        orders.hold(id, OrderState.RUNNING, now);
    }

    private Order require(long id, OrderState state) {
        Order order = orders.lock(id).orElseThrow(() -> new NoSuchOrder(id));
        if (order.state() != state) {
            throw new NotReady("Order " + id + " is " + order.state().title() + ", must be " + state.title());
        }
        return order;
    }

    /** Turns a running or paused order round. */
    @Transactional
    public void takeBack(long id) {
        Order order = orders.lock(id).orElseThrow(() -> new NoSuchOrder(id));
        if (order.state() != OrderState.RUNNING && order.state() != OrderState.PAUSED) {
            throw new NotReady("Order " + id + " is " + order.state().title() + ", must be running or paused");
        }
        orders.state(id, OrderState.TAKING_BACK, (order.outcome() + " Taken back on request.").strip(), null);
    }

    private Order requireDraft(long id) {
        Order order = orders.lock(id).orElseThrow(() -> new NoSuchOrder(id));
        if (order.state() != OrderState.DRAFT) {
            throw new NotReady("Order " + id + " is " + order.state().title() + ", must be a draft");
        }
        return order;
    }

    private static String texts(List<Check> checks) {
        return checks.stream().map(Check::text).collect(Collectors.joining("; "));
    }
}
