package org.vastshelf.app.build;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.ModelAttribute;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.vastshelf.app.catalogue.CatalogueStore;
import org.vastshelf.app.kit.LedgerPicture;
import org.vastshelf.app.kit.Page;
import org.vastshelf.app.kit.Scope;
import org.vastshelf.app.orders.OrderService;
import org.vastshelf.app.security.Someone;
import org.vastshelf.app.store.EstateStore;
import org.vastshelf.app.store.UsageStore;
import org.vastshelf.core.change.Check;
import org.vastshelf.core.change.Plan;
import org.vastshelf.core.change.Planner;
import org.vastshelf.core.change.VolumeChange;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.FileServer;
import org.vastshelf.core.estate.FileSystemKind;
import org.vastshelf.core.estate.Pace;
import org.vastshelf.core.estate.Pool;
import org.vastshelf.core.estate.Usage;
import org.vastshelf.core.estate.Volume;
import org.vastshelf.core.ledger.ByteKind;
import org.vastshelf.core.ledger.ByteLedger;
import org.vastshelf.core.ledger.Ledgers;
import org.vastshelf.core.unit.SizeText;
import org.vastshelf.core.volume.PaceBudget;

/** Composing a volume. */
@Page
class VolumeComposer {

    private final EstateStore estates;
    private final UsageStore usage;
    private final OrderService orders;
    private final CatalogueStore catalogues;
    private final Fits fits;

    VolumeComposer(EstateStore estates, UsageStore usage, OrderService orders, CatalogueStore catalogues, Fits fits) {
        this.estates = estates;
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
        return showVolume(me, form, "", model);
    }

    private String showVolume(Someone me, VolumeForm form, String problem, Model model) {
        Estate estate = orders.withDraft(me.getName());
        Usage held = usage.load();
        List<BuildController.PoolLine> pools = new ArrayList<>();
        estate.pools().values().forEach(p -> pools.add(BuildController.PoolLine.of(estate, held, p)));
        model.addAttribute("form", form);
        model.addAttribute("problem", problem);
        model.addAttribute("pools", pools);
        model.addAttribute("systems", FileSystemKind.values());
        model.addAttribute("catalogues", catalogues.all());
        previewVolume(estate, held, form, model);
        return "volume-new";
    }

    @PostMapping("/build/new/volume/preview")
    String preview(@AuthenticationPrincipal Someone me, @ModelAttribute VolumeForm form, Model model) {
        model.addAttribute("form", form);
        previewVolume(orders.withDraft(me.getName()), usage.load(), form, model);
        return "volume-new :: consequence";
    }

    private void previewVolume(Estate estate, Usage held, VolumeForm form, Model model) {
        Pool pool = estate.pools().get(form.pool());
        if (pool == null) {
            return;
        }
        ByteLedger before = Ledgers.ofPool(estate, held, pool);
        model.addAttribute("composedPool", pool);
        model.addAttribute("budget", PaceBudget.of(estate, pool));
        FileServer server = estate.servers().get(pool.server());
        model.addAttribute("managed", server.managed());
        model.addAttribute("sizes", server.sizes());
        if (!form.catalogue().isEmpty()) {
            catalogues
                    .find(form.catalogue())
                    .ifPresent(c -> model.addAttribute("fit", fits.blocks(c, form.kind(), form.blockSize())));
        }
        model.addAttribute("before", LedgerPicture.draw(before, before.label(), 420));
        model.addAttribute("kinds", List.of(ByteKind.LIVE, ByteKind.SNAPSHOTS, ByteKind.PROMISED, ByteKind.FREE));
        try {
            Volume volume = form.volume(form.name().isBlank() ? "unnamed" : form.name());
            model.addAttribute("pace", volume.pace().of(volume.size(), pool.pace()));
            Plan plan = Planner.plan(estate, held, List.of(new VolumeChange.ComposeVolume(volume)));
            if (plan.isRefused()) {
                plan.checks().stream()
                        .filter(c -> c.verdict() == Check.Verdict.REFUSE)
                        .findFirst()
                        .ifPresent(c -> model.addAttribute("previewProblem", c.text() + "; " + c.remedy()));
            } else {
                ByteLedger after = Ledgers.ofPool(plan.after(), held, pool);
                model.addAttribute("after", LedgerPicture.draw(after, after.label(), 420));
            }
        } catch (IllegalArgumentException refused) {
            model.addAttribute("previewProblem", refused.getMessage());
        }
    }

    @PostMapping("/build/new/volume")
    String addVolume(@AuthenticationPrincipal Someone me, @ModelAttribute VolumeForm form, Model model) {
        try {
            orders.add(me.getName(), new VolumeChange.ComposeVolume(form.volume(form.name())));
            return "redirect:/build?scope=" + form.pool();
        } catch (IllegalArgumentException refused) {
            return showVolume(me, form, refused.getMessage(), model);
        }
    }

    /** What was typed about a volume. */
    record VolumeForm(
            String name,
            String pool,
            String size,
            Boolean thin,
            Integer blockSize,
            Integer alarmPercent,
            @Nullable FileSystemKind kind,
            Boolean encrypted,
            String mibps,
            String catalogue) {
        VolumeForm {
            kind = kind == null ? FileSystemKind.GUARDED : kind;
            encrypted = Boolean.TRUE.equals(encrypted);
            mibps = mibps == null ? "" : mibps.strip();
            catalogue = catalogue == null ? "" : catalogue;
            thin = Boolean.TRUE.equals(thin);
            blockSize = blockSize == null ? Volume.DEFAULT_BLOCK : blockSize;
            alarmPercent = alarmPercent == null ? Volume.DEFAULT_ALARM : alarmPercent;
            name = name == null ? "" : name.strip();
        }

        Volume volume(String named) {
            return new Volume(
                    named,
                    pool,
                    SizeText.parse("volume size", size, Volume.LEAST, Volume.MOST),
                    thin,
                    blockSize,
                    alarmPercent,
                    kind,
                    encrypted,
                    pace(),
                    Optional.empty());
        }

        private Pace pace() {
            if (mibps.isEmpty()) {
                return Pace.BY_SIZE;
            }
            if (!mibps.matches("\\d{1,7}")) {
                throw new IllegalArgumentException(
                        "pace is '" + mibps + "', must be whole MiB/s, or empty for by size");
            }
            return new Pace(true, Integer.parseInt(mibps));
        }
    }
}
