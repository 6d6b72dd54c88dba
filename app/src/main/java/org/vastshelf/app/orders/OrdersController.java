package org.vastshelf.app.orders;

import java.util.List;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.context.request.ServletWebRequest;
import org.vastshelf.app.agenda.AgendaRunner;
import org.vastshelf.app.clock.ShelfClock;
import org.vastshelf.app.foresee.EstateStamp;
import org.vastshelf.app.kit.Figures;
import org.vastshelf.app.kit.Page;
import org.vastshelf.app.kit.Unchanged;
import org.vastshelf.app.security.Someone;

/** Drafts, running, done and taken back orders, and what can be done with a draft. */
@Page
class OrdersController {

    private static final int PAGE = 100;

    private final OrderService orders;
    private final OrderExecution execution;
    private final AgendaRunner agenda;
    private final Drawer drawer;
    private final EstateStamp stamp;
    private final ShelfClock clock;

    OrdersController(
            OrderService orders,
            OrderExecution execution,
            AgendaRunner agenda,
            Drawer drawer,
            EstateStamp stamp,
            ShelfClock clock) {
        this.clock = clock;
        this.stamp = stamp;
        this.orders = orders;
        this.execution = execution;
        this.agenda = agenda;
        this.drawer = drawer;
    }

    @GetMapping("/orders")
    String list(
            @AuthenticationPrincipal Someone me,
            @RequestParam(defaultValue = "9223372036854775807") long before,
            Model model) {
        Figures fmt = Figures.of(model);
        List<Order> ready = me.mayRun() ? orders.readyFor(me.getName()) : List.of();
        List<Order> found = orders.page(before, PAGE + 1);
        model.addAttribute("ready", ready.stream().map(o -> OrderRow.of(fmt, o)).toList());
        model.addAttribute(
                "orders",
                found.stream().limit(PAGE).map(o -> OrderRow.of(fmt, o)).toList());
        if (found.size() > PAGE) {
            model.addAttribute("older", found.get(PAGE - 1).id());
        }
        return "orders";
    }

    @GetMapping("/orders/{id}")
    String order(@AuthenticationPrincipal Someone me, @PathVariable long id, Model model) {
        Order order = show(me, id, model);
        // In the place of one's own draft, so that there is one drawer to act on.
        if (order.state() == OrderState.READY && me.mayRun()) {
            model.addAttribute("drawerOrder", id);
        }
        return "order";
    }

    /** The part of an order's page that moves. */
    @GetMapping("/orders/{id}/steps")
    String steps(@AuthenticationPrincipal Someone me, @PathVariable long id, Model model) {
        show(me, id, model);
        return "order :: steps";
    }

    private Order show(Someone me, long id, Model model) {
        Order order = orders.order(id);
        model.addAttribute("page", OrderView.of(Figures.of(model), order, orders.waitOf(order), me, clock.instant()));
        return order;
    }

    @PostMapping("/orders/{id}/strike")
    String strike(
            @AuthenticationPrincipal Someone me,
            @PathVariable long id,
            @RequestParam int position,
            @RequestParam boolean struck,
            Model model) {
        orders.strike(id, position, struck);
        return refreshed(me, id, model);
    }

    @PostMapping("/orders/{id}/confirm")
    String confirm(
            @AuthenticationPrincipal Someone me,
            @PathVariable long id,
            @RequestParam String key,
            @RequestParam(defaultValue = "false") boolean yes,
            Model model) {
        orders.confirm(id, key, yes, me.getName());
        return refreshed(me, id, model);
    }

    @PostMapping("/orders/{id}/discard")
    String discard(@AuthenticationPrincipal Someone me, @PathVariable long id) {
        orders.discard(id, me.getName());
        return "redirect:/orders";
    }

    @PostMapping("/orders/{id}/carry-out")
    String carryOut(@AuthenticationPrincipal Someone me, @PathVariable long id) {
        execution.carryOut(id, me.getName());
        agenda.run();
        return "redirect:/orders/" + id;
    }

    @PostMapping("/orders/{id}/ready")
    String ready(@AuthenticationPrincipal Someone me, @PathVariable long id) {
        orders.ready(id, me.getName());
        return "redirect:/orders/" + id;
    }

    @PostMapping("/orders/{id}/reopen")
    String reopen(@AuthenticationPrincipal Someone me, @PathVariable long id) {
        orders.reopen(id, me.getName());
        return "redirect:/orders/" + id;
    }

    @PostMapping("/orders/{id}/leave")
    String leave(@AuthenticationPrincipal Someone me, @PathVariable long id) {
        execution.leave(id, me.getName());
        return "redirect:/orders/" + id;
    }

    @PostMapping("/orders/{id}/pause")
    String pause(@AuthenticationPrincipal Someone me, @PathVariable long id) {
        execution.pause(id, me.getName());
        return "redirect:/orders/" + id;
    }

    @PostMapping("/orders/{id}/go-on")
    String goOn(@AuthenticationPrincipal Someone me, @PathVariable long id) {
        execution.goOn(id, me.getName());
        agenda.run();
        return "redirect:/orders/" + id;
    }

    @PostMapping("/orders/{id}/take-back")
    String takeBack(@AuthenticationPrincipal Someone me, @PathVariable long id) {
        execution.takeBack(id, me.getName());
        agenda.run();
        return "redirect:/orders/" + id;
    }

    /** The drawer, which pages fetch for themselves; not sent again as long as nothing has changed. */
    @GetMapping("/drawer")
    @Nullable
    String drawer(
            @AuthenticationPrincipal Someone me,
            @RequestParam(required = false) @Nullable Long order,
            ServletWebRequest request,
            Model model) {
        Optional<Order> shown = order == null ? orders.draftOf(me.getName()) : drawn(me, order);
        if (Unchanged.since(request, stamp.of(me.getName()), shown.map(Drawer::stamp))) {
            return null;
        }
        shown.ifPresent(found -> model.addAttribute("drawer", drawer.view(Figures.of(model), found, me)));
        return shown.isPresent() ? "drawer :: drawer" : "drawer :: none";
    }

    /** One's own draft, or one that is ready for others. */
    private Optional<Order> drawn(Someone me, long id) {
        Order order = orders.order(id);
        boolean own = order.state() == OrderState.DRAFT && order.author().equals(me.getName());
        return Optional.of(order).filter(o -> own || o.state() == OrderState.READY);
    }

    private String refreshed(Someone me, long id, Model model) {
        model.addAttribute("drawer", drawer.view(Figures.of(model), orders.order(id), me));
        return "drawer :: drawer";
    }
}
