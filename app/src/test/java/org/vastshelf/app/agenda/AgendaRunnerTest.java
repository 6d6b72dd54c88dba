package org.vastshelf.app.agenda;

import static org.assertj.core.api.Assertions.assertThat;
import static org.mockito.ArgumentMatchers.any;
import static org.mockito.Mockito.doAnswer;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.when;

import io.micrometer.core.instrument.simple.SimpleMeterRegistry;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.CyclicBarrier;
import java.util.concurrent.TimeUnit;
import java.util.function.Supplier;
import java.util.stream.Collectors;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.vastshelf.app.agenda.AgendaStore.Row;
import org.vastshelf.app.agenda.AgendaStore.Wanted;
import org.vastshelf.app.clock.QuickDays;
import org.vastshelf.app.clock.ShelfClock;
import org.vastshelf.app.store.EstateStore;
import org.vastshelf.app.store.Transactions;
import org.vastshelf.app.store.UsageStore;
import org.vastshelf.core.agenda.Agenda.Entry;
import org.vastshelf.core.agenda.DueKind;

/** Quick works share a transaction; what fails among them is found, and takes nothing with it. */
class AgendaRunnerTest {

    private static final Instant MIDNIGHT = Instant.parse("2026-03-03T00:00:00Z");
    private static final Instant NOW = Instant.parse("2026-03-04T00:00:00Z");

    private final AgendaStore agenda = mock();
    private final ShelfClock clock = mock();
    private final QuickDays quick = new QuickDays();
    private final Transactions transactions = mock();
    /** What is due, in its order; a transaction that fails leaves it as it was. */
    private LinkedHashMap<Entry, Row> due = new LinkedHashMap<>();

    private final List<String> failed = new ArrayList<>();
    private final List<List<String>> committed = new ArrayList<>();
    private final List<List<String>> calls = new ArrayList<>();
    private final List<String> beside = Collections.synchronizedList(new ArrayList<>());
    private List<String> underWay = new ArrayList<>();

    private record Work(DueKind kind, boolean isQuick, List<String> deeds) implements DueWork {

        @Override
        public void act(String key, Instant at) {
            if (key.equals("bad")) {
                throw new IllegalStateException("no good");
            }
            deeds.add(key);
        }

        @Override
        public Optional<Instant> again(String key, Instant at, Supplier<Optional<Instant>> byAgenda) {
            return Optional.empty();
        }
    }

    /** What nobody waits for. */
    private record Unhurried(DueKind kind, List<String> deeds) implements DueWork {

        @Override
        public boolean isUnhurried() {
            return true;
        }

        @Override
        public void act(String key, Instant at) {
            deeds.add(key);
        }

        @Override
        public Optional<Instant> again(String key, Instant at, Supplier<Optional<Instant>> byAgenda) {
            return Optional.empty();
        }
    }

    /** Does what is of one moment at once. */
    private record Together(DueKind kind, List<String> deeds, List<List<String>> calls) implements TogetherWork {

        @Override
        public void act(List<String> keys, Instant at) {
            calls.add(keys);
            if (keys.contains("bad")) {
                throw new IllegalStateException("no good");
            }
            deeds.addAll(keys);
        }

        @Override
        public Optional<Instant> again(String key, Instant at, Supplier<Optional<Instant>> byAgenda) {
            return Optional.empty();
        }
    }

    /** Does letters and figures beside each other: neither comes back before the other has begun. */
    private record Apart(DueKind kind, List<String> deeds, CyclicBarrier meeting) implements TogetherWork {

        @Override
        public List<List<String>> apart(List<String> keys, Instant at) {
            return List.copyOf(keys.stream()
                    .collect(Collectors.partitioningBy(key -> Character.isDigit(key.charAt(0))))
                    .values());
        }

        @Override
        public void act(List<String> keys, Instant at) {
            if (keys.size() > 1) {
                meet();
            }
            if (keys.contains("bad")) {
                throw new IllegalStateException("no good");
            }
            deeds.addAll(keys);
        }

        private void meet() {
            try {
                meeting.await(10, TimeUnit.SECONDS);
            } catch (Exception alone) {
                throw new AssertionError("the other part did not begin", alone);
            }
        }

        @Override
        public Optional<Instant> again(String key, Instant at, Supplier<Optional<Instant>> byAgenda) {
            return Optional.empty();
        }
    }

    @BeforeEach
    void pretend() {
        when(agenda.claim(any())).thenAnswer(call -> call.getArgument(0));
        when(clock.instant()).thenReturn(NOW);
        when(clock.real()).thenReturn(NOW);
        doAnswer(call -> {
                    call.<Runnable>getArgument(1).run();
                    return null;
                })
                .when(clock)
                .during(any(), any());
        when(agenda.lead()).thenReturn(true);
        when(agenda.isAnyDue(any(), any())).thenAnswer(call -> !due.isEmpty());
        when(clock.lastMidnight()).thenReturn(MIDNIGHT);
        when(agenda.first(any(), any())).thenAnswer(call -> first(call.getArgument(0)));
        doAnswer(call -> {
                    synchronized (this) {
                        call.<List<Row>>getArgument(0).forEach(row -> due.remove(row.entry()));
                    }
                    return null;
                })
                .when(agenda)
                .done(any(), any());
        doAnswer(call -> {
                    Row row = call.getArgument(0);
                    failed.add(row.entry().key());
                    return due.remove(row.entry());
                })
                .when(agenda)
                .failed(any(), any(), any());
        when(transactions.<Object>run(any(Supplier.class))).thenAnswer(call -> transaction(call.getArgument(0)));
        doAnswer(call -> {
                    call.<Runnable>getArgument(0).run();
                    return null;
                })
                .when(transactions)
                .run(any(Runnable.class));
    }

    private Object transaction(Supplier<Object> work) {
        LinkedHashMap<Entry, Row> before = new LinkedHashMap<>(due);
        underWay.clear();
        try {
            Object answer = work.get();
            if (!underWay.isEmpty()) {
                committed.add(List.copyOf(underWay));
            }
            return answer;
        } catch (RuntimeException takenBack) {
            due = before;
            throw takenBack;
        }
    }

    /** Those of the kind and the moment of what is due first. */
    private List<Row> first(Wanted wanted) {
        List<Row> all = due.values().stream()
                .filter(row -> !wanted.unhurried().contains(row.entry().kind())
                        || row.at().isBefore(wanted.before()))
                .toList();
        return all.stream()
                .filter(row -> row.entry().kind().equals(all.getFirst().entry().kind())
                        && row.at().equals(all.getFirst().at()))
                .toList();
    }

    private void due(DueKind kind, String... keys) {
        for (String key : keys) {
            due(kind, key, MIDNIGHT);
        }
    }

    private void due(DueKind kind, String key, Instant at) {
        Entry entry = new Entry(kind, key);
        due.put(entry, new Row(entry, at, 0, "", Optional.empty()));
    }

    private void catchUp() {
        runner().catchUp();
    }

    private AgendaRunner runner() {
        List<DueWork> works = List.of(
                new Work(DueKind.TRAFFIC, true, underWay),
                new Work(DueKind.ORDER, false, underWay),
                new Unhurried(DueKind.AGES, underWay),
                new Together(DueKind.HARDWARE, underWay, calls),
                new Apart(DueKind.HISTORY, beside, new CyclicBarrier(2)));
        return new AgendaRunner(
                agenda,
                mock(AgendaKeeping.class),
                mock(EstateStore.class),
                mock(UsageStore.class),
                clock,
                quick,
                transactions,
                works,
                new SimpleMeterRegistry());
    }

    @Test
    void the_regular_look_leaves_all_to_whoever_lets_days_pass_quickly() {
        due(DueKind.AGES, "of the last night", MIDNIGHT);
        AgendaRunner runner = runner();
        runner.begin();

        quick.during(runner::run);
        assertThat(due).hasSize(1);

        runner.run();
        assertThat(due).isEmpty();
    }

    @Test
    void who_moves_the_clock_does_not_wait_for_what_is_unhurried_of_the_last_night() {
        due(DueKind.AGES, "of a night before", MIDNIGHT.minusSeconds(86_400));
        due(DueKind.AGES, "of the last night", MIDNIGHT);
        due(DueKind.ORDER, "7");

        catchUp();

        assertThat(committed).containsExactly(List.of("of a night before"), List.of("7"));
        assertThat(due.keySet()).extracting(Entry::key).containsExactly("of the last night");
    }

    @Test
    void quick_works_share_a_transaction_and_others_have_their_own() {
        // What happens for the first time is not quick.
        due(DueKind.TRAFFIC, "first");
        catchUp();
        committed.clear();
        due(DueKind.TRAFFIC, "a", "b");
        due(DueKind.ORDER, "7", "8");
        due(DueKind.TRAFFIC, "c");

        catchUp();

        assertThat(committed).containsExactly(List.of("a", "b"), List.of("7"), List.of("8"), List.of("c"));
    }

    @Test
    void what_fails_among_them_is_found_and_the_others_are_done_once() {
        due(DueKind.TRAFFIC, "a", "b", "bad", "c", "d");

        catchUp();

        assertThat(failed).containsExactly("bad");
        assertThat(committed.stream().flatMap(List::stream)).containsExactly("a", "b", "c", "d");
    }

    @Test
    void what_can_be_is_done_at_once_with_what_is_due_at_the_same_moment() {
        due(DueKind.HARDWARE, "a", "b", "c");

        catchUp();

        assertThat(calls).containsExactly(List.of("a", "b", "c"));
        assertThat(committed).containsExactly(List.of("a", "b", "c"));
    }

    @Test
    void where_one_of_a_moment_fails_the_others_are_tried_once_more_and_each_alone() {
        due(DueKind.HARDWARE, "a", "b", "bad", "c", "d", "e");

        catchUp();

        assertThat(failed).containsExactly("bad");
        assertThat(committed.stream().flatMap(List::stream)).containsExactlyInAnyOrder("a", "b", "c", "d", "e");
        assertThat(calls.stream().filter(call -> call.size() > 1)).hasSize(1);
    }

    @Test
    void parts_that_have_nothing_in_common_are_done_beside_each_other_after_what_came_before() {
        due(DueKind.TRAFFIC, "before");
        due(DueKind.HISTORY, "a", "b", "1", "2", "3");

        catchUp();

        assertThat(committed).containsExactly(List.of("before"));
        assertThat(beside).containsExactlyInAnyOrder("a", "b", "1", "2", "3");
        assertThat(due).isEmpty();
    }

    @Test
    void where_a_part_fails_what_is_left_is_done_one_by_one() {
        due(DueKind.HISTORY, "a", "bad", "1", "2");

        catchUp();

        assertThat(failed).containsExactly("bad");
        assertThat(beside).contains("a", "1", "2");
        assertThat(due).isEmpty();
    }

    @Test
    void a_part_that_another_node_has_done_is_not_done_again() {
        due(DueKind.HISTORY, "a", "b", "1", "2");
        when(agenda.claim(any())).thenAnswer(call -> {
            synchronized (this) {
                due.clear();
            }
            return List.of();
        });

        catchUp();

        assertThat(beside).isEmpty();
    }
}
