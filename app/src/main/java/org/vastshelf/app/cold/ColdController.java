package org.vastshelf.app.cold;

import java.math.BigDecimal;
import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.ModelAttribute;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.vastshelf.app.config.Settings;
import org.vastshelf.app.kit.AmountText;
import org.vastshelf.app.kit.Field;
import org.vastshelf.app.kit.Figures;
import org.vastshelf.app.kit.Form;
import org.vastshelf.app.kit.Page;
import org.vastshelf.app.kit.Typed;
import org.vastshelf.app.orders.OrderService;
import org.vastshelf.app.security.Someone;
import org.vastshelf.core.change.ColdChange;
import org.vastshelf.core.estate.ColdPrices;
import org.vastshelf.core.estate.ColdStore;
import org.vastshelf.core.tier.StoreMood;

/** Cold stores: where cold files go to. */
@Page
class ColdController {

    private static final String NEW = "/lighten/stores";

    private final ColdStores stores;
    private final StandInMoods moods;
    private final OrderService orders;
    private final String currency;

    ColdController(ColdStores stores, StandInMoods moods, OrderService orders, Settings settings) {
        this.stores = stores;
        this.moods = moods;
        this.orders = orders;
        this.currency = settings.currency();
    }

    @GetMapping("/lighten/stores")
    String list(@AuthenticationPrincipal Someone me, Model model) {
        Figures fmt = Figures.of(model);
        model.addAttribute(
                "stores",
                stores.all().stream().map(known -> ColdView.row(fmt, known)).toList());
        model.addAttribute("designs", me.isAdministrator());
        model.addAttribute("form", form(Typed.of(model).at(NEW), "Set up a cold store", Optional.empty()));
        return "cold-stores";
    }

    @GetMapping("/lighten/stores/{name}")
    String one(@AuthenticationPrincipal Someone me, @PathVariable String name, Model model) {
        ColdStores.Known known = stores.find(name);
        Typed typed = Typed.of(model);
        String here = NEW + "/" + name;
        model.addAttribute("store", ColdView.of(Figures.of(model), known, currency));
        model.addAttribute("designs", me.isAdministrator());
        model.addAttribute("runs", me.mayRun());
        model.addAttribute("form", form(typed.at(here), "Change it", Optional.of(known.store())));
        model.addAttribute("keys", keys(typed.at(here + "/keys")));
        model.addAttribute("tries", me.mayRun() && moods.of(known.store()).isPresent());
        model.addAttribute(
                "mood",
                moods.of(known.store())
                        .map(mood -> mood(typed.at(here + "/mood"), mood))
                        .orElse(null));
        return "cold-store";
    }

    private Form form(Typed.Fields typed, String legend, Optional<ColdStore> store) {
        ColdPrices prices = store.map(ColdStore::prices).orElse(ColdPrices.NONE);
        Form form = Form.of(
                typed.action(),
                legend,
                typed.text(
                                "endpoint",
                                "Endpoint",
                                store.map(ColdStore::endpoint).orElse("https://"))
                        .width("w-80"),
                typed.text("region", "Region", store.map(ColdStore::region).orElse(""))
                        .width("w-40"),
                typed.text("bucket", "Bucket", store.map(ColdStore::bucket).orElse(""))
                        .width("w-56"),
                typed.text(
                                "prefix",
                                "Prefix of all objects",
                                store.map(ColdStore::prefix).orElse("shelf/"))
                        .width("w-44"),
                price(typed, "perTibMonth", "a TiB and month", prices.perTibMonth()),
                price(typed, "perThousandRequests", "1,000 requests", prices.perThousandRequests()),
                price(typed, "perTibRecalled", "a TiB recalled", prices.perTibRecalled()),
                typed.area(
                                "authority",
                                "Certificates of its own authority",
                                store.map(ColdStore::authority).orElse(""))
                        .with("rows", 2)
                        .hint("in PEM; empty for authorities that this host trusts")
                        .width("w-80"),
                typed.tick(
                        "pathStyle",
                        "the bucket stands in the path",
                        store.map(ColdStore::pathStyle).orElse(true)),
                typed.tick(
                                "encrypted",
                                "encrypt objects before they leave",
                                store.map(ColdStore::encrypted).orElse(false))
                        .hint("permanent for what has left"));
        Form named = store.isPresent()
                ? form
                : new Form(
                        form.action(),
                        form.legend(),
                        Stream.concat(Stream.of(typed.text("name", "Name", "").width("w-40")), form.fields().stream())
                                .toList(),
                        form.buttons(),
                        form.note());
        return named.button("Add to the draft");
    }

    private Field price(Typed.Fields typed, String name, String of, BigDecimal given) {
        return typed.text(name, currency + " for " + of, given.toPlainString()).width("w-44");
    }

    private static Form keys(Typed.Fields typed) {
        return Form.of(
                        typed.action(),
                        "Keys",
                        typed.text("accessKey", "Access key", "").width("w-56"),
                        typed.secret("secretKey", "Secret key").width("w-80"))
                .button("Set the keys")
                .note("They are kept sealed and never shown again. Setting others puts them in their place at once.");
    }

    private static Form mood(Typed.Fields typed, StoreMood mood) {
        return Form.of(
                        typed.action(),
                        "How the embedded store answers",
                        typed.select(
                                        "manner",
                                        "It",
                                        List.of(StoreMood.Manner.values()),
                                        StoreMood.Manner::name,
                                        StoreMood.Manner::title,
                                        mood.manner())
                                .width("w-80"),
                        typed.number("latencyMillis", "after ms", mood.latencyMillis())
                                .between(0, StoreMood.MOST_LATENCY_MILLIS)
                                .width("w-32"))
                .button("Let it")
                .note("To try what happens here when a store is slow, full or away.");
    }

    /** A store as it is typed. */
    record Typing(
            String name,
            String endpoint,
            String region,
            String bucket,
            String prefix,
            String authority,
            Boolean pathStyle,
            Boolean encrypted,
            String perTibMonth,
            String perThousandRequests,
            String perTibRecalled) {

        ColdStore store(String as) {
            return new ColdStore(
                    as,
                    text(endpoint),
                    text(region),
                    text(bucket),
                    text(prefix),
                    Boolean.TRUE.equals(pathStyle),
                    text(authority),
                    Boolean.TRUE.equals(encrypted),
                    new ColdPrices(
                            AmountText.parse("perTibMonth", perTibMonth),
                            AmountText.parse("perThousandRequests", perThousandRequests),
                            AmountText.parse("perTibRecalled", perTibRecalled)));
        }

        private static String text(String typed) {
            return typed == null ? "" : typed.strip();
        }
    }

    @PostMapping("/lighten/stores")
    String make(@AuthenticationPrincipal Someone me, @ModelAttribute Typing typing, Model model) {
        try {
            orders.add(me.getName(), new ColdChange.SetColdStore(typing.store(Typing.text(typing.name))));
            return "redirect:/lighten/stores";
        } catch (IllegalArgumentException refused) {
            Typed.refuse(model, refused);
            return list(me, model);
        }
    }

    @PostMapping("/lighten/stores/{name}")
    String change(
            @AuthenticationPrincipal Someone me,
            @PathVariable String name,
            @ModelAttribute Typing typing,
            Model model) {
        stores.find(name);
        try {
            orders.add(me.getName(), new ColdChange.SetColdStore(typing.store(name)));
            return "redirect:/lighten/stores/" + name;
        } catch (IllegalArgumentException refused) {
            Typed.refuse(model, refused);
            return one(me, name, model);
        }
    }

    @PostMapping("/lighten/stores/{name}/drop")
    String drop(@AuthenticationPrincipal Someone me, @PathVariable String name) {
        orders.add(me.getName(), new ColdChange.DropColdStore(name));
        return "redirect:/lighten/stores/" + name;
    }

    @PostMapping("/lighten/stores/{name}/keys")
    String sign(
            @AuthenticationPrincipal Someone me,
            @PathVariable String name,
            @RequestParam String accessKey,
            @RequestParam String secretKey,
            Model model) {
        return tried(
                me,
                name,
                model,
                () -> stores.sign(name, new AccessKeys(accessKey.strip(), secretKey.strip()), me.getName()));
    }

    @PostMapping("/lighten/stores/{name}/check")
    String check(@AuthenticationPrincipal Someone me, @PathVariable String name, Model model) {
        return tried(me, name, model, () -> stores.check(name, me.getName()));
    }

    @PostMapping("/lighten/stores/{name}/mood")
    String mood(
            @AuthenticationPrincipal Someone me,
            @PathVariable String name,
            @RequestParam StoreMood.Manner manner,
            @RequestParam int latencyMillis,
            Model model) {
        return tried(me, name, model, () -> moods.set(new StoreMood(manner, latencyMillis), me.getName()));
    }

    private String tried(Someone me, String name, Model model, Runnable deed) {
        try {
            deed.run();
            return "redirect:/lighten/stores/" + name;
        } catch (IllegalArgumentException refused) {
            Typed.refuse(model, refused);
            return one(me, name, model);
        }
    }
}
