package org.vastshelf.app.orders;

import java.util.List;
import org.springframework.stereotype.Component;
import org.vastshelf.app.kit.Figures;
import org.vastshelf.app.security.Someone;
import org.vastshelf.app.store.UsageStore;

/** What the order drawer shows of a draft. */
@Component
class Drawer {

    private final OrderService orders;
    private final UsageStore usage;

    Drawer(OrderService orders, UsageStore usage) {
        this.orders = orders;
        this.usage = usage;
    }

    /** What tells one state of a draft from another. */
    static Object stamp(Order order) {
        return List.of(
                order.id(),
                order.state(),
                order.confirmed().hashCode(),
                order.lines().hashCode());
    }

    DrawerView view(Figures fmt, Order order, Someone me) {
        return DrawerView.of(fmt, order, orders.plan(order.changes(), fmt.units()), usage.load(), me);
    }
}
