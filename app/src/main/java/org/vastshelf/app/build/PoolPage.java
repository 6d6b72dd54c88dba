package org.vastshelf.app.build;

import java.time.Instant;
import java.util.List;
import java.util.Optional;
import java.util.function.ToDoubleFunction;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;
import org.springframework.ui.Model;
import org.vastshelf.app.foresee.Forecasts;
import org.vastshelf.app.hardware.DamagedFiles;
import org.vastshelf.app.hardware.HardwareService;
import org.vastshelf.app.kit.LedgerPicture;
import org.vastshelf.app.kit.NotFound;
import org.vastshelf.app.lift.Lifts;
import org.vastshelf.app.rule.ScheduleForm;
import org.vastshelf.app.store.EstateStore;
import org.vastshelf.app.store.HistoryStore;
import org.vastshelf.app.store.UsageStore;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.Kinds;
import org.vastshelf.core.estate.LiftRule;
import org.vastshelf.core.estate.PaceClass;
import org.vastshelf.core.estate.Pool;
import org.vastshelf.core.estate.Rebuild;
import org.vastshelf.core.estate.Scrub;
import org.vastshelf.core.estate.ScrubRule;
import org.vastshelf.core.estate.Share;
import org.vastshelf.core.estate.Usage;
import org.vastshelf.core.failure.PoolState;
import org.vastshelf.core.failure.Rebuilds;
import org.vastshelf.core.failure.SpareFit;
import org.vastshelf.core.layout.Layout;
import org.vastshelf.core.layout.LayoutComparison;
import org.vastshelf.core.ledger.ByteLedger;
import org.vastshelf.core.ledger.Ledgers;
import org.vastshelf.core.unit.Bytes;
import org.vastshelf.core.volume.PaceBudget;

/** What the page of one pool shows. */
@Component
class PoolPage {

    private static final int BAR = 780;

    private final EstateStore estates;
    private final UsageStore usage;
    private final Fits fits;
    private final Forecasts forecasts;
    private final DamagedFiles damaged;
    private final Lifts lifts;
    private final HardwareService hardware;

    PoolPage(
            EstateStore estates,
            UsageStore usage,
            Fits fits,
            Forecasts forecasts,
            DamagedFiles damaged,
            Lifts lifts,
            HardwareService hardware) {
        this.hardware = hardware;
        this.estates = estates;
        this.usage = usage;
        this.fits = fits;
        this.forecasts = forecasts;
        this.damaged = damaged;
        this.lifts = lifts;
    }

    record RebuildView(Rebuild rebuild, Instant end) {
        public int percent() {
            return (int) Math.round(rebuild.done().shareOf(rebuild.todo()) * 100);
        }
    }

    String show(String name, String problem, Model model) {
        Estate estate = hardware.seenNow();
        Usage held = usage.load();
        Pool pool = Optional.ofNullable(estate.pools().get(name)).orElseThrow(() -> new NotFound("pool", name));
        model.addAttribute("pool", pool);
        model.addAttribute("problem", problem);
        if (!model.containsAttribute("typedDrives")) {
            model.addAttribute("typedDrives", List.of());
        }
        bytes(estate, held, pool, model);
        safety(estate, pool, GroupView.of(estate, pool), model);
        rules(estate, pool, model);
        choices(estate, pool, model);
        return "pool";
    }

    /** Where its bytes went, and when it is full. */
    private void bytes(Estate estate, Usage held, Pool pool, Model model) {
        ByteLedger ledger = Ledgers.ofPool(estate, held, pool);
        Bytes usable = Ledgers.usable(estate, pool);
        model.addAttribute("ledger", LedgerPicture.draw(ledger, ledger.label(), BAR));
        model.addAttribute("usable", usable);
        model.addAttribute(
                "volumes",
                estate.volumesOn(pool.name())
                        .map(v -> BuildController.line(held, v))
                        .toList());
        model.addAttribute("budget", PaceBudget.of(estate, pool));
        model.addAttribute(
                "allocated", usable.isZero() ? 0 : usable.minus(ledger.free()).shareOf(usable));
        model.addAttribute(
                "full",
                forecasts
                        .of(HistoryStore.POOL, pool.name())
                        .flatMap(space -> space.forecast().likely()));
    }

    /** What it survives, what is hurt, and what is being mended. */
    private void safety(Estate estate, Pool pool, List<GroupView> groups, Model model) {
        model.addAttribute("state", PoolState.of(estate, pool));
        model.addAttribute("groups", groups);
        model.addAttribute(
                "byLabels", Bytes.sum(groups.stream().map(GroupView::byLabels).toList()));
        model.addAttribute(
                "survives",
                groups.stream().mapToInt(g -> g.layout().survives()).min().orElse(0));
        model.addAttribute("odds", odds(groups, g -> g.layout().yearlyLossOdds()));
        List<GroupView> hurt = groups.stream()
                .filter(g -> !g.state().gone().isEmpty() && g.state().further() >= 0)
                .toList();
        model.addAttribute("hurt", !hurt.isEmpty());
        model.addAttribute(
                "oddsNow",
                odds(
                        hurt,
                        g -> LayoutComparison.oddsBeforeWhole(
                                g.layout(),
                                Ledgers.questionOf(estate, pool, g.group()),
                                g.state().gone().size())));
        model.addAttribute(
                "rebuilds",
                estate.rebuildsOf(pool.name()).stream()
                        .map(r -> new RebuildView(r, Rebuilds.expectedEnd(estate, r)))
                        .toList());
        model.addAttribute("scrub", estate.find(Kinds.SCRUB, pool.name()).orElse(Scrub.none(pool.name())));
        model.addAttribute("findings", damaged.of(pool.name()));
    }

    /** What is done to it by itself. */
    private void rules(Estate estate, Pool pool, Model model) {
        String name = pool.name();
        model.addAttribute(
                "scrubWhen",
                ScheduleForm.of(
                        typed(model, "typedScrub"),
                        estate.find(Kinds.SCRUBBING, name).map(ScrubRule::when)));
        LiftRule liftRule = LiftRule.of(estate, name);
        model.addAttribute("liftRule", liftRule);
        model.addAttribute("liftWhen", ScheduleForm.of(typed(model, "typedLift"), liftRule.when()));
        model.addAttribute("rhythms", ScheduleForm.hourly());
        if (pool.isTiered()) {
            lifts.standing(estate, pool, () -> fits.curve(shares(estate, name)))
                    .ifPresent(standing -> model.addAttribute("lift", standing));
        }
    }

    /** From what its forms choose. */
    private static void choices(Estate estate, Pool pool, Model model) {
        model.addAttribute("spares", SpareFit.of(estate, pool));
        model.addAttribute("free", BuildController.unclaimed(estate, pool.server()));
        model.addAttribute("layouts", Layout.values());
        model.addAttribute("classes", PaceClass.values());
        model.addAttribute(
                "untaken", pool.groups().stream().anyMatch(g -> !g.counted().isEmpty()));
    }

    /** How much of a fast part would be useful, for whoever unfolds it; it looks at every file of the pool. */
    String fast(String name, Model model) {
        List<String> shares = shares(hardware.seenNow(), name);
        if (!shares.isEmpty()) {
            model.addAttribute("fast", fits.fast(shares));
        }
        return "pool :: fast";
    }

    private static List<String> shares(Estate estate, String pool) {
        return estate.volumesOn(pool)
                .flatMap(v -> estate.sharesOn(v.name()))
                .map(Share::name)
                .toList();
    }

    private static @Nullable ScheduleForm typed(Model model, String name) {
        return (ScheduleForm) model.getAttribute(name);
    }

    /** Odds that one of the groups loses data; groups are independent. */
    private static double odds(List<GroupView> groups, ToDoubleFunction<GroupView> each) {
        double none = 0;
        for (GroupView group : groups) {
            none += Math.log1p(-Math.min(each.applyAsDouble(group), 1 - 1e-16));
        }
        return -Math.expm1(none);
    }
}
