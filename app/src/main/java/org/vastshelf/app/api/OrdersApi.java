package org.vastshelf.app.api;

import java.util.List;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;
import org.vastshelf.app.agenda.AgendaRunner;
import org.vastshelf.app.orders.Order;
import org.vastshelf.app.orders.OrderExecution;
import org.vastshelf.app.orders.OrderService;
import org.vastshelf.app.security.Someone;
import org.vastshelf.core.change.Change;
import org.vastshelf.core.change.Check;
import org.vastshelf.core.change.Plan;
import org.vastshelf.core.change.Wait;

/** Drafts and orders. */
@RestController
class OrdersApi {

    private final OrderService orders;
    private final OrderExecution execution;
    private final AgendaRunner agenda;

    OrdersApi(OrderService orders, OrderExecution execution, AgendaRunner agenda) {
        this.orders = orders;
        this.execution = execution;
        this.agenda = agenda;
    }

    record Draft(@Nullable List<Change> changes) {}

    record Strike(int position, boolean struck) {}

    record Confirmation(@Nullable String key) {}

    /** An order; checks and what is permanent as long as it is a draft, and what its next step waits for. */
    record OrderView(Order order, List<Check> checks, List<String> permanent, Optional<Wait> waitsFor) {}

    private OrderView view(Order order) {
        if (!order.state().isDraft()) {
            return new OrderView(order, List.of(), List.of(), orders.waitOf(order));
        }
        Plan plan = orders.plan(order.changes());
        return new OrderView(order, plan.checks(), plan.permanent(), Optional.empty());
    }

    @GetMapping("/api/v1/orders")
    Cursors.Page<Order> list(
            @RequestParam(defaultValue = "9223372036854775807") long before,
            @RequestParam(defaultValue = "100") int limit) {
        return Cursors.page(
                orders.page(before, Cursors.requireLimit(limit) + 1), limit, order -> String.valueOf(order.id()));
    }

    @GetMapping("/api/v1/orders/{id}")
    OrderView order(@PathVariable long id) {
        return view(orders.order(id));
    }

    @PostMapping("/api/v1/orders")
    @ResponseStatus(HttpStatus.CREATED)
    OrderView create(@AuthenticationPrincipal Someone me, @RequestBody Draft draft) {
        return view(orders.create(me.getName(), draft.changes == null ? List.of() : draft.changes));
    }

    @PostMapping("/api/v1/orders/{id}/confirm")
    OrderView confirm(
            @AuthenticationPrincipal Someone me, @PathVariable long id, @RequestBody Confirmation confirmation) {
        if (confirmation.key == null || confirmation.key.isBlank()) {
            throw new IllegalArgumentException("key is empty, must be the key of a check to be confirmed");
        }
        orders.confirm(id, confirmation.key, true, me.getName());
        return view(orders.order(id));
    }

    /** Leaves a change of a draft out, or takes it in again. */
    @PostMapping("/api/v1/orders/{id}/strike")
    OrderView strike(@PathVariable long id, @RequestBody Strike strike) {
        orders.strike(id, strike.position, strike.struck);
        return view(orders.order(id));
    }

    @PostMapping("/api/v1/orders/{id}/discard")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void discard(@AuthenticationPrincipal Someone me, @PathVariable long id) {
        orders.discard(id, me.getName());
    }

    @PostMapping("/api/v1/orders/{id}/carry-out")
    OrderView carryOut(@AuthenticationPrincipal Someone me, @PathVariable long id) {
        execution.carryOut(id, me.getName());
        agenda.run();
        return view(orders.order(id));
    }

    @PostMapping("/api/v1/orders/{id}/pause")
    OrderView pause(@AuthenticationPrincipal Someone me, @PathVariable long id) {
        execution.pause(id, me.getName());
        return view(orders.order(id));
    }

    @PostMapping("/api/v1/orders/{id}/go-on")
    OrderView goOn(@AuthenticationPrincipal Someone me, @PathVariable long id) {
        execution.goOn(id, me.getName());
        agenda.run();
        return view(orders.order(id));
    }

    @PostMapping("/api/v1/orders/{id}/take-back")
    OrderView takeBack(@AuthenticationPrincipal Someone me, @PathVariable long id) {
        execution.takeBack(id, me.getName());
        agenda.run();
        return view(orders.order(id));
    }

    /** Says that a draft is ready; from now on others may carry it out and nobody changes it. */
    @PostMapping("/api/v1/orders/{id}/ready")
    OrderView ready(@AuthenticationPrincipal Someone me, @PathVariable long id) {
        orders.ready(id, me.getName());
        return view(orders.order(id));
    }

    /** Takes a draft that was ready into work again. */
    @PostMapping("/api/v1/orders/{id}/reopen")
    OrderView reopen(@AuthenticationPrincipal Someone me, @PathVariable long id) {
        orders.reopen(id, me.getName());
        return view(orders.order(id));
    }

    /** Ends an order that asks; what it has done so far stays. */
    @PostMapping("/api/v1/orders/{id}/leave")
    OrderView leave(@AuthenticationPrincipal Someone me, @PathVariable long id) {
        execution.leave(id, me.getName());
        return view(orders.order(id));
    }
}
