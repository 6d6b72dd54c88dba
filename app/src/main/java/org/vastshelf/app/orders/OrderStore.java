package org.vastshelf.app.orders;

import static org.vastshelf.app.store.generated.Tables.DRAFT_AUTHOR;
import static org.vastshelf.app.store.generated.Tables.ORDER_CHANGE;
import static org.vastshelf.app.store.generated.Tables.ORDER_STEP;
import static org.vastshelf.app.store.generated.Tables.SHELF_ORDER;

import java.time.Instant;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import java.util.stream.Collectors;
import org.jooq.DSLContext;
import org.jooq.impl.DSL;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;
import org.vastshelf.app.store.StoredJson;
import org.vastshelf.app.store.Times;
import org.vastshelf.app.store.generated.tables.records.ShelfOrderRecord;
import org.vastshelf.core.change.Change;
import org.vastshelf.core.change.Step;
import tools.jackson.core.JacksonException;

/** Keeps orders with their changes and the journal of their steps. */
@Component
class OrderStore {

    private final DSLContext db;
    private final StoredJson json;

    OrderStore(DSLContext db, StoredJson json) {
        this.db = db;
        this.json = json;
    }

    long createDraft(String author, Instant at) {
        return db.insertInto(SHELF_ORDER)
                .set(SHELF_ORDER.AUTHOR, author)
                .set(SHELF_ORDER.STATE, OrderState.DRAFT.name())
                .set(SHELF_ORDER.CREATED_AT, Times.stored(at))
                .set(SHELF_ORDER.CONFIRMED, "")
                .set(SHELF_ORDER.OUTCOME, "")
                .returning(SHELF_ORDER.ID)
                .fetchSingle()
                .getId();
    }

    /** Nobody else seeks or makes a draft of this author's before the transaction has ended. */
    void lockAuthor(String author) {
        db.insertInto(DRAFT_AUTHOR).values(author).onDuplicateKeyIgnore().execute();
        db.selectFrom(DRAFT_AUTHOR)
                .where(DRAFT_AUTHOR.AUTHOR.eq(author))
                .forUpdate()
                .fetch();
    }

    void addChange(long order, Change change) {
        int position = db.fetchCount(ORDER_CHANGE, ORDER_CHANGE.ORDER_ID.eq(order));
        db.insertInto(ORDER_CHANGE)
                .values(order, position, 0, json.write(Change.class, change))
                .execute();
    }

    void strike(long order, int position, boolean struck) {
        db.update(ORDER_CHANGE)
                .set(ORDER_CHANGE.STRUCK, struck ? 1 : 0)
                .where(ORDER_CHANGE.ORDER_ID.eq(order), ORDER_CHANGE.POSITION.eq(position))
                .execute();
    }

    void confirm(long order, Set<String> keys) {
        db.update(SHELF_ORDER)
                .set(SHELF_ORDER.CONFIRMED, String.join("\n", new TreeSet<>(keys)))
                .where(SHELF_ORDER.ID.eq(order))
                .execute();
    }

    void discard(long order) {
        db.deleteFrom(ORDER_CHANGE).where(ORDER_CHANGE.ORDER_ID.eq(order)).execute();
        db.deleteFrom(SHELF_ORDER).where(SHELF_ORDER.ID.eq(order)).execute();
    }

    /** Turns a draft into a running order; the steps are fixed from here on. */
    void start(long order, String who, List<Step> steps, Instant at) {
        for (int i = 0; i < steps.size(); i++) {
            db.insertInto(ORDER_STEP)
                    .set(ORDER_STEP.ORDER_ID, order)
                    .set(ORDER_STEP.POSITION, i)
                    .set(ORDER_STEP.STATE, Order.StepState.WAITING.name())
                    .set(ORDER_STEP.BODY, json.write(Step.class, steps.get(i)))
                    .execute();
        }
        db.update(SHELF_ORDER)
                .set(SHELF_ORDER.STATE, OrderState.RUNNING.name())
                .set(SHELF_ORDER.STARTED_AT, Times.stored(at))
                .set(SHELF_ORDER.CARRIED_OUT_BY, who)
                .where(SHELF_ORDER.ID.eq(order))
                .execute();
    }

    void journal(long order, Order.Journalled step) {
        db.update(ORDER_STEP)
                .set(ORDER_STEP.STATE, step.state().name())
                .set(ORDER_STEP.STARTED_AT, Times.stored(step.startedAt()))
                .set(ORDER_STEP.DUE_AT, Times.stored(step.dueAt()))
                .set(ORDER_STEP.FINISHED_AT, Times.stored(step.finishedAt()))
                .set(ORDER_STEP.BODY, json.write(Step.class, step.step()))
                .where(ORDER_STEP.ORDER_ID.eq(order), ORDER_STEP.POSITION.eq(step.position()))
                .execute();
    }

    void state(long order, OrderState state, String outcome, @Nullable Instant finished) {
        db.update(SHELF_ORDER)
                .set(SHELF_ORDER.STATE, state.name())
                .set(SHELF_ORDER.OUTCOME, outcome)
                .set(SHELF_ORDER.FINISHED_AT, Times.stored(finished))
                .where(SHELF_ORDER.ID.eq(order))
                .execute();
    }

    void hold(long order, OrderState state, Instant at) {
        db.update(SHELF_ORDER)
                .set(SHELF_ORDER.STATE, state.name())
                .set(SHELF_ORDER.HELD_AT, Times.stored(at))
                .where(SHELF_ORDER.ID.eq(order))
                .execute();
    }

    /** Orders in a state, oldest first. */
    List<Order> in(OrderState state, int limit) {
        return db.selectFrom(SHELF_ORDER)
                .where(SHELF_ORDER.STATE.eq(state.name()))
                .orderBy(SHELF_ORDER.ID)
                .limit(limit)
                .fetch()
                .map(this::order);
    }

    List<Long> underWay() {
        return db.select(SHELF_ORDER.ID)
                .from(SHELF_ORDER)
                .where(SHELF_ORDER.STATE.in(OrderState.RUNNING.name(), OrderState.TAKING_BACK.name()))
                .orderBy(SHELF_ORDER.ID)
                .fetch(SHELF_ORDER.ID);
    }

    /** The order, locked for this transaction; empty when another node works on it. */
    Optional<Order> claim(long id) {
        return db.selectFrom(SHELF_ORDER)
                .where(SHELF_ORDER.ID.eq(id))
                .forUpdate()
                .skipLocked()
                .fetchOptional()
                .map(this::order);
    }

    /** The order, locked for this transaction, after whoever works on it has made its move. */
    Optional<Order> lock(long id) {
        return db.selectFrom(SHELF_ORDER)
                .where(SHELF_ORDER.ID.eq(id))
                .forUpdate()
                .fetchOptional()
                .map(this::order);
    }

    Optional<Order> find(long id) {
        return db.selectFrom(SHELF_ORDER)
                .where(SHELF_ORDER.ID.eq(id))
                .fetchOptional()
                .map(this::order);
    }

    Optional<Long> latestDraftId(String author) {
        return db.select(DSL.max(SHELF_ORDER.ID))
                .from(SHELF_ORDER)
                .where(SHELF_ORDER.AUTHOR.eq(author), SHELF_ORDER.STATE.eq(OrderState.DRAFT.name()))
                .fetchOptional(row -> row.value1());
    }

    Optional<Order> latestDraft(String author) {
        return db.selectFrom(SHELF_ORDER)
                .where(SHELF_ORDER.AUTHOR.eq(author), SHELF_ORDER.STATE.eq(OrderState.DRAFT.name()))
                .orderBy(SHELF_ORDER.ID.desc())
                .limit(1)
                .fetchOptional()
                .map(this::order);
    }

    List<Order> page(long before, int limit) {
        return db.selectFrom(SHELF_ORDER)
                .where(SHELF_ORDER.ID.lt(before))
                .orderBy(SHELF_ORDER.ID.desc())
                .limit(limit)
                .fetch()
                .map(this::order);
    }

    /** A draft with a change that can't be read any more is shown all the same, so that it can be struck. */
    private Change change(String body) {
        try {
            return json.read(body, Change.class);
        } catch (JacksonException unreadable) {
            return new Change.Unreadable("A change can't be read: " + unreadable.getOriginalMessage());
        }
    }

    private Order order(ShelfOrderRecord row) {
        Set<String> confirmed = Arrays.stream(row.getConfirmed().split("\n"))
                .filter(k -> !k.isEmpty())
                .collect(Collectors.toSet());
        List<Order.Line> lines = db.selectFrom(ORDER_CHANGE)
                .where(ORDER_CHANGE.ORDER_ID.eq(row.getId()))
                .orderBy(ORDER_CHANGE.POSITION)
                .fetch(c -> new Order.Line(c.getPosition(), c.getStruck() == 1, change(c.getBody())));
        List<Order.Journalled> steps = db.selectFrom(ORDER_STEP)
                .where(ORDER_STEP.ORDER_ID.eq(row.getId()))
                .orderBy(ORDER_STEP.POSITION)
                .fetch(s -> new Order.Journalled(
                        s.getPosition(),
                        Order.StepState.valueOf(s.getState()),
                        Times.instant(s.getStartedAt()),
                        Times.instant(s.getDueAt()),
                        Times.instant(s.getFinishedAt()),
                        json.read(s.getBody(), Step.class)));
        return new Order(
                row.getId(),
                row.getAuthor(),
                row.getCarriedOutBy(),
                OrderState.valueOf(row.getState()),
                Times.instant(row.getCreatedAt()),
                Times.instant(row.getStartedAt()),
                Times.instant(row.getFinishedAt()),
                Times.instant(row.getHeldAt()),
                confirmed,
                row.getOutcome(),
                lines,
                steps);
    }
}
