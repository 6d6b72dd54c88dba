package org.vastshelf.app.orders;

import java.time.Duration;
import java.util.List;
import java.util.Optional;
import org.springframework.stereotype.Component;
import org.vastshelf.app.kit.LedgerPicture;
import org.vastshelf.app.store.UsageStore;
import org.vastshelf.core.change.Check;
import org.vastshelf.core.change.Plan;
import org.vastshelf.core.change.Step;
import org.vastshelf.core.estate.Usage;
import org.vastshelf.core.ledger.ByteLedger;
import org.vastshelf.core.ledger.Ledgers;
import org.vastshelf.core.unit.Bytes;

/** What the order drawer shows of a draft. */
@Component
public class Drawer {

    private static final int BAR = 290;

    private final OrderService orders;
    private final UsageStore usage;

    Drawer(OrderService orders, UsageStore usage) {
        this.orders = orders;
        this.usage = usage;
    }

    /** A draft looked through. */
    public record View(
            Order order,
            Plan plan,
            LedgerPicture before,
            LedgerPicture after,
            boolean unchanged,
            List<Check> open,
            Duration expected) {

        public boolean isReady() {
            return !plan.isRefused() && open.isEmpty() && !plan.steps().isEmpty();
        }

        public boolean isConfirmed(Check check) {
            return order.confirmed().contains(check.key());
        }
    }

    public Optional<View> of(String person) {
        return orders.draftOf(person).map(this::view);
    }

    /** What tells one state of a draft from another. */
    static Object stamp(Order order) {
        return List.of(
                order.id(),
                order.state(),
                order.confirmed().hashCode(),
                order.lines().hashCode());
    }

    public View view(Order order) {
        Plan plan = orders.plan(order.changes());
        Usage held = usage.load();
        ByteLedger before = Ledgers.ofEstate(plan.before(), held);
        ByteLedger after = Ledgers.ofEstate(plan.after(), held);
        Bytes whole = before.label().max(after.label());
        Duration expected = plan.steps().stream().map(Step::expected).reduce(Duration.ZERO, Duration::plus);
        return new View(
                order,
                plan,
                LedgerPicture.draw(before, whole, BAR),
                LedgerPicture.draw(after, whole, BAR),
                before.equals(after),
                plan.unconfirmed(order.confirmed()),
                expected);
    }
}
