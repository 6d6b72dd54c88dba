package org.vastshelf.app.spare;

import jakarta.servlet.http.HttpServletRequest;
import java.math.BigDecimal;
import java.time.LocalDate;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.NavigableMap;
import java.util.Optional;
import java.util.Set;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.vastshelf.app.clock.ShelfClock;
import org.vastshelf.app.config.Settings;
import org.vastshelf.app.kit.Figures;
import org.vastshelf.app.kit.Listing;
import org.vastshelf.app.kit.NotFound;
import org.vastshelf.app.kit.Page;
import org.vastshelf.app.orders.OrderService;
import org.vastshelf.app.security.Someone;
import org.vastshelf.app.spare.Spares.Spare;
import org.vastshelf.app.store.EstateStore;
import org.vastshelf.core.catalogue.AgeBasis;
import org.vastshelf.core.change.ColdChange;
import org.vastshelf.core.change.RuleChange;
import org.vastshelf.core.estate.ColdStore;
import org.vastshelf.core.estate.ComeBack;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.FilePath;
import org.vastshelf.core.estate.Kinds;
import org.vastshelf.core.estate.Names;
import org.vastshelf.core.estate.SavingRule;
import org.vastshelf.core.estate.Share;
import org.vastshelf.core.estate.SharePlace;
import org.vastshelf.core.estate.TieringRule;
import org.vastshelf.core.spare.Ages;
import org.vastshelf.core.spare.ShareCost;

/** What could be spared of each share and folder, and what that is worth. */
@Page
class SpareController {

    private static final String HERE = "/lighten";
    private static final int SHOWN = 5;
    private static final int KEPT_DAYS = 30;

    private final Spares spares;
    private final EstateStore estates;
    private final OrderService orders;
    private final ShelfClock clock;
    private final String currency;

    SpareController(Spares spares, EstateStore estates, OrderService orders, ShelfClock clock, Settings settings) {
        this.spares = spares;
        this.estates = estates;
        this.orders = orders;
        this.clock = clock;
        this.currency = settings.currency();
    }

    @GetMapping(HERE)
    String list(@AuthenticationPrincipal Someone me, HttpServletRequest request, Model model) {
        Figures fmt = Figures.of(model);
        SpareView view = new SpareView(fmt, currency);
        List<Spare> all = spares.all();
        Map<String, Share> shares = estates.load().shares();
        List<ShareCost> costs =
                all.stream().flatMap(spare -> spare.cost().stream()).toList();
        model.addAttribute(
                "catalogues",
                Listing.of(
                                request,
                                all,
                                spare -> spare.catalogue().name(),
                                new Listing.Column<>(
                                        "name",
                                        Comparator.comparing(
                                                spare -> spare.catalogue().name())),
                                new Listing.Column<>(
                                        "bytes",
                                        Comparator.comparing(
                                                spare -> spare.catalogue().bytes())),
                                new Listing.Column<>("equal", Comparator.comparing(SpareController::equal)),
                                new Listing.Column<>("unused", Comparator.comparing(SpareController::unused)),
                                new Listing.Column<>("now", Comparator.comparing(SpareController::now)))
                        .map(spare -> view.row(
                                spare,
                                Optional.ofNullable(shares.get(spare.catalogue().name())))));
        model.addAttribute(
                "advice",
                ShareCost.ordered(costs.stream().flatMap(cost -> cost.measures().stream())).stream()
                        .limit(SHOWN)
                        .map(view::advice)
                        .toList());
        model.addAttribute("less", currency + " a month less");
        model.addAttribute("monthly", currency + " a month");
        model.addAttribute("whole", view.whole(costs).orElse(""));
        model.addAttribute("designs", me.isAdministrator());
        NavigableMap<LocalDate, Ages> months = spares.months();
        model.addAttribute("ages", AgePicture.of(fmt, months, clock.today()));
        model.addAttribute("agesOf", months.isEmpty() ? "" : fmt.day(months.lastKey()));
        return "lighten";
    }

    private static long equal(Spare spare) {
        return spare.saved()
                .orElseGet(
                        () -> spare.run().map(run -> run.savings().savedBytes()).orElse(-1L));
    }

    private static long unused(Spare spare) {
        return spare.cost()
                .map(cost -> cost.ages().unused(SpareView.YEAR).all().bytes())
                .orElse(-1L);
    }

    private static BigDecimal now(Spare spare) {
        return spare.cost().flatMap(ShareCost::monthly).orElse(BigDecimal.ONE.negate());
    }

    /** Drafts that the volume of a share keeps equal parts once. */
    @PostMapping(HERE + "/measures/{name}/once")
    String once(@AuthenticationPrincipal Someone me, @PathVariable String name) {
        orders.add(
                me.getName(),
                new RuleChange.SetRule(SavingRule.usual(share(name).volume())));
        return "redirect:" + HERE;
    }

    /** Drafts that what nobody used for so many days leaves a share. */
    @PostMapping(HERE + "/measures/{name}/away")
    String away(@AuthenticationPrincipal Someone me, @PathVariable String name, @RequestParam int days) {
        Estate estate = estates.load();
        ColdStore store = Spares.store(estate).orElseThrow(() -> new NotFound("cold store", "any"));
        share(name);
        orders.add(me.getName(), new ColdChange.SetTiering(leaving(estate, store, name, days)));
        return "redirect:" + HERE;
    }

    private static TieringRule leaving(Estate estate, ColdStore store, String share, int days) {
        int rank = 1
                + estate.all(Kinds.TIERING).values().stream()
                        .mapToInt(TieringRule::rank)
                        .max()
                        .orElse(0);
        return new TieringRule(
                free(estate, stem(share) + "-unused"),
                rank,
                store.name(),
                List.of(new SharePlace(share, FilePath.ROOT)),
                AgeBasis.LAST_USE,
                days,
                0,
                Set.of(),
                List.of(),
                List.of(),
                Optional.empty(),
                ComeBack.onWrite(),
                Optional.of(SavingRule.usual(share).when()),
                0,
                0,
                0,
                KEPT_DAYS);
    }

    /** So much of the name of a share that what comes behind it still fits. */
    private static String stem(String share) {
        return share.substring(0, Math.min(share.length(), Names.LONGEST - "-unused-999".length()));
    }

    private static String free(Estate estate, String name) {
        String free = name;
        for (int apart = 2; estate.all(Kinds.TIERING).containsKey(free); apart++) {
            free = name + "-" + apart;
        }
        return free;
    }

    private Share share(String name) {
        return Optional.ofNullable(estates.load().shares().get(name)).orElseThrow(() -> new NotFound("share", name));
    }
}
