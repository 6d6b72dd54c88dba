package org.vastshelf.app.orders;

import org.vastshelf.app.kit.Figures;
import org.vastshelf.app.kit.Mark;

/** An order in a list. */
public record OrderRow(long id, Mark state, String title, String author, String begun, String ended, String stepsDone) {

    static OrderRow of(Figures fmt, Order order) {
        return new OrderRow(
                order.id(),
                order.state().mark(),
                order.title(fmt.units()),
                order.author(),
                OrderView.moment(fmt, order.startedAt()),
                OrderView.moment(fmt, order.finishedAt()),
                order.steps().isEmpty()
                        ? "—"
                        : order.doneSteps() + " of " + order.steps().size());
    }

    /** In one line. */
    public String said() {
        return "Order " + id + ", by " + author + ": " + title;
    }
}
