package org.vastshelf.app.demo;

import java.time.Duration;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import org.springframework.stereotype.Component;
import org.vastshelf.app.agenda.AgendaRunner;
import org.vastshelf.app.clock.QuickDays;
import org.vastshelf.app.clock.ShelfClock;
import org.vastshelf.app.foresee.ForecastKeeping;
import org.vastshelf.app.store.Transactions;
import org.vastshelf.app.trace.Deeds;
import org.vastshelf.core.unit.Counted;

/** Moves the demo's clock, and does at once what became due by that. */
@Component
public class TimeJump {

    private static final Duration MOST_WAIT = Duration.ofSeconds(5);

    private final ShelfClock clock;
    private final QuickDays days;
    private final AgendaRunner agenda;
    private final ForecastKeeping forecasts;
    private final Transactions transactions;
    private final Deeds deeds;

    TimeJump(
            ShelfClock clock,
            QuickDays days,
            AgendaRunner agenda,
            ForecastKeeping forecasts,
            Transactions transactions,
            Deeds deeds) {
        this.clock = clock;
        this.days = days;
        this.agenda = agenda;
        this.forecasts = forecasts;
        this.transactions = transactions;
        this.deeds = deeds;
    }

    public void forward(Duration by, String who) {
        transactions.run(() -> {
            deeds.done(who, Deeds.Kind.CLOCK, "/time", "clock moved forward by " + Counted.of(by.toHours(), "hour"));
            clock.forward(by);
        });
        clock.refresh();
        days.during(() -> onItsOwn(agenda::catchUp));
        forecasts.catchUp(MOST_WAIT);
    }

    /** In a thread of the system's: thousands of short waits for the database cost it less than a virtual one. */
    private static void onItsOwn(Runnable work) {
        try (ExecutorService days = Executors.newSingleThreadExecutor(
                Thread.ofPlatform().name("days").factory())) {
            CompletableFuture.runAsync(work, days).join();
        }
    }
}
