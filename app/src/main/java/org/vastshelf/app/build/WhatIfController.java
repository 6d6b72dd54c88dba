package org.vastshelf.app.build;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.ModelAttribute;
import org.vastshelf.app.clock.ShelfClock;
import org.vastshelf.app.foresee.Forecasts;
import org.vastshelf.app.kit.AtField;
import org.vastshelf.app.kit.Field;
import org.vastshelf.app.kit.Figures;
import org.vastshelf.app.kit.LedgerPicture;
import org.vastshelf.app.kit.Page;
import org.vastshelf.app.kit.Scope;
import org.vastshelf.app.kit.Typed;
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

    /** What can be supposed. */
    record View(List<Field> fields, List<Choice> volumes) {}

    /** A volume that may be gone, or thin where it is not yet. */
    record Choice(String name, boolean dropped, boolean thick, boolean thinned) {}

    @GetMapping("/build/what-if")
    String whatIf(@ModelAttribute Form given, @ModelAttribute("scope") Scope scope, Model model) {
        Estate estate = estates.load();
        String first = scope.pool().isEmpty()
                ? estate.pools().keySet().stream().findFirst().orElse("")
                : scope.pool();
        Form form = given.pool().isEmpty() ? given.on(first) : given;
        Pool pool = estate.pools().get(form.pool());
        model.addAttribute("page", view(Typed.of(model).at("/build/what-if"), form, estate, pool));
        if (pool == null) {
            return "what-if";
        }
        Usage held = usage.load();
        ByteLedger before = Ledgers.ofPool(estate, held, pool);
        try {
            Estate supposed = supposed(form, estate);
            model.addAttribute("supposed", Supposed.of(Figures.of(model), estate, supposed, held, pool.name()));
            model.addAttribute(
                    "plank",
                    Plank.draw(supposed, held, Map.of(), forecasts.volumes(), Map.of(), clock.today(), p -> true));
        } catch (IllegalArgumentException refused) {
            model.addAttribute("before", LedgerPicture.draw(before, before.label(), BAR));
            Typed.refuse(model, refused);
        }
        return "what-if";
    }

    private static View view(Typed.Fields fields, Form form, Estate estate, @Nullable Pool pool) {
        Field pools = fields.select("pool", "Pool", estate.pools().keySet(), form.pool());
        if (pool == null) {
            return new View(List.of(pools), List.of());
        }
        List<Choice> volumes = estate.volumesOn(pool.name())
                .map(v -> new Choice(
                        v.name(),
                        form.drop().contains(v.name()),
                        !v.thin(),
                        form.thin().contains(v.name())))
                .toList();
        if (pool.isReservation()) {
            return new View(List.of(pools), volumes);
        }
        List<String> layouts = new ArrayList<>(List.of(""));
        Arrays.stream(Layout.values()).map(Layout::name).forEach(layouts::add);
        return new View(
                List.of(
                        pools,
                        fields.number("drives", "Drives more", form.drives()).between(0, 99),
                        fields.text("size", "of", form.size()),
                        fields.select(
                                "layout",
                                "Layout of its first group",
                                layouts,
                                name -> name,
                                name -> name.isEmpty()
                                        ? "as it is"
                                        : Layout.valueOf(name).title(),
                                form.layout() == null ? "" : form.layout().name())),
                volumes);
    }

    private static Estate supposed(Form form, Estate estate) {
        Bytes size = AtField.read(
                "size",
                () -> SizeText.parse("drive size", form.size(), Bytes.gib(100), Bytes.of(1_000_000_000_000_000L)));
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
