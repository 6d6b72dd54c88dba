package org.vastshelf.app.build;

import java.util.List;
import java.util.Optional;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.ModelAttribute;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.vastshelf.app.catalogue.CatalogueStore;
import org.vastshelf.app.kit.Figures;
import org.vastshelf.app.kit.Page;
import org.vastshelf.app.kit.Scope;
import org.vastshelf.app.kit.Typed;
import org.vastshelf.app.orders.OrderService;
import org.vastshelf.app.security.Someone;
import org.vastshelf.app.store.UsageStore;
import org.vastshelf.core.change.Check;
import org.vastshelf.core.change.Plan;
import org.vastshelf.core.change.Planner;
import org.vastshelf.core.change.VolumeChange;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.Pool;
import org.vastshelf.core.estate.Usage;
import org.vastshelf.core.estate.Volume;
import org.vastshelf.core.ledger.ByteLedger;
import org.vastshelf.core.ledger.Ledgers;

/** Composing a volume. */
@Page
class VolumeComposer {

    private final UsageStore usage;
    private final OrderService orders;
    private final CatalogueStore catalogues;
    private final Fits fits;

    VolumeComposer(UsageStore usage, OrderService orders, CatalogueStore catalogues, Fits fits) {
        this.usage = usage;
        this.orders = orders;
        this.catalogues = catalogues;
        this.fits = fits;
    }

    @GetMapping("/build/new/volume")
    String composeVolume(
            @AuthenticationPrincipal Someone me,
            @RequestParam(defaultValue = "") String pool,
            @ModelAttribute("scope") Scope scope,
            Model model) {
        Estate after = orders.withDraft(me.getName());
        String chosen = !pool.isEmpty()
                ? pool
                : !scope.pool().isEmpty()
                        ? scope.pool()
                        : after.pools().keySet().stream().findFirst().orElse("");
        VolumeForm form = new VolumeForm(
                "", chosen, "1 TiB", true, Volume.DEFAULT_BLOCK, Volume.DEFAULT_ALARM, null, false, "", "");
        return showVolume(me, form, model);
    }

    private String showVolume(Someone me, VolumeForm form, Model model) {
        Estate estate = orders.withDraft(me.getName());
        Usage held = usage.load();
        model.addAttribute("page", form.fields(Figures.of(model), Typed.of(model), estate, held, catalogues.all()));
        previewVolume(estate, held, form, model);
        return "volume-new";
    }

    @PostMapping("/build/new/volume/preview")
    String preview(@AuthenticationPrincipal Someone me, @ModelAttribute VolumeForm form, Model model) {
        previewVolume(orders.withDraft(me.getName()), usage.load(), form, model);
        return "volume-new :: consequence";
    }

    private void previewVolume(Estate estate, Usage held, VolumeForm form, Model model) {
        Pool pool = estate.pools().get(form.pool());
        if (pool == null) {
            return;
        }
        Figures fmt = Figures.of(model);
        Optional.of(form.catalogue())
                .filter(c -> !c.isEmpty())
                .flatMap(catalogues::find)
                .ifPresent(c -> model.addAttribute("fit", fits.blocks(fmt, c, form.kind(), form.blockSize())));
        model.addAttribute("preview", preview(fmt, estate, held, pool, form));
    }

    private static VolumePreview preview(Figures fmt, Estate estate, Usage held, Pool pool, VolumeForm form) {
        ByteLedger before = Ledgers.ofPool(estate, held, pool);
        try {
            Volume volume = form.volume(form.name().isBlank() ? "unnamed" : form.name());
            Plan plan = Planner.plan(estate, held, List.of(new VolumeChange.ComposeVolume(volume)), fmt.units());
            return plan.checks().stream()
                    .filter(c -> c.verdict() == Check.Verdict.REFUSE)
                    .findFirst()
                    .map(c -> VolumePreview.refused(
                            fmt, estate, pool, Optional.of(volume), before, c.text() + "; " + c.remedy()))
                    .orElseGet(() -> VolumePreview.possible(
                            fmt, estate, pool, volume, before, Ledgers.ofPool(plan.after(), held, pool)));
        } catch (IllegalArgumentException refused) {
            return VolumePreview.refused(
                    fmt, estate, pool, Optional.empty(), before, String.valueOf(refused.getMessage()));
        }
    }

    @PostMapping("/build/new/volume")
    String addVolume(@AuthenticationPrincipal Someone me, @ModelAttribute VolumeForm form, Model model) {
        try {
            orders.add(me.getName(), new VolumeChange.ComposeVolume(form.volume(form.name())));
            return "redirect:/build?scope=" + form.pool();
        } catch (IllegalArgumentException refused) {
            Typed.refuse(model, refused);
            return showVolume(me, form, model);
        }
    }
}
