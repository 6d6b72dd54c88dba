package org.vastshelf.app.ahead;

import java.time.Instant;
import java.util.List;
import org.vastshelf.app.ahead.OrdersAhead.Ahead;
import org.vastshelf.app.kit.CalendarText;
import org.vastshelf.app.kit.Figures;

/** Orders to be placed as a calendar: one day each, the latest one. */
final class OrderCalendar {

    private OrderCalendar() {}

    static String of(List<Ahead> orders, Instant now, Figures fmt) {
        CalendarText calendar = new CalendarText("orders", now);
        for (Ahead order : orders) {
            calendar.on(
                    order.due().orderBy(),
                    new CalendarText.Event(
                            order.pool() + "-" + order.due().needed(),
                            "Order " + fmt.size(order.due().amount()) + " for pool " + order.pool(),
                            "Latest day; without it the pool may be full on "
                                    + order.due().needed() + ", with it it has "
                                    + fmt.size(order.due().after()) + ". File server " + order.server() + "."));
        }
        return calendar.ended();
    }
}
