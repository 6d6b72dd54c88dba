package org.vastshelf.app.agenda;

import io.micrometer.core.instrument.MeterRegistry;
import io.micrometer.core.instrument.Timer;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayDeque;
import java.util.Deque;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;
import java.util.stream.Collectors;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.boot.context.event.ApplicationReadyEvent;
import org.springframework.context.event.EventListener;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Component;
import org.vastshelf.app.agenda.AgendaStore.Row;
import org.vastshelf.app.agenda.AgendaStore.Wanted;
import org.vastshelf.app.clock.QuickDays;
import org.vastshelf.app.clock.ShelfClock;
import org.vastshelf.app.store.EstateStore;
import org.vastshelf.app.store.Transactions;
import org.vastshelf.app.store.UsageStore;
import org.vastshelf.core.agenda.Agenda;
import org.vastshelf.core.agenda.DueKind;
import org.vastshelf.core.unit.ShortText;

/**
 * Does what falls due: the earliest first, across all kinds, on whichever node gets to it first; one thing in one
 * transaction, or some quick ones. While one node is at it the others leave it alone, so that the order of the moments
 * is the order of the deeds; one that dies leaves nothing half done. What fails is written down, waits longer each time,
 * and is passed by the others.
 */
@Component
public class AgendaRunner {

    private static final Logger LOG = LoggerFactory.getLogger(AgendaRunner.class);
    private static final int LONGEST = 1_000;
    private static final int LONGEST_PAUSE_SECONDS = 3_600;
    private static final int MOST_DOUBLINGS = 12;
    private static final Duration ANOTHER_NODE = Duration.ofMillis(20);
    /** Quick works share a transaction for so long: after a jump most of the time would go into beginning and ending. */
    private static final Duration TOGETHER = Duration.ofMillis(50);

    private final AgendaStore agenda;
    private final AgendaKeeping keeping;
    private final EstateStore estates;
    private final UsageStore usage;
    private final ShelfClock clock;
    private final QuickDays days;
    private final Transactions transactions;
    private final Map<DueKind, DueWork> works;
    private final Set<DueKind> unhurried;
    private final MeterRegistry meters;
    private volatile boolean begun;
    /** At this moment one of several failed: what falls due then is done one by one. */
    private volatile Instant oneByOne = Instant.MIN;

    AgendaRunner(
            AgendaStore agenda,
            AgendaKeeping keeping,
            EstateStore estates,
            UsageStore usage,
            ShelfClock clock,
            QuickDays days,
            Transactions transactions,
            List<DueWork> works,
            MeterRegistry meters) {
        this.meters = meters;
        this.agenda = agenda;
        this.keeping = keeping;
        this.estates = estates;
        this.usage = usage;
        this.clock = clock;
        this.days = days;
        this.transactions = transactions;
        this.works = works.stream().collect(Collectors.toMap(DueWork::kind, Function.identity()));
        this.unhurried =
                works.stream().filter(DueWork::isUnhurried).map(DueWork::kind).collect(Collectors.toSet());
    }

    private enum Turn {
        DONE,
        NOTHING_DUE,
        ANOTHER_NODE
    }

    @EventListener(ApplicationReadyEvent.class)
    void begin() {
        transactions.run(() -> {
            agenda.awaitLead();
            keeping.complete(estates.load(), usage.load());
        });
        begun = true;
    }

    /**
     * Does what is due by now, unless another node is at it, or days pass quickly on this one: whoever lets them pass does it
     * all, and would wait for what nobody waits for.
     */
    @Scheduled(fixedDelay = 500)
    public void run() {
        while (begun && !days.arePassing() && turn() == Turn.DONE) {
            LOG.trace("one done");
        }
    }

    /** Comes back when nothing is due any more that was by now and that somebody waits for, whoever has done it. */
    public void catchUp() {
        Instant now = clock.instant();
        Wanted wanted = new Wanted(now, unhurried, clock.lastMidnight());
        for (Turn turn = turn(wanted, TOGETHER); turn != Turn.NOTHING_DUE; turn = turn(wanted, TOGETHER)) {
            if (turn == Turn.ANOTHER_NODE) {
                rest();
            }
        }
    }

    private static void rest() {
        try {
            Thread.sleep(ANOTHER_NODE);
        } catch (InterruptedException interrupted) {
            Thread.currentThread().interrupt();
        }
    }

    private Turn turn() {
        Instant now = clock.instant();
        return agenda.isAnyDue(now, clock.real()) ? turn(Wanted.all(now), TOGETHER) : Turn.NOTHING_DUE;
    }

    /**
     * Does what is due first of what is wanted, and for so long what is due after it; where one of several fails, the
     * first alone.
     */
    private Turn turn(Wanted wanted, Duration together) {
        Deque<Row> claimed = new ArrayDeque<>();
        try {
            return transactions.run(() -> {
                claimed.clear();
                if (!agenda.lead()) {
                    return Turn.ANOTHER_NODE;
                }
                long until = System.nanoTime() + together.toNanos();
                for (List<Row> rows = next(wanted); mayFollow(claimed, rows); rows = next(wanted)) {
                    List<List<Row>> parts = parts(rows);
                    if (parts.size() > 1) {
                        if (claimed.isEmpty()) {
                            claimed.addAll(rows);
                            beside(parts);
                        }
                        break;
                    }
                    claimed.addAll(rows);
                    done(rows);
                    if (!isQuick(rows.getFirst()) || System.nanoTime() > until) {
                        break;
                    }
                }
                return claimed.isEmpty() ? Turn.NOTHING_DUE : Turn.DONE;
            });
        } catch (RuntimeException unforeseen) {
            if (claimed.isEmpty()) {
                throw unforeseen;
            }
            if (claimed.size() > 1) {
                oneByOne = claimed.getLast().at();
                return turn(wanted, Duration.ZERO);
            }
            Row row = claimed.getFirst();
            LOG.error("{} {} due at {} failed", row.entry().kind(), row.entry().key(), row.at(), unforeseen);
            failed(row, unforeseen);
            return Turn.DONE;
        }
    }

    /** What is done next: what is due first, and with it what may be done at once with it. */
    private List<Row> next(Wanted wanted) {
        List<Row> rows = agenda.first(wanted, clock.real());
        boolean atOnce = !rows.isEmpty()
                && works.get(rows.getFirst().entry().kind()) instanceof TogetherWork
                && !rows.getFirst().at().equals(oneByOne);
        return atOnce ? rows : rows.subList(0, Math.min(1, rows.size()));
    }

    /** Whether it may share the transaction of what came before it. */
    private boolean mayFollow(Deque<Row> before, List<Row> rows) {
        return !rows.isEmpty() && (before.isEmpty() || isQuick(rows.getFirst()));
    }

    private boolean isQuick(Row row) {
        DueWork work = works.get(row.entry().kind());
        return work != null && work.isQuick();
    }

    /** What is of one kind and one moment, by what may be done beside each other. */
    private List<List<Row>> parts(List<Row> rows) {
        Row first = rows.getFirst();
        if (rows.size() == 1 || !(works.get(first.entry().kind()) instanceof TogetherWork together)) {
            return List.of(rows);
        }
        Map<String, Row> byKey = new LinkedHashMap<>();
        rows.forEach(row -> byKey.put(row.entry().key(), row));
        return together.apart(List.copyOf(byKey.keySet()), first.at()).stream()
                .map(keys -> keys.stream().map(byKey::get).toList())
                .toList();
    }

    /**
     * Does parts, each in a transaction of its own, while this one keeps other nodes away. Should they come nevertheless,
     * because the connection of this one was lost, nothing is done twice: each part claims what is its own.
     */
    private void beside(List<List<Row>> parts) {
        Beside.each(
                parts,
                part -> transactions.run(() -> {
                    List<Row> mine = agenda.claim(part);
                    if (!mine.isEmpty()) {
                        done(mine);
                    }
                }));
    }

    /** Does what is of one kind and one moment. */
    private void done(List<Row> rows) {
        Row first = rows.getFirst();
        Timer.Sample begun = Timer.start(meters);
        DueWork work = works.get(first.entry().kind());
        Optional<Instant> last = work.isOfNow() ? clock.nightAfter(first.at()) : Optional.empty();
        if (last.isPresent()) {
            agenda.done(rows, last);
            return;
        }
        clock.during(first.at(), () -> {
            if (work instanceof TogetherWork together) {
                together.act(rows.stream().map(row -> row.entry().key()).toList(), first.at());
            } else {
                work.act(first.entry().key(), first.at());
            }
            rows.stream()
                    .collect(Collectors.groupingBy(
                            row -> work.again(row.entry().key(), row.at(), () -> byAgenda(row)),
                            LinkedHashMap::new,
                            Collectors.toList()))
                    .forEach((again, same) -> agenda.done(same, again));
        });
        begun.stop(meters.timer("vastshelf.agenda", "kind", first.entry().kind().name()));
    }

    private Optional<Instant> byAgenda(Row row) {
        return Agenda.next(estates.load(), usage::load, row.entry(), row.at(), ShelfClock.ZONE);
    }

    private void failed(Row row, RuntimeException why) {
        long pause = Math.min(LONGEST_PAUSE_SECONDS, 1L << Math.min(row.tries(), MOST_DOUBLINGS));
        String problem = why.getMessage() == null ? why.getClass().getSimpleName() : why.getMessage();
        transactions.run(() ->
                agenda.failed(row, ShortText.of(problem, LONGEST), clock.real().plusSeconds(pause)));
        try {
            transactions.run(
                    () -> works.get(row.entry().kind()).failed(row.entry().key(), why));
        } catch (RuntimeException again) {
            LOG.error(
                    "{} {} could not even say that it failed",
                    row.entry().kind(),
                    row.entry().key(),
                    again);
        }
    }
}
