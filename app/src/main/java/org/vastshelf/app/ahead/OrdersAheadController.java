package org.vastshelf.app.ahead;

import java.util.Map;
import org.springframework.http.HttpHeaders;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.ModelAttribute;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.vastshelf.app.ahead.OrdersAhead.Ahead;
import org.vastshelf.app.clock.ShelfClock;
import org.vastshelf.app.kit.AtField;
import org.vastshelf.app.kit.Figures;
import org.vastshelf.app.kit.Form;
import org.vastshelf.app.kit.Mark;
import org.vastshelf.app.kit.NotFound;
import org.vastshelf.app.kit.Page;
import org.vastshelf.app.kit.SpreadsheetText;
import org.vastshelf.app.kit.Typed;
import org.vastshelf.app.orders.OrderService;
import org.vastshelf.app.security.Someone;
import org.vastshelf.app.store.EstateStore;
import org.vastshelf.app.store.UsageStore;
import org.vastshelf.core.change.Change;
import org.vastshelf.core.change.PoolGrowth;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.FileServer;
import org.vastshelf.core.estate.Pool;
import org.vastshelf.core.forecast.OrderPlan.Terms;
import org.vastshelf.core.unit.Bytes;
import org.vastshelf.core.unit.SizeText;

/** When more room has to be ordered, how much, and the draft that builds it in. */
@Page
class OrdersAheadController {

    private static final Bytes MOST_LOT = Bytes.tib(10_000);

    private final OrdersAhead ahead;
    private final OrderTermsStore terms;
    private final EstateStore estates;
    private final UsageStore usage;
    private final OrderService orders;
    private final ShelfClock clock;

    OrdersAheadController(
            OrdersAhead ahead,
            OrderTermsStore terms,
            EstateStore estates,
            UsageStore usage,
            OrderService orders,
            ShelfClock clock) {
        this.ahead = ahead;
        this.terms = terms;
        this.estates = estates;
        this.usage = usage;
        this.orders = orders;
        this.clock = clock;
    }

    /** An order in the table. */
    record Row(
            Mark state,
            String by,
            String server,
            String pool,
            String amount,
            long bytes,
            String needed,
            String after) {}

    @GetMapping("/foresee/orders")
    String orders(@ModelAttribute("fmt") Figures fmt, Model model) {
        model.addAttribute(
                "ahead", ahead.all().stream().map(order -> row(fmt, order)).toList());
        Map<String, Terms> said = terms.all();
        model.addAttribute(
                "terms",
                estates.load().servers().values().stream()
                        .map(server -> form(Typed.of(model), server, said))
                        .toList());
        return "orders-ahead";
    }

    private static Row row(Figures fmt, Ahead order) {
        return new Row(
                order.late() ? new Mark(Mark.State.ACT, "late") : new Mark(Mark.State.FINE, "in time"),
                fmt.day(order.due().orderBy()),
                order.server(),
                order.pool(),
                fmt.size(order.due().amount()),
                order.due().amount().value(),
                fmt.day(order.due().needed()),
                fmt.size(order.due().after()));
    }

    private static Form form(Typed typed, FileServer server, Map<String, Terms> said) {
        Terms is = said.getOrDefault(server.name(), OrderTermsStore.assumed(server));
        Typed.Fields fields = typed.at("/foresee/orders/terms/" + server.name());
        return Form.of(
                        fields.action(),
                        server.name() + (said.containsKey(server.name()) ? "" : ", as is assumed"),
                        fields.number("lead", "Lead time, days", is.leadDays()).between(0, Terms.MOST_LEAD),
                        fields.text("lot", "Lot", SizeText.exact(is.lot())),
                        fields.number("risk", "Risk put up with, %", is.riskPercent())
                                .between(1, Terms.MOST_RISK))
                .button("Set");
    }

    @PostMapping("/foresee/orders/terms/{server}")
    String terms(
            @PathVariable String server,
            @RequestParam(defaultValue = "") String lead,
            @RequestParam(defaultValue = "") String lot,
            @RequestParam(defaultValue = "") String risk,
            @ModelAttribute("fmt") Figures fmt,
            Model model) {
        if (!estates.load().servers().containsKey(server)) {
            throw new NotFound("file server", server);
        }
        try {
            Bytes size = AtField.read("lot", () -> SizeText.parse("lot", lot, Bytes.gib(1), MOST_LOT));
            int days = AtField.read("lead", () -> whole("lead time", lead));
            int percent = AtField.read("risk", () -> whole("risk", risk));
            terms.put(server, new Terms(days, size, percent));
        } catch (IllegalArgumentException refused) {
            Typed.refuse(model, refused);
            return orders(fmt, model);
        }
        return "redirect:/foresee/orders";
    }

    private static int whole(String what, String text) {
        try {
            return Integer.parseInt(text.strip());
        } catch (NumberFormatException none) {
            throw new IllegalArgumentException(what + " is '" + text + "', must be a whole number");
        }
    }

    /** Drafts the growth of a pool by what is to be ordered. */
    @PostMapping("/foresee/orders/draft")
    String draft(
            @AuthenticationPrincipal Someone me,
            @RequestParam String pool,
            @RequestParam long bytes,
            @ModelAttribute("fmt") Figures fmt,
            Model model) {
        Estate estate = orders.withDraft(me.getName());
        Pool grown = estate.pools().get(pool);
        if (grown == null || bytes < 1) {
            throw new NotFound("pool", pool);
        }
        Bytes more = Bytes.of(bytes);
        try {
            Change change = PoolGrowth.of(estate, usage.load(), grown, more)
                    .orElseThrow(() -> new IllegalArgumentException("no unclaimed drives of its kind on file server "
                            + grown.server() + " make " + fmt.size(more) + " more for pool " + pool
                            + "; they can be drafted when they have come"));
            orders.add(me.getName(), change);
        } catch (IllegalArgumentException refused) {
            Typed.refuse(model, refused);
            return orders(fmt, model);
        }
        return "redirect:/foresee/orders";
    }

    @GetMapping(path = "/foresee/orders.csv")
    ResponseEntity<String> csv() {
        StringBuilder text = new StringBuilder("order_by,server,pool,amount_bytes,needed,after_bytes\r\n");
        for (Ahead order : ahead.all()) {
            text.append(String.join(
                            ",",
                            order.due().orderBy().toString(),
                            SpreadsheetText.written(order.server()),
                            SpreadsheetText.written(order.pool()),
                            String.valueOf(order.due().amount().value()),
                            order.due().needed().toString(),
                            String.valueOf(order.due().after().value())))
                    .append("\r\n");
        }
        return file("text/csv;charset=UTF-8", "orders.csv", text.toString());
    }

    @GetMapping(path = "/foresee/orders.ics")
    ResponseEntity<String> calendar(@ModelAttribute("fmt") Figures fmt) {
        return file("text/calendar;charset=UTF-8", "orders.ics", OrderCalendar.of(ahead.all(), clock.instant(), fmt));
    }

    private static ResponseEntity<String> file(String type, String name, String text) {
        return ResponseEntity.ok()
                .contentType(MediaType.parseMediaType(type))
                .header(HttpHeaders.CONTENT_DISPOSITION, "attachment; filename=\"" + name + "\"")
                .body(text);
    }
}
