package org.vastshelf.app.demo;

import java.time.Duration;
import org.springframework.stereotype.Component;
import org.vastshelf.app.clock.ShelfClock;
import org.vastshelf.app.hardware.HardwareService;
import org.vastshelf.app.look.DailyRecord;
import org.vastshelf.app.orders.OrderRunner;
import org.vastshelf.app.store.Transactions;
import org.vastshelf.app.trace.Deeds;
import org.vastshelf.core.unit.Counted;

/** Moves the demo's clock, and does at once what became due by that. */
@Component
public class TimeJump {

    private final ShelfClock clock;
    private final OrderRunner orders;
    private final HardwareService hardware;
    private final DailyRecord days;
    private final Transactions transactions;
    private final Deeds deeds;

    TimeJump(
            ShelfClock clock,
            OrderRunner orders,
            HardwareService hardware,
            DailyRecord days,
            Transactions transactions,
            Deeds deeds) {
        this.clock = clock;
        this.orders = orders;
        this.hardware = hardware;
        this.days = days;
        this.transactions = transactions;
        this.deeds = deeds;
    }

    public void forward(Duration by, String who) {
        transactions.run(() -> {
            deeds.done(who, Deeds.Kind.CLOCK, "/time", "clock moved forward by " + Counted.of(by.toHours(), "hour"));
            clock.forward(by);
        });
        clock.refresh();
        orders.run();
        hardware.catchUp();
        days.catchUp();
    }
}
