package org.vastshelf.app.build;

import java.util.List;
import java.util.Optional;
import org.springframework.stereotype.Component;
import org.springframework.ui.Model;
import org.vastshelf.app.foresee.Forecasts;
import org.vastshelf.app.hardware.DamagedFiles;
import org.vastshelf.app.hardware.HardwareService;
import org.vastshelf.app.kit.Figures;
import org.vastshelf.app.kit.NotFound;
import org.vastshelf.app.kit.Typed;
import org.vastshelf.app.lift.Lifts;
import org.vastshelf.app.store.HistoryStore;
import org.vastshelf.app.store.UsageStore;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.Pool;
import org.vastshelf.core.estate.Share;

/** What the page of one pool shows. */
@Component
class PoolPage {

    private final UsageStore usage;
    private final Fits fits;
    private final Forecasts forecasts;
    private final DamagedFiles damaged;
    private final Lifts lifts;
    private final HardwareService hardware;

    PoolPage(
            UsageStore usage,
            Fits fits,
            Forecasts forecasts,
            DamagedFiles damaged,
            Lifts lifts,
            HardwareService hardware) {
        this.hardware = hardware;
        this.usage = usage;
        this.fits = fits;
        this.forecasts = forecasts;
        this.damaged = damaged;
        this.lifts = lifts;
    }

    String show(String name, Model model) {
        Estate estate = hardware.seenNow();
        Pool pool = Optional.ofNullable(estate.pools().get(name)).orElseThrow(() -> new NotFound("pool", name));
        Figures fmt = Figures.of(model);
        Optional<LiftView> lift = pool.isTiered()
                ? lifts.standing(estate, pool, () -> fits.curve(shares(estate, name)))
                        .map(standing -> LiftView.of(fmt, standing))
                : Optional.empty();
        model.addAttribute(
                "page",
                PoolView.of(
                        fmt,
                        estate,
                        usage.load(),
                        pool,
                        forecasts
                                .of(HistoryStore.POOL, name)
                                .flatMap(space -> space.forecast().likely()),
                        damaged.of(name),
                        lift));
        model.addAttribute("forms", PoolForms.of(fmt, Typed.of(model), estate, pool));
        return "pool";
    }

    /** How much of a fast part would be useful, for whoever unfolds it; it looks at every file of the pool. */
    String fast(String name, Model model) {
        List<String> shares = shares(hardware.seenNow(), name);
        if (!shares.isEmpty()) {
            model.addAttribute("fast", FastView.of(Figures.of(model), fits.curve(shares)));
        }
        return "pool :: fast";
    }

    private static List<String> shares(Estate estate, String pool) {
        return estate.volumesOn(pool)
                .flatMap(v -> estate.sharesOn(v.name()))
                .map(Share::name)
                .toList();
    }
}
