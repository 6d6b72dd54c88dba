package org.vastshelf.app.build;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.ModelAttribute;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.vastshelf.app.clock.ShelfClock;
import org.vastshelf.app.foresee.Forecasts;
import org.vastshelf.app.kit.Field;
import org.vastshelf.app.kit.Figures;
import org.vastshelf.app.kit.NotFound;
import org.vastshelf.app.kit.Page;
import org.vastshelf.app.kit.Typed;
import org.vastshelf.app.orders.OrderService;
import org.vastshelf.app.security.Someone;
import org.vastshelf.app.store.EstateStore;
import org.vastshelf.app.store.HistoryStore;
import org.vastshelf.app.store.UsageStore;
import org.vastshelf.core.change.Outlook;
import org.vastshelf.core.change.PoolChange;
import org.vastshelf.core.change.Replacements;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.Pool;
import org.vastshelf.core.layout.Replacement;
import org.vastshelf.core.ledger.Ledgers;

/** Larger drives in place of smaller ones, one at a time, with what the pool has after each. */
@Page
class ReplaceController {

    private final EstateStore estates;
    private final UsageStore usage;
    private final Forecasts forecasts;
    private final OrderService orders;
    private final ShelfClock clock;

    ReplaceController(
            EstateStore estates, UsageStore usage, Forecasts forecasts, OrderService orders, ShelfClock clock) {
        this.estates = estates;
        this.usage = usage;
        this.forecasts = forecasts;
        this.orders = orders;
        this.clock = clock;
    }

    /** What was chosen: members that go and drives that come, paired in the order of their size. */
    record Choice(List<String> old, List<String> next, Boolean takeSpace, Boolean chosen) {
        Choice {
            old = old == null ? List.of() : List.copyOf(old);
            next = next == null ? List.of() : List.copyOf(next);
            takeSpace = chosen == null || Boolean.TRUE.equals(takeSpace);
        }
    }

    /** What is chosen from. */
    record View(String pool, String action, DrivePick old, DrivePick next, Field takeSpace) {}

    @GetMapping("/build/pools/{name}/replace")
    String replace(@PathVariable String name, @ModelAttribute Choice choice, Model model) {
        return show(name, choice, model);
    }

    @PostMapping("/build/pools/{name}/replace/preview")
    String preview(@PathVariable String name, @ModelAttribute Choice choice, Model model) {
        show(name, choice, model);
        return "replace :: consequence";
    }

    @PostMapping("/build/pools/{name}/replace")
    String add(
            @AuthenticationPrincipal Someone me,
            @PathVariable String name,
            @ModelAttribute Choice choice,
            Model model) {
        try {
            orders.add(me.getName(), change(name, choice));
            return "redirect:/build/pools/" + name;
        } catch (IllegalArgumentException refused) {
            Typed.refuse(model, refused);
            return show(name, choice, model);
        }
    }

    private PoolChange.ReplaceDrives change(String name, Choice choice) {
        if (choice.old.isEmpty() || choice.old.size() != choice.next.size()) {
            throw new IllegalArgumentException(choice.old.size() + " members and " + choice.next.size()
                    + " new drives are chosen, must be equally many and at least 1");
        }
        Estate estate = estates.load();
        List<String> old = bySize(estate, choice.old);
        List<String> next = bySize(estate, choice.next);
        List<PoolChange.Swap> swaps = new ArrayList<>();
        for (int i = 0; i < old.size(); i++) {
            swaps.add(new PoolChange.Swap(old.get(i), next.get(i)));
        }
        return new PoolChange.ReplaceDrives(name, swaps, choice.takeSpace);
    }

    private static List<String> bySize(Estate estate, List<String> keys) {
        return keys.stream()
                .filter(estate.drives()::containsKey)
                .sorted(Comparator.comparing(
                                (String k) -> estate.drives().get(k).label())
                        .thenComparing(Comparator.naturalOrder()))
                .toList();
    }

    private String show(String name, Choice choice, Model model) {
        Estate estate = estates.load();
        Pool pool = Optional.ofNullable(estate.pools().get(name)).orElseThrow(() -> new NotFound("pool", name));
        Figures fmt = Figures.of(model);
        String action = "/build/pools/" + name + "/replace";
        model.addAttribute(
                "page",
                new View(
                        name,
                        action,
                        DrivePick.of(fmt, "old", "Members that go", PoolController.members(estate, pool), choice.old),
                        DrivePick.of(
                                fmt,
                                "next",
                                "Unclaimed drives that come",
                                BuildController.unclaimed(estate, pool.server()),
                                choice.next),
                        Typed.of(model)
                                .at(action)
                                .tick("takeSpace", "The pool takes the new space at the end", choice.takeSpace)));
        if (choice.old.isEmpty() && choice.next.isEmpty()) {
            model.addAttribute("previewQuiet", "Choose as many new drives as members.");
            return "replace";
        }
        try {
            List<Replacement.Stage> stages = Replacements.stages(estate, usage.load(), change(name, choice));
            Optional<LocalDate> full = forecasts
                    .of(HistoryStore.POOL, name)
                    .flatMap(space -> space.forecast().likely());
            model.addAttribute(
                    "stages",
                    ReplaceView.of(
                            fmt,
                            stages,
                            Ledgers.data(estate, pool),
                            choice.takeSpace,
                            full,
                            Outlook.endOf(stages, clock.today())));
        } catch (IllegalArgumentException refused) {
            model.addAttribute("previewProblem", refused.getMessage());
        }
        return "replace";
    }
}
