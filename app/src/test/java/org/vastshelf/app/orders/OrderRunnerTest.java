package org.vastshelf.app.orders;

import static org.assertj.core.api.Assertions.assertThat;
import static org.mockito.ArgumentMatchers.any;
import static org.mockito.ArgumentMatchers.anyLong;
import static org.mockito.ArgumentMatchers.eq;
import static org.mockito.Mockito.doAnswer;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.never;
import static org.mockito.Mockito.verify;
import static org.mockito.Mockito.when;

import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.function.BiFunction;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.springframework.transaction.PlatformTransactionManager;
import org.vastshelf.app.agenda.AgendaStore;
import org.vastshelf.app.clock.ShelfClock;
import org.vastshelf.app.orders.Order.Journalled;
import org.vastshelf.app.orders.Order.StepState;
import org.vastshelf.app.store.EstateStore;
import org.vastshelf.app.store.Transactions;
import org.vastshelf.core.change.LimitStep;
import org.vastshelf.core.change.PoolStep;
import org.vastshelf.core.change.Step;
import org.vastshelf.core.change.VolumeStep;
import org.vastshelf.core.change.Wait;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.EstateAnswer;
import org.vastshelf.core.estate.LimitRule;
import org.vastshelf.core.estate.Usage;
import org.vastshelf.core.estate.Volume;
import org.vastshelf.core.unit.Bytes;
import org.vastshelf.standins.device.SimulatedDevices;

/** The runner against an order kept in memory and devices that take their time. */
class OrderRunnerTest {

    private static final Instant START = Instant.parse("2026-03-02T08:00:00Z");

    @TempDir
    java.nio.file.Path folder;

    private final OrderStore store = mock(OrderStore.class);
    private final EstateStore estates = mock(EstateStore.class);
    private final ShelfClock clock = mock(ShelfClock.class);
    private final OrderAudit audit = mock(OrderAudit.class);
    private Estate estate = Estate.EMPTY;
    private Order order;
    private boolean rebuilding;
    private @Nullable Instant due;
    private OrderRunner runner;

    @BeforeEach
    void wire() {
        when(store.lock(1)).thenAnswer(i -> Optional.of(order));
        when(store.find(1)).thenAnswer(i -> Optional.of(order));
        doAnswer(i -> {
                    List<Journalled> steps = new ArrayList<>(order.steps());
                    Journalled step = i.getArgument(1);
                    steps.set(step.position(), step);
                    order = with(order.state(), order.outcome(), steps);
                    return null;
                })
                .when(store)
                .journal(anyLong(), any());
        doAnswer(i -> {
                    order = with(i.getArgument(1), i.getArgument(2), order.steps());
                    return null;
                })
                .when(store)
                .state(anyLong(), any(), any(), any());
        doAnswer(i -> {
                    order = held(i.getArgument(1), i.getArgument(2));
                    return null;
                })
                .when(store)
                .hold(anyLong(), any(), any());
        when(estates.load()).thenAnswer(i -> estate);
        when(estates.change(any())).thenAnswer(i -> {
            BiFunction<Estate, Usage, EstateAnswer> change = i.getArgument(0);
            EstateAnswer answer = change.apply(estate, Usage.NONE);
            if (answer instanceof EstateAnswer.Changed changed) {
                estate = changed.estate();
            }
            return answer;
        });
        runner = new OrderRunner(
                store,
                estates,
                new SimulatedDevices(folder.resolve("devices.log")),
                audit,
                mock(AgendaStore.class),
                clock,
                new Transactions(mock(PlatformTransactionManager.class)),
                List.of());
    }

    private Order with(OrderState state, String outcome, List<Journalled> steps) {
        Instant heldAt = order == null ? null : order.heldAt();
        return new Order(1, "odile", "odile", state, START, START, null, heldAt, Set.of(), outcome, List.of(), steps);
    }

    private void begin(Step... steps) {
        List<Journalled> waiting = new ArrayList<>();
        for (Step step : steps) {
            waiting.add(new Journalled(waiting.size(), StepState.WAITING, null, null, null, step));
        }
        order = with(OrderState.RUNNING, "", waiting);
        due = START;
    }

    private void at(Instant now) {
        while (due != null && !due.isAfter(now)) {
            runner.act("1", due);
            due = runner.again("1", due, Optional::empty).orElse(null);
        }
    }

    private static Step limit(String share) {
        return new LimitStep.SetLimit(
                new LimitRule(
                        share,
                        org.vastshelf.core.estate.FilePath.ROOT,
                        false,
                        Optional.empty(),
                        Optional.empty(),
                        LimitRule.DEFAULT_GRACE,
                        Optional.empty()),
                Optional.empty());
    }

    private static Step surfaces(long seconds) {
        return new PoolStep.CheckSurfaces(List.of(), java.time.Duration.ofSeconds(seconds));
    }

    @Test
    void steps_wait_for_the_devices() {
        begin(surfaces(60), limit("film"));
        at(START.plusSeconds(59));
        assertThat(order.steps().getFirst().state()).isEqualTo(StepState.STARTED);
        assertThat(estate.limits()).isEmpty();
        at(START.plusSeconds(61));
        assertThat(order.state()).isEqualTo(OrderState.DONE);
        assertThat(estate.limits()).containsKey("film:/");
        verify(audit).note(eq(1L), eq("odile"), any(), eq(true), any());
    }

    @Test
    void after_a_jump_each_step_begins_when_the_one_before_ended() {
        begin(surfaces(60), surfaces(120), limit("film"));
        at(START.plusSeconds(86_400));
        assertThat(order.steps().stream().map(Journalled::finishedAt))
                .containsExactly(START.plusSeconds(60), START.plusSeconds(180), START.plusSeconds(181));
    }

    @Test
    void an_obstacle_takes_the_whole_order_back() {
        Volume volume = Volume.plain("film", "gone", Bytes.tib(1), true, 65_536, 85);
        begin(limit("film"), new VolumeStep.CreateVolume(volume));
        at(START.plusSeconds(60));
        assertThat(order.state()).isEqualTo(OrderState.TAKEN_BACK);
        assertThat(order.outcome()).isEqualTo("Step 2 could not be done: there is no pool 'gone'. Taken back whole.");
        assertThat(estate).isEqualTo(Estate.EMPTY);
    }

    @Test
    void what_can_never_be_done_takes_the_order_back_and_what_fails_is_tried_again() {
        when(store.claim(1)).thenAnswer(i -> Optional.of(order));
        begin(limit("film"));
        runner.failed("1", new IllegalStateException("the link is cut"));
        runner.failed("1", new IllegalStateException("the link is cut for good"));
        assertThat(order.state()).isEqualTo(OrderState.RUNNING);
        assertThat(order.outcome()).isEqualTo("Could not go on: the link is cut. Tried again until it can.");

        runner.failed("1", new StepWork.Impossible("there is no room"));
        assertThat(order.state()).isEqualTo(OrderState.TAKING_BACK);
        assertThat(order.outcome()).endsWith("It could not be done: there is no room.");
    }

    @Test
    void a_step_begun_before_a_crash_is_asked_for_and_not_done_twice() {
        begin(limit("film"));
        order = with(
                OrderState.RUNNING,
                "",
                List.of(new Journalled(0, StepState.STARTED, START, START.plusSeconds(1), null, limit("film"))));
        at(START.plusSeconds(2));
        at(START.plusSeconds(3));
        assertThat(order.state()).isEqualTo(OrderState.DONE);
        assertThat(estate.limits()).hasSize(1);
        verify(store, never()).state(anyLong(), eq(OrderState.TAKING_BACK), any(), any());
    }

    @Test
    void a_paused_order_rests_and_what_follows_begins_when_it_went_on() {
        begin(surfaces(60), limit("film"));
        at(START.plusSeconds(30));
        order = held(OrderState.PAUSED, START.plusSeconds(30));
        due = null;
        at(START.plusSeconds(10_000));
        assertThat(order.steps().getFirst().state()).isEqualTo(StepState.STARTED);
        assertThat(order.state()).isEqualTo(OrderState.PAUSED);
        Instant resumed = START.plusSeconds(20_000);
        order = held(OrderState.RUNNING, resumed);
        due = resumed;
        at(START.plusSeconds(20_100));
        assertThat(order.steps().getLast().startedAt()).isEqualTo(resumed);
        assertThat(order.steps().getLast().state()).isEqualTo(StepState.DONE);
    }

    private Order held(OrderState state, Instant heldAt) {
        return new Order(
                1,
                "odile",
                "odile",
                state,
                START,
                START,
                null,
                heldAt,
                Set.of(),
                order.outcome(),
                List.of(),
                order.steps());
    }

    /** Waits as long as there are shares, and then has to be begun again. */
    private Step waiting(Instant until) {
        Step step = mock(PoolStep.ChangePool.class);
        when(step.expected()).thenReturn(java.time.Duration.ofSeconds(60));
        when(step.obstacle(any())).thenReturn(Optional.empty());
        when(step.on(any())).thenReturn(step);
        when(step.apply(any())).thenAnswer(i -> i.getArgument(0));
        when(step.waits(any()))
                .thenAnswer(i ->
                        rebuilding ? Optional.of(new Wait("Pool oak rebuilds", Optional.of(until))) : Optional.empty());
        return step;
    }

    @Test
    void a_step_that_waits_begins_when_what_it_waited_for_ended() {
        Instant until = START.plusSeconds(5_000);
        rebuilding = true;
        begin(waiting(until));
        at(START.plusSeconds(10));
        assertThat(order.steps().getFirst().state()).isEqualTo(StepState.WAITING);
        assertThat(order.heldAt()).isEqualTo(until);
        rebuilding = false;
        at(START.plusSeconds(9_000));
        assertThat(order.state()).isEqualTo(OrderState.DONE);
        assertThat(order.steps().getFirst().startedAt()).isEqualTo(until);
        assertThat(order.steps().getFirst().finishedAt()).isEqualTo(until.plusSeconds(60));
    }

    @Test
    void a_step_that_was_interrupted_by_a_rebuild_begins_anew_after_it() {
        Instant until = START.plusSeconds(5_000);
        begin(waiting(until));
        at(START.plusSeconds(30));
        assertThat(order.steps().getFirst().state()).isEqualTo(StepState.STARTED);
        rebuilding = true;
        at(START.plusSeconds(61));
        assertThat(order.steps().getFirst().state()).isEqualTo(StepState.WAITING);
        rebuilding = false;
        at(START.plusSeconds(5_100));
        assertThat(order.steps().getFirst().finishedAt()).isEqualTo(until.plusSeconds(60));
    }

    @Test
    void a_step_that_rests_keeps_what_it_still_had_to_do() {
        Journalled step = new Journalled(0, StepState.STARTED, START, START.plusSeconds(60), null, surfaces(60));
        Journalled later = step.delayed(java.time.Duration.ofSeconds(500));
        assertThat(later.startedAt()).isEqualTo(START.plusSeconds(500));
        assertThat(later.dueAt()).isEqualTo(START.plusSeconds(560));
        assertThat(later.percent(START.plusSeconds(530))).isEqualTo(50);
    }
}
