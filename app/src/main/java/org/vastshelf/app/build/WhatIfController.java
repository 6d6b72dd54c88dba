package org.vastshelf.app.build;

import java.util.List;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.ModelAttribute;
import org.vastshelf.app.clock.ShelfClock;
import org.vastshelf.app.foresee.Forecasts;
import org.vastshelf.app.kit.LedgerPicture;
import org.vastshelf.app.kit.Page;
import org.vastshelf.app.kit.Scope;
import org.vastshelf.app.plank.Plank;
import org.vastshelf.app.store.EstateStore;
import org.vastshelf.app.store.UsageStore;
import org.vastshelf.core.definition.WhatIf;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.Pool;
import org.vastshelf.core.estate.Usage;
import org.vastshelf.core.estate.Volume;
import org.vastshelf.core.layout.Layout;
import org.vastshelf.core.ledger.ByteLedger;
import org.vastshelf.core.ledger.Ledgers;
import org.vastshelf.core.unit.Bytes;
import org.vastshelf.core.unit.SizeText;

/** Suppositions: the plank and the ledger as they would be, with nothing changed. */
@Page
class WhatIfController {

    private static final int BAR = 700;

    private final EstateStore estates;
    private final UsageStore usage;
    private final Forecasts forecasts;
    private final ShelfClock clock;

    WhatIfController(EstateStore estates, UsageStore usage, Forecasts forecasts, ShelfClock clock) {
        this.estates = estates;
        this.usage = usage;
        this.forecasts = forecasts;
        this.clock = clock;
    }

    /** What was supposed. */
    record Form(
            String pool,
            Integer drives,
            String size,
            @Nullable Layout layout,
            List<String> drop,
            List<String> thin) {
        Form {
            pool = pool == null ? "" : pool;
            drives = drives == null ? 0 : drives;
            size = size == null ? "12 TB" : size;
            drop = drop == null ? List.of() : List.copyOf(drop);
            thin = thin == null ? List.of() : List.copyOf(thin);
        }

        Form on(String chosen) {
            return new Form(chosen, drives, size, layout, drop, thin);
        }
    }

    @GetMapping("/build/what-if")
    String whatIf(@ModelAttribute Form given, @ModelAttribute("scope") Scope scope, Model model) {
        Estate estate = estates.load();
        Usage held = usage.load();
        String first = scope.pool().isEmpty()
                ? estate.pools().keySet().stream().findFirst().orElse("")
                : scope.pool();
        Form form = given.pool().isEmpty() ? given.on(first) : given;
        model.addAttribute("form", form);
        model.addAttribute("pools", estate.pools().keySet());
        model.addAttribute("layouts", Layout.values());
        Pool pool = estate.pools().get(form.pool());
        if (pool == null) {
            return "what-if";
        }
        model.addAttribute("pool", pool);
        model.addAttribute("volumes", estate.volumesOn(pool.name()).toList());
        ByteLedger before = Ledgers.ofPool(estate, held, pool);
        try {
            Estate supposed = supposed(form, estate);
            ByteLedger after = Ledgers.ofPool(supposed, held, supposed.pools().get(pool.name()));
            Bytes whole = before.label().max(after.label());
            model.addAttribute("before", LedgerPicture.draw(before, whole, BAR));
            model.addAttribute("after", LedgerPicture.draw(after, whole, BAR));
            model.addAttribute("usableBefore", Ledgers.usable(estate, pool));
            model.addAttribute(
                    "usableAfter", Ledgers.usable(supposed, supposed.pools().get(pool.name())));
            model.addAttribute(
                    "plank",
                    Plank.draw(supposed, held, forecasts.volumes(), java.util.Map.of(), clock.today(), p -> true));
        } catch (IllegalArgumentException refused) {
            model.addAttribute("before", LedgerPicture.draw(before, before.label(), BAR));
            model.addAttribute("problem", refused.getMessage());
        }
        return "what-if";
    }

    private static Estate supposed(Form form, Estate estate) {
        Bytes size = SizeText.parse("drive size", form.size(), Bytes.gib(100), Bytes.of(1_000_000_000_000_000L));
        List<String> known = estate.volumesOn(form.pool()).map(Volume::name).toList();
        return new WhatIf(
                        form.pool(),
                        form.drives(),
                        size,
                        Optional.ofNullable(form.layout()),
                        form.drop().stream().filter(known::contains).toList(),
                        form.thin().stream().filter(known::contains).toList())
                .applyTo(estate);
    }
}
