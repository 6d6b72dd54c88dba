package org.vastshelf.app.spare;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.vastshelf.app.config.Settings;
import org.vastshelf.app.kit.AmountText;
import org.vastshelf.app.kit.AtField;
import org.vastshelf.app.kit.Field;
import org.vastshelf.app.kit.Figures;
import org.vastshelf.app.kit.Form;
import org.vastshelf.app.kit.NotFound;
import org.vastshelf.app.kit.Page;
import org.vastshelf.app.kit.Typed;
import org.vastshelf.app.orders.OrderService;
import org.vastshelf.app.security.Someone;
import org.vastshelf.app.store.EstateStore;
import org.vastshelf.core.change.RuleChange;
import org.vastshelf.core.estate.Kinds;
import org.vastshelf.core.estate.Pool;
import org.vastshelf.core.estate.PoolPrice;

/** What a TiB of each pool costs. */
@Page
class PricesController {

    private static final String HERE = "/lighten/prices";

    private final EstateStore estates;
    private final OrderService orders;
    private final String currency;

    PricesController(EstateStore estates, OrderService orders, Settings settings) {
        this.estates = estates;
        this.orders = orders;
        this.currency = settings.currency();
    }

    /** A pool, and what it costs. */
    record Row(String pool, String server, String price, Form form) {}

    @GetMapping(HERE)
    String list(@AuthenticationPrincipal Someone me, Model model) {
        Figures fmt = Figures.of(model);
        Map<String, PoolPrice> prices = estates.load().all(Kinds.POOL_PRICE);
        List<Row> rows = estates.load().pools().values().stream()
                .map(pool -> row(fmt, model, pool, Optional.ofNullable(prices.get(pool.name()))))
                .toList();
        model.addAttribute("rows", rows);
        model.addAttribute("currency", currency);
        model.addAttribute("designs", me.isAdministrator());
        return "prices";
    }

    private static Row row(Figures fmt, Model model, Pool pool, Optional<PoolPrice> price) {
        Typed.Fields typed = Typed.of(model).at(HERE + "/" + pool.name());
        Field field = typed.text(
                        "price",
                        "A TiB of " + pool.name() + " and month",
                        price.map(p -> p.perTibMonth().toPlainString()).orElse(""))
                .width("w-56");
        return new Row(
                pool.name(),
                pool.server(),
                price.map(p -> fmt.money(p.perTibMonth())).orElse("not set"),
                Form.of(typed.action(), "", field).button("Set it"));
    }

    /** Drafts a price; an empty one takes away what was set. */
    @PostMapping(HERE + "/{pool}")
    String set(
            @AuthenticationPrincipal Someone me,
            @PathVariable String pool,
            @RequestParam(defaultValue = "") String price,
            Model model) {
        if (!estates.load().pools().containsKey(pool)) {
            throw new NotFound("pool", pool);
        }
        try {
            orders.add(me.getName(), change(pool, price.strip()));
            return "redirect:" + HERE;
        } catch (IllegalArgumentException refused) {
            Typed.refuse(model, refused);
            return list(me, model);
        }
    }

    private static RuleChange change(String pool, String price) {
        return price.isEmpty()
                ? new RuleChange.DropRule(Kinds.POOL_PRICE.name(), pool)
                : new RuleChange.SetRule(
                        AtField.read("price", () -> new PoolPrice(pool, AmountText.parse("price", price))));
    }
}
