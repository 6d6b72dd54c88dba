package org.vastshelf.app.build;

import java.time.Instant;
import java.util.List;
import java.util.Optional;
import java.util.function.Supplier;
import org.jspecify.annotations.Nullable;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.vastshelf.app.frame.LedgerPicture;
import org.vastshelf.app.frame.NotFound;
import org.vastshelf.app.frame.Page;
import org.vastshelf.app.hardware.DamagedFiles;
import org.vastshelf.app.look.Forecasts;
import org.vastshelf.app.orders.OrderService;
import org.vastshelf.app.security.Someone;
import org.vastshelf.app.store.EstateStore;
import org.vastshelf.app.store.UsageStore;
import org.vastshelf.core.change.Change;
import org.vastshelf.core.estate.Drive;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.PaceClass;
import org.vastshelf.core.estate.Pool;
import org.vastshelf.core.estate.Rebuild;
import org.vastshelf.core.estate.Scrub;
import org.vastshelf.core.estate.Share;
import org.vastshelf.core.estate.Usage;
import org.vastshelf.core.failure.PoolState;
import org.vastshelf.core.failure.Rebuilds;
import org.vastshelf.core.layout.Layout;
import org.vastshelf.core.ledger.ByteLedger;
import org.vastshelf.core.ledger.Ledgers;
import org.vastshelf.core.unit.Bytes;
import org.vastshelf.core.unit.SizeText;
import org.vastshelf.core.volume.PaceBudget;

/** One pool: where its bytes went, how it stands, and what can be changed while it runs. */
@Page
class PoolController {

    private static final int BAR = 780;

    private final EstateStore estates;
    private final UsageStore usage;
    private final OrderService orders;
    private final Fits fits;
    private final Forecasts forecasts;
    private final DamagedFiles damaged;

    PoolController(
            EstateStore estates,
            UsageStore usage,
            OrderService orders,
            Fits fits,
            Forecasts forecasts,
            DamagedFiles damaged) {
        this.estates = estates;
        this.usage = usage;
        this.orders = orders;
        this.fits = fits;
        this.forecasts = forecasts;
        this.damaged = damaged;
    }

    record RebuildView(Rebuild rebuild, Instant end) {
        public int percent() {
            return (int) Math.round(rebuild.done().shareOf(rebuild.todo()) * 100);
        }
    }

    @GetMapping("/build/pools/{name}")
    String pool(@PathVariable String name, Model model) {
        return show(name, "", model);
    }

    private String show(String name, String problem, Model model) {
        Estate estate = estates.load();
        Usage held = usage.load();
        Pool pool = Optional.ofNullable(estate.pools().get(name)).orElseThrow(() -> new NotFound("pool", name));
        ByteLedger ledger = Ledgers.ofPool(estate, held, pool);
        List<GroupView> groups = GroupView.of(estate, pool);
        model.addAttribute("pool", pool);
        model.addAttribute("problem", problem);
        if (!model.containsAttribute("typedDrives")) {
            model.addAttribute("typedDrives", List.of());
        }
        model.addAttribute("ledger", LedgerPicture.draw(ledger, ledger.label(), BAR));
        model.addAttribute("usable", Ledgers.usable(estate, pool));
        model.addAttribute(
                "volumes",
                estate.volumesOn(name).map(v -> BuildController.line(held, v)).toList());
        model.addAttribute("state", PoolState.of(estate, pool));
        model.addAttribute("groups", groups);
        model.addAttribute(
                "byLabels", Bytes.sum(groups.stream().map(GroupView::byLabels).toList()));
        model.addAttribute(
                "survives",
                groups.stream().mapToInt(g -> g.layout().survives()).min().orElse(0));
        model.addAttribute("odds", odds(groups));
        model.addAttribute(
                "rebuilds",
                estate.rebuildsOf(name).stream()
                        .map(r -> new RebuildView(r, Rebuilds.expectedEnd(estate, r)))
                        .toList());
        model.addAttribute("scrub", estate.scrubs().getOrDefault(name, Scrub.never(name)));
        model.addAttribute("findings", damaged.of(name));
        model.addAttribute("spares", estate.drives(pool.spares()));
        model.addAttribute("free", BuildController.unclaimed(estate, pool.server()));
        model.addAttribute("budget", PaceBudget.of(estate, pool));
        Bytes usable = Ledgers.usable(estate, pool);
        model.addAttribute(
                "allocated", usable.isZero() ? 0 : usable.minus(ledger.free()).shareOf(usable));
        model.addAttribute(
                "full",
                Optional.ofNullable(forecasts.pools().get(name))
                        .flatMap(space -> space.forecast().likely()));
        if (!pool.isReservation()) {
            List<String> shares = estate.volumesOn(name)
                    .flatMap(v -> estate.sharesOn(v.name()))
                    .map(Share::name)
                    .toList();
            if (!shares.isEmpty()) {
                model.addAttribute("fast", fits.fast(shares));
            }
        }
        model.addAttribute("layouts", Layout.values());
        model.addAttribute("classes", PaceClass.values());
        model.addAttribute(
                "untaken", pool.groups().stream().anyMatch(g -> !g.counted().isEmpty()));
        return "pool";
    }

    /** Odds that one of the groups loses data within a year; groups are independent. */
    private static double odds(List<GroupView> groups) {
        double none = 0;
        for (GroupView group : groups) {
            none += Math.log1p(-Math.min(group.layout().yearlyLossOdds(), 1 - 1e-16));
        }
        return -Math.expm1(none);
    }

    private String add(Someone me, String name, Supplier<Change> change, Model model) {
        try {
            orders.add(me.getName(), change.get());
            return "redirect:/build/pools/" + name;
        } catch (IllegalArgumentException refused) {
            return show(name, String.valueOf(refused.getMessage()), model);
        }
    }

    /** What was chosen, kept for the page in case it is refused. */
    private static List<String> given(@Nullable List<String> drives, Model model) {
        List<String> chosen = drives == null ? List.of() : drives;
        model.addAttribute("typedDrives", chosen);
        return chosen;
    }

    @PostMapping("/build/pools/{name}/group")
    String group(
            @AuthenticationPrincipal Someone me,
            @PathVariable String name,
            @RequestParam(required = false) List<String> drives,
            @RequestParam Layout layout,
            @RequestParam(defaultValue = "bulk") String part,
            Model model) {
        boolean fast = !part.equals("bulk");
        return add(
                me,
                name,
                () -> new Change.AddGroup(name, given(drives, model), layout, fast, part.equals("cache")),
                model);
    }

    @PostMapping("/build/pools/{name}/drives")
    String drives(
            @AuthenticationPrincipal Someone me,
            @PathVariable String name,
            @RequestParam int group,
            @RequestParam(required = false) List<String> drives,
            Model model) {
        return add(me, name, () -> new Change.AddDrives(name, group, given(drives, model)), model);
    }

    @PostMapping("/build/pools/{name}/spares")
    String spares(
            @AuthenticationPrincipal Someone me,
            @PathVariable String name,
            @RequestParam(required = false) List<String> drives,
            Model model) {
        return add(me, name, () -> new Change.AddSpares(name, given(drives, model)), model);
    }

    @PostMapping("/build/pools/{name}/release-spares")
    String releaseSpares(
            @AuthenticationPrincipal Someone me,
            @PathVariable String name,
            @RequestParam(required = false) List<String> drives,
            Model model) {
        return add(me, name, () -> new Change.ReleaseSpares(name, given(drives, model)), model);
    }

    @PostMapping("/build/pools/{name}/reserve")
    String reserve(
            @AuthenticationPrincipal Someone me, @PathVariable String name, @RequestParam String size, Model model) {
        return add(me, name, () -> new Change.SetPoolReserve(name, share(name, size)), model);
    }

    /** A size, or a share of the pool's data bytes. */
    private Bytes share(String name, String text) {
        String trimmed = text.strip();
        if (!trimmed.endsWith("%")) {
            return SizeText.parse("reserve", trimmed, Bytes.ZERO, Bytes.tib(4_096));
        }
        Estate estate = estates.load();
        Bytes data = Ledgers.data(estate, estate.pools().get(name));
        int percent = WholeNumbers.percent("reserve", trimmed, 0, 90);
        return Bytes.of(data.value() / 100 * percent);
    }

    @PostMapping("/build/pools/{name}/reservation")
    String reservation(
            @AuthenticationPrincipal Someone me,
            @PathVariable String name,
            @RequestParam String size,
            @RequestParam PaceClass pace,
            Model model) {
        String server = estates.load().pools().get(name).server();
        return add(
                me,
                name,
                () -> new Change.ReservePool(
                        name, server, SizeText.parse("reservation", size, Bytes.tib(1), Bytes.tib(4_096)), pace),
                model);
    }

    @PostMapping("/build/pools/{name}/take-space")
    String takeSpace(@AuthenticationPrincipal Someone me, @PathVariable String name, Model model) {
        return add(me, name, () -> new Change.TakeSpace(name), model);
    }

    @PostMapping("/build/pools/{name}/scrub")
    String scrub(
            @AuthenticationPrincipal Someone me, @PathVariable String name, @RequestParam String days, Model model) {
        return add(me, name, () -> new Change.SetScrub(name, WholeNumbers.whole("scrub schedule", days)), model);
    }

    @PostMapping("/build/pools/{name}/dissolve")
    String dissolve(@AuthenticationPrincipal Someone me, @PathVariable String name, Model model) {
        return add(me, name, () -> new Change.DissolvePool(name), model);
    }

    /** Members of a pool by key, for the page on which they are replaced. */
    static List<Drive> members(Estate estate, Pool pool) {
        return estate.drives(pool.members());
    }
}
