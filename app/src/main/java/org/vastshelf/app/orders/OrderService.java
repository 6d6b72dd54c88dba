package org.vastshelf.app.orders;

import java.time.Instant;
import java.util.Arrays;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import org.springframework.stereotype.Service;
import org.vastshelf.app.clock.ShelfClock;
import org.vastshelf.app.foresee.Forecasts;
import org.vastshelf.app.store.EstateStore;
import org.vastshelf.app.store.Transactions;
import org.vastshelf.app.store.UsageStore;
import org.vastshelf.core.change.Change;
import org.vastshelf.core.change.Check;
import org.vastshelf.core.change.Outlook;
import org.vastshelf.core.change.Plan;
import org.vastshelf.core.change.Planner;
import org.vastshelf.core.change.PoolChange;
import org.vastshelf.core.change.Wait;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.Usage;
import org.vastshelf.core.unit.ShortText;
import org.vastshelf.core.unit.UnitSystem;

/** Drafts, and what can be done with them. No object of the estate is changed by another road. */
@Service
public class OrderService {

    private static final int MOST_CHANGES = 100;
    private static final int LONGEST_KEY_SHOWN = 60;
    private static final int READY_SHOWN = 50;

    private final OrderStore orders;
    private final EstateStore estates;
    private final UsageStore usage;
    private final OrderAudit audit;
    private final ShelfClock clock;
    private final Transactions transactions;
    private final Forecasts forecasts;
    private final RetentionBound bound;
    private final List<PlanFacts> facts;

    OrderService(
            OrderStore orders,
            EstateStore estates,
            UsageStore usage,
            OrderAudit audit,
            ShelfClock clock,
            Transactions transactions,
            Forecasts forecasts,
            RetentionBound bound,
            List<PlanFacts> facts) {
        this.facts = facts;
        this.bound = bound;
        this.forecasts = forecasts;
        this.audit = audit;
        this.transactions = transactions;
        this.orders = orders;
        this.estates = estates;
        this.usage = usage;
        this.clock = clock;
    }

    /** A draft is refused as it stands, for the reasons in the message. */
    public static final class NotReady extends RuntimeException {
        NotReady(String message) {
            super(message);
        }
    }

    static NotReady notReady(String message) {
        return new NotReady(message);
    }

    /** No order has this number. */
    public static final class NoSuchOrder extends RuntimeException {
        NoSuchOrder(long id) {
            super("There is no order " + id);
        }
    }

    /** Number of the author's latest draft that is in work. */
    public Optional<Long> draftIdOf(String author) {
        return orders.latestDraftId(author);
    }

    public Optional<Order> draftOf(String author) {
        return orders.latestDraft(author);
    }

    /** Orders that stopped and ask what to do. */
    public List<Order> asking() {
        return orders.in(OrderState.ASKING, READY_SHOWN);
    }

    /** Drafts of others that are ready to be carried out. */
    public List<Order> readyFor(String person) {
        return orders.in(OrderState.READY, READY_SHOWN).stream()
                .filter(o -> !o.author().equals(person))
                .toList();
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
        return plan(changes, UnitSystem.BINARY);
    }

    /** The plan for one reader. */
    public Plan plan(List<Change> changes, UnitSystem units) {
        Estate estate = estates.load();
        Usage held = usage.load().within(bound.of());
        Plan planned = Planner.plan(estate, held, changes, units);

        Plan plan = planned.with(found(changes, units));
        boolean replaces = changes.stream().anyMatch(PoolChange.ReplaceDrives.class::isInstance);
        return replaces ? plan.with(Outlook.checks(estate, held, changes, forecasts.poolsFull(), clock.today())) : plan;
    }

    /** What changes meet beside the estate. */
    List<Check> found(List<Change> changes, UnitSystem units) {
        return changes.stream()
                .flatMap(change -> facts.stream().flatMap(f -> f.checks(change, units).stream()))
                .toList();
    }

    /** The estate as the author's draft would leave it, so that what is only drafted can be chosen too. */
    public Estate withDraft(String author) {
        return orders.latestDraft(author)
                .map(draft -> plan(draft.changes()).after())
                .orElseGet(estates::load);
    }

    /** Adds to the author's latest draft that is in work, or begins one. */
    public Order add(String author, Change change) {
        return transactions.run(() -> {
            orders.lockAuthor(author);
            long id = orders.latestDraft(author).map(Order::id).orElseGet(() -> begin(author));
            addTo(id, List.of(change));
            return order(id);
        });
    }

    /** A draft of its own. */
    public Order create(String author, List<Change> changes) {
        if (changes.isEmpty()) {
            throw new IllegalArgumentException("changes is empty, must hold 1 to " + MOST_CHANGES);
        }
        return transactions.run(() -> {
            long id = begin(author);
            addTo(id, changes);
            return order(id);
        });
    }

    private long begin(String author) {
        Instant now = clock.instant();
        long id = orders.createDraft(author, now);
        audit.note(id, author, now, "drafted");
        return id;
    }

    private void addTo(long id, List<Change> changes) {
        int count = changes.size() + requireInWork(id).lines().size();
        if (count > MOST_CHANGES) {
            throw new IllegalArgumentException("changes holds " + count + ", must be at most " + MOST_CHANGES);
        }
        changes.forEach(change -> orders.addChange(id, change));
    }

    public void strike(long id, int position, boolean struck) {
        transactions.run(() -> {
            boolean there = requireInWork(id).lines().stream().anyMatch(l -> l.position() == position);
            if (!there) {
                throw new IllegalArgumentException(
                        "position is " + position + ", which order " + id + " does not have");
            }
            orders.strike(id, position, struck);
        });
    }

    public void confirm(long id, String key, boolean yes, String who) {
        transactions.run(() -> {
            Order draft = requireDraft(id);
            Check check = plan(draft.changes()).checks().stream()
                    .filter(c -> c.verdict() == Check.Verdict.CONFIRM && c.key().equals(key))
                    .findFirst()
                    .orElseThrow(() -> new IllegalArgumentException("Order " + id + " has nothing to confirm under '"
                            + ShortText.of(key, LONGEST_KEY_SHOWN) + "'"));
            Set<String> keys = new HashSet<>(draft.confirmed());
            if (yes ? keys.add(key) : keys.remove(key)) {
                orders.confirm(id, keys);
                audit.note(id, who, clock.instant(), (yes ? "confirmed: " : "no longer confirmed: ") + check.text());
            }
        });
    }

    public void discard(long id, String who) {
        transactions.run(() -> {
            requireDraft(id);
            orders.discard(id);
            audit.note(id, who, clock.instant(), "discarded");
        });
    }

    /** Says that a draft is ready: others may carry it out from now on, and nobody changes it. */
    public void ready(long id, String who) {
        transactions.run(() -> {
            Order draft = requireInWork(id);
            if (draft.changes().isEmpty()) {
                throw new NotReady("The draft holds no change");
            }
            move(draft, OrderState.READY, who, "called ready");
        });
    }

    /** Takes a draft that was ready into work again. */
    public void reopen(long id, String who) {
        transactions.run(() -> move(require(id, OrderState.READY), OrderState.DRAFT, who, "taken into work again"));
    }

    private void move(Order order, OrderState state, String who, String what) {
        orders.state(order.id(), state, order.outcome(), null);
        audit.note(order.id(), who, clock.instant(), what);
    }

    /**
     * An order, locked, in one of some states.
     *
     * @throws NotReady when it is in another
     */
    Order require(long id, OrderState... states) {
        Order order = orders.lock(id).orElseThrow(() -> new NoSuchOrder(id));
        if (Arrays.stream(states).noneMatch(s -> s == order.state())) {
            throw new NotReady("Order " + id + " is " + order.state().title() + ", must be "
                    + Arrays.stream(states).map(OrderState::title).collect(Collectors.joining(" or ")));
        }
        return order;
    }

    Order requireDraft(long id) {
        return require(id, OrderState.DRAFT, OrderState.READY);
    }

    private Order requireInWork(long id) {
        return require(id, OrderState.DRAFT);
    }
}
