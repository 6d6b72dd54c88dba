package org.vastshelf.app.snapshot;

import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.vastshelf.app.kit.AtField;
import org.vastshelf.app.kit.Figures;
import org.vastshelf.app.kit.Page;
import org.vastshelf.app.kit.Typed;
import org.vastshelf.app.orders.OrderService;
import org.vastshelf.app.security.Someone;
import org.vastshelf.app.store.EstateStore;
import org.vastshelf.core.change.RuleChange;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.Kinds;
import org.vastshelf.core.estate.ReserveRule;
import org.vastshelf.core.estate.ReserveRule.Full;
import org.vastshelf.core.estate.SnapshotRule;
import org.vastshelf.core.snapshot.ReserveAdvice;
import org.vastshelf.core.unit.Bytes;
import org.vastshelf.core.unit.SizeText;

/** How much room snapshots of a volume need, and how much is kept for them. */
@Page
class ReserveController {

    private final Snapshots snapshots;
    private final EstateStore estates;
    private final OrderService orders;

    ReserveController(Snapshots snapshots, EstateStore estates, OrderService orders) {
        this.snapshots = snapshots;
        this.estates = estates;
        this.orders = orders;
    }

    @GetMapping("/protect/volumes/{volume}/reserve")
    String reserve(@AuthenticationPrincipal Someone me, @PathVariable String volume, Model model) {
        Figures fmt = Figures.of(model);
        Estate estate = estates.load();
        Snapshots.Shelf shelf = snapshots.of(volume);
        Optional<ReserveRule> rule = estate.find(Kinds.RESERVE, volume);
        List<Long> died = snapshots.died(volume);
        int kept = estate.find(Kinds.SNAPSHOTTING, volume)
                .map(SnapshotRule::keep)
                .map(keep -> keep.days())
                .orElse(0);
        model.addAttribute("volume", volume);
        model.addAttribute("held", fmt.size(Bytes.of(shelf.held().held())));
        model.addAttribute(
                "stands",
                rule.map(r -> fmt.size(r.bytes()) + ", and when that is full: "
                                + r.full().title())
                        .orElse("none"));
        model.addAttribute("advice", advice(fmt, died, kept, rule));
        model.addAttribute("overflow", overflow(rule));
        Typed.Fields fields = Typed.of(model).at("/protect/volumes/" + volume + "/reserve");
        model.addAttribute("composes", me.isAdministrator());
        model.addAttribute("set", rule.isPresent());
        model.addAttribute("action", fields.action());
        model.addAttribute(
                "fields",
                List.of(
                        fields.text(
                                        "bytes",
                                        "Reserve",
                                        rule.map(r -> fmt.size(r.bytes())).orElse(""))
                                .with("placeholder", "400 GiB")
                                .width("w-44"),
                        fields.select(
                                        "full",
                                        "When it is full",
                                        Arrays.asList(Full.values()),
                                        Full::name,
                                        Full::title,
                                        rule.map(ReserveRule::full).orElse(Full.DELETE_OLDEST))
                                .width("w-72")));
        return "reserve";
    }

    /** What is advised, line by line. */
    private static List<String> advice(Figures fmt, List<Long> died, int kept, Optional<ReserveRule> rule) {
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
        return rule.map(r -> List.of(
                        drawn,
                        String.format(
                                Locale.ROOT,
                                "What is reserved suffices with a chance of %.0f %%.",
                                100 * advice.chance(r.bytes().value()))))
                .orElse(List.of(drawn));
    }

    private String overflow(Optional<ReserveRule> rule) {
        return rule.map(snapshots::daysUntilFull)
                .map(days -> switch (days) {
                    case -1 -> "It is not expected to be full.";
                    case 0 -> "It is full.";
                    default -> "It is likely full in " + days + " days.";
                })
                .orElse("");
    }

    @PostMapping("/protect/volumes/{volume}/reserve")
    String set(
            @AuthenticationPrincipal Someone me,
            @PathVariable String volume,
            @RequestParam(defaultValue = "") String bytes,
            @RequestParam Full full,
            Model model) {
        try {
            Bytes size = AtField.read(
                    "bytes", () -> SizeText.parse("reserve", bytes, Bytes.of(Bytes.MIB), Bytes.tib(1_024)));
            orders.add(me.getName(), new RuleChange.SetRule(new ReserveRule(volume, size, full)));
            return "redirect:/protect/volumes/" + volume + "/reserve";
        } catch (IllegalArgumentException refused) {
            Typed.refuse(model, refused);
            return reserve(me, volume, model);
        }
    }

    @PostMapping("/protect/volumes/{volume}/reserve/drop")
    String drop(@AuthenticationPrincipal Someone me, @PathVariable String volume) {
        orders.add(me.getName(), new RuleChange.DropRule(Kinds.RESERVE.name(), volume));
        return "redirect:/protect/volumes/" + volume + "/reserve";
    }
}
