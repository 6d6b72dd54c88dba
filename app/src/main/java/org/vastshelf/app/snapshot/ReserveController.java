package org.vastshelf.app.snapshot;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.function.Function;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.vastshelf.app.clock.ShelfClock;
import org.vastshelf.app.kit.AtField;
import org.vastshelf.app.kit.Figures;
import org.vastshelf.app.kit.NotFound;
import org.vastshelf.app.kit.Page;
import org.vastshelf.app.kit.Typed;
import org.vastshelf.app.orders.OrderService;
import org.vastshelf.app.security.Someone;
import org.vastshelf.app.store.EstateStore;
import org.vastshelf.core.change.RuleChange;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.Kind;
import org.vastshelf.core.estate.Kinds;
import org.vastshelf.core.estate.PoolReserveRule;
import org.vastshelf.core.estate.ReserveRule;
import org.vastshelf.core.estate.ReserveRule.Full;
import org.vastshelf.core.estate.Rule;
import org.vastshelf.core.snapshot.ReserveAdvice;
import org.vastshelf.core.unit.Bytes;
import org.vastshelf.core.unit.Counted;
import org.vastshelf.core.unit.SizeText;

/** How much room snapshots of a volume or of a pool need, and how much is kept for them. */
@Page
class ReserveController {

    private final SnapshotReserves reserves;
    private final EstateStore estates;
    private final OrderService orders;
    private final ShelfClock clock;

    ReserveController(SnapshotReserves reserves, EstateStore estates, OrderService orders, ShelfClock clock) {
        this.reserves = reserves;
        this.estates = estates;
        this.orders = orders;
        this.clock = clock;
    }

    /** What is kept, as a rule says it. */
    private record Kept(Bytes bytes, Full full, int days) {}

    /**
     * Of what room is kept.
     *
     * @param volumes whose snapshots it is for
     */
    private record Subject(String word, String name, String address, List<String> volumes, Optional<Kept> kept) {}

    private Subject ofVolume(String name) {
        Estate estate = estates.load();
        if (!estate.volumes().containsKey(name)) {
            throw new NotFound("volume", name);
        }
        return new Subject(
                "volume",
                name,
                "/protect/volumes/" + name,
                List.of(name),
                estate.find(Kinds.RESERVE, name).map(r -> new Kept(r.bytes(), r.full(), reserves.daysUntilFull(r))));
    }

    private Subject ofPool(String name) {
        Estate estate = estates.load();
        if (!estate.pools().containsKey(name)) {
            throw new NotFound("pool", name);
        }
        return new Subject(
                "pool",
                name,
                "/protect/pools/" + name,
                reserves.thinOn(name),
                estate.find(Kinds.POOL_RESERVE, name)
                        .map(r -> new Kept(r.bytes(), r.full(), reserves.daysUntilFull(r))));
    }

    @GetMapping("/protect/volumes/{volume}/reserve")
    String ofVolume(@AuthenticationPrincipal Someone me, @PathVariable String volume, Model model) {
        return show(me, ofVolume(volume), model);
    }

    @GetMapping("/protect/pools/{pool}/reserve")
    String ofPool(@AuthenticationPrincipal Someone me, @PathVariable String pool, Model model) {
        return show(me, ofPool(pool), model);
    }

    private String show(Someone me, Subject subject, Model model) {
        Figures fmt = Figures.of(model);
        Optional<Kept> kept = subject.kept;
        model.addAttribute("word", subject.word);
        model.addAttribute("name", subject.name);
        model.addAttribute("ofVolume", subject.word.equals("volume"));
        model.addAttribute(
                "pool",
                subject.word.equals("volume")
                        ? estates.load().volumes().get(subject.name).pool()
                        : subject.name);
        model.addAttribute("held", fmt.size(Bytes.of(reserves.heldBytes(subject.volumes))));
        model.addAttribute(
                "stands",
                kept.map(r -> fmt.size(r.bytes) + ", and when that is full: " + r.full.title())
                        .orElse("none"));
        model.addAttribute("advice", advice(fmt, subject));
        model.addAttribute("overflow", kept.map(r -> overflow(r.days)).orElse(""));
        Typed.Fields fields = Typed.of(model).at(subject.address + "/reserve");
        model.addAttribute("composes", me.isAdministrator());
        model.addAttribute("set", kept.isPresent());
        model.addAttribute("action", fields.action());
        model.addAttribute(
                "fields",
                List.of(
                        fields.text(
                                        "bytes",
                                        "Reserve",
                                        kept.map(r -> SizeText.exact(r.bytes)).orElse(""))
                                .with("placeholder", "400 GiB")
                                .width("w-44"),
                        fields.select(
                                        "full",
                                        "When it is full",
                                        Arrays.asList(Full.values()),
                                        Full::name,
                                        Full::title,
                                        kept.map(Kept::full).orElse(Full.DELETE_OLDEST))
                                .width("w-72")));
        return "reserve";
    }

    /** What is advised, line by line. */
    private List<String> advice(Figures fmt, Subject subject) {
        int kept = reserves.keptDays(subject.volumes);
        List<Long> died = reserves.died(subject.volumes);
        if (kept == 0) {
            return List.of("There is no schedule that says how long snapshots are kept.");
        }
        if (died.size() < ReserveAdvice.LEAST_DAYS) {
            return List.of("Only " + fmt.counted(died.size(), "day") + " were measured; " + ReserveAdvice.LEAST_DAYS
                    + " are needed.");
        }
        ReserveAdvice advice = ReserveAdvice.of(died, kept);
        String drawn = "Snapshots are kept for " + fmt.counted(kept, "day") + ". From what died on "
                + fmt.counted(died.size(), "day") + ": " + fmt.size(Bytes.of(advice.suffices(0.5)))
                + " suffice with a chance of 50 %, "
                + fmt.size(Bytes.of(advice.suffices(0.9))) + " of 90 %, " + fmt.size(Bytes.of(advice.suffices(0.99)))
                + " of 99 %.";
        return subject.kept
                .map(r -> List.of(
                        drawn,
                        String.format(
                                Locale.ROOT,
                                "What is reserved suffices with a chance of %.0f %%.",
                                100 * advice.chance(r.bytes.value()))))
                .orElse(List.of(drawn));
    }

    private static String overflow(int days) {
        return switch (days) {
            case -1 -> "It is not expected to be full.";
            case 0 -> "It is full.";
            default -> "It is likely full in " + Counted.of(days, "day") + ".";
        };
    }

    /** A reserve in a list. */
    record Row(String word, String name, String href, String bytes, String full, String day) {}

    /** All reserves, with the days on which they are likely full, for a page about fill dates. */
    @GetMapping("/protect/reserves")
    String all(Model model) {
        Figures fmt = Figures.of(model);
        Estate estate = estates.load();
        List<Subject> subjects = new ArrayList<>();
        estate.all(Kinds.RESERVE).keySet().forEach(name -> subjects.add(ofVolume(name)));
        estate.all(Kinds.POOL_RESERVE).keySet().forEach(name -> subjects.add(ofPool(name)));
        model.addAttribute(
                "reserves",
                subjects.stream()
                        .flatMap(subject -> subject.kept.stream().map(kept -> row(fmt, subject, kept)))
                        .toList());
        return "reserve :: overflows";
    }

    private Row row(Figures fmt, Subject subject, Kept kept) {
        LocalDate today = clock.today();
        return new Row(
                subject.word,
                subject.name,
                subject.address + "/reserve",
                fmt.size(kept.bytes),
                kept.full.title(),
                switch (kept.days) {
                    case -1 -> "not as things go";
                    case 0 -> "now";
                    default -> fmt.day(today.plusDays(kept.days));
                });
    }

    @PostMapping("/protect/volumes/{volume}/reserve")
    String setOfVolume(
            @AuthenticationPrincipal Someone me,
            @PathVariable String volume,
            @RequestParam(defaultValue = "") String bytes,
            @RequestParam Full full,
            Model model) {
        return set(me, ofVolume(volume), bytes, size -> new ReserveRule(volume, size, full), model);
    }

    @PostMapping("/protect/pools/{pool}/reserve")
    String setOfPool(
            @AuthenticationPrincipal Someone me,
            @PathVariable String pool,
            @RequestParam(defaultValue = "") String bytes,
            @RequestParam Full full,
            Model model) {
        return set(me, ofPool(pool), bytes, size -> new PoolReserveRule(pool, size, full), model);
    }

    private String set(Someone me, Subject subject, String bytes, Function<Bytes, Rule> rule, Model model) {
        try {
            Bytes size = AtField.read(
                    "bytes", () -> SizeText.parse("reserve", bytes, Bytes.of(Bytes.MIB), Bytes.tib(1_024)));
            orders.add(me.getName(), new RuleChange.SetRule(rule.apply(size)));
            return "redirect:" + subject.address + "/reserve";
        } catch (IllegalArgumentException refused) {
            Typed.refuse(model, refused);
            return show(me, subject, model);
        }
    }

    @PostMapping("/protect/volumes/{volume}/reserve/drop")
    String dropOfVolume(@AuthenticationPrincipal Someone me, @PathVariable String volume) {
        return drop(me, Kinds.RESERVE, ofVolume(volume));
    }

    @PostMapping("/protect/pools/{pool}/reserve/drop")
    String dropOfPool(@AuthenticationPrincipal Someone me, @PathVariable String pool) {
        return drop(me, Kinds.POOL_RESERVE, ofPool(pool));
    }

    private String drop(Someone me, Kind<?> kind, Subject subject) {
        orders.add(me.getName(), new RuleChange.DropRule(kind.name(), subject.name));
        return "redirect:" + subject.address + "/reserve";
    }
}
