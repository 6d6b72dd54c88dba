package org.vastshelf.app.look;

import java.util.Optional;
import java.util.stream.Stream;
import org.springframework.stereotype.Component;
import org.vastshelf.app.agenda.AgendaStore;
import org.vastshelf.app.away.Reads;
import org.vastshelf.app.orders.Order;
import org.vastshelf.app.orders.OrderService;
import org.vastshelf.app.tier.TierRun;
import org.vastshelf.app.tier.TierRuns;
import org.vastshelf.core.look.Attention;
import org.vastshelf.core.unit.Counted;

/** What was begun and comes no further: orders that ask, what fell due in vain, runs that wait, people who are held back. */
@Component
class Stuck {

    private final OrderService orders;
    private final AgendaStore agenda;
    private final TierRuns runs;
    private final Reads reads;

    Stuck(OrderService orders, AgendaStore agenda, TierRuns runs, Reads reads) {
        this.orders = orders;
        this.agenda = agenda;
        this.runs = runs;
        this.reads = reads;
    }

    Stream<Attention> all() {
        return Stream.of(
                        orders.asking().stream().map(Stuck::asks),
                        agenda.failing().stream().map(Stuck::fails),
                        runs.waiting().stream().map(Stuck::waits),
                        reads.held().stream().map(Stuck::isHeld))
                .flatMap(some -> some);
    }

    private static Attention asks(Order order) {
        return new Attention(
                Attention.Urgency.ACT,
                new Attention.Subject(Attention.Area.ORDER, String.valueOf(order.id())),
                "Order " + order.id(),
                "stopped while it was taken back, and asks: " + order.title(),
                Optional.empty(),
                "now",
                "decide about it");
    }

    private static Attention fails(AgendaStore.Row row) {
        String what = row.entry().kind()
                + (row.entry().key().isEmpty() ? "" : " of " + row.entry().key());
        return new Attention(
                Attention.Urgency.ACT,
                new Attention.Subject(Attention.Area.AGENDA, what),
                Character.toUpperCase(what.charAt(0)) + what.substring(1),
                "was due and failed " + Counted.of(row.tries(), "time") + ": " + row.problem(),
                Optional.empty(),
                "tried again",
                "mend the cause");
    }

    private static Attention waits(TierRun run) {
        return new Attention(
                Attention.Urgency.WATCH,
                new Attention.Subject(Attention.Area.TIERING, run.rule()),
                "Tiering by " + run.rule(),
                "waits: " + run.problem(),
                Optional.empty(),
                "tried again",
                "mend the cause");
    }

    private static Attention isHeld(Reads.Held held) {
        return new Attention(
                Attention.Urgency.WATCH,
                new Attention.Subject(Attention.Area.RUSH, held.person()),
                held.person() + " at " + held.address(),
                "reads more of what has left than anybody does, and is held back",
                Optional.empty(),
                "now",
                "let it read on, or leave it held");
    }
}
