package org.vastshelf.app.build;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.function.ToDoubleFunction;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.ModelAttribute;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.vastshelf.app.clock.ShelfClock;
import org.vastshelf.app.foresee.Forecasts;
import org.vastshelf.app.kit.NotFound;
import org.vastshelf.app.kit.Page;
import org.vastshelf.app.orders.OrderService;
import org.vastshelf.app.security.Someone;
import org.vastshelf.app.store.EstateStore;
import org.vastshelf.app.store.HistoryStore;
import org.vastshelf.app.store.UsageStore;
import org.vastshelf.core.change.Outlook;
import org.vastshelf.core.change.PoolChange;
import org.vastshelf.core.change.Replacements;
import org.vastshelf.core.estate.Drive;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.Pool;
import org.vastshelf.core.layout.Replacement;
import org.vastshelf.core.ledger.Ledgers;
import org.vastshelf.core.unit.Bytes;

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

    /** A stage with its bar. */
    record StageView(Replacement.Stage stage, int bar) {}

    @GetMapping("/build/pools/{name}/replace")
    String replace(@PathVariable String name, @ModelAttribute Choice choice, Model model) {
        return show(name, choice, "", model);
    }

    @PostMapping("/build/pools/{name}/replace/preview")
    String preview(@PathVariable String name, @ModelAttribute Choice choice, Model model) {
        show(name, choice, "", model);
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
            return show(name, choice, String.valueOf(refused.getMessage()), model);
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

    private String show(String name, Choice choice, String problem, Model model) {
        Estate estate = estates.load();
        Pool pool = Optional.ofNullable(estate.pools().get(name)).orElseThrow(() -> new NotFound("pool", name));
        List<Drive> free = BuildController.unclaimed(estate, pool.server());
        model.addAttribute("pool", pool);
        model.addAttribute("choice", choice);
        model.addAttribute("problem", problem);
        model.addAttribute("members", PoolController.members(estate, pool));
        model.addAttribute("free", free);
        if (choice.old.isEmpty() && choice.next.isEmpty()) {
            return "replace";
        }
        try {
            List<Replacement.Stage> stages = Replacements.stages(estate, usage.load(), change(name, choice));
            Bytes largest = stages.stream()
                    .map(Replacement.Stage::data)
                    .max(Bytes::compareTo)
                    .orElse(Bytes.ZERO);
            model.addAttribute(
                    "stages",
                    stages.stream()
                            .map(s -> new StageView(s, (int) Math.round(s.data().shareOf(largest) * 200)))
                            .toList());
            model.addAttribute("before", Ledgers.data(estate, pool));
            model.addAttribute(
                    "least",
                    stages.stream().mapToDouble(Replacement.Stage::leastHours).sum());
            double most =
                    stages.stream().mapToDouble(Replacement.Stage::mostHours).sum();
            model.addAttribute("most", most);
            LocalDate end = Outlook.endOf(stages, clock.today());
            forecasts
                    .of(HistoryStore.POOL, name)
                    .flatMap(space -> space.forecast().likely())
                    .ifPresent(day -> {
                        model.addAttribute("fullOn", day);
                        model.addAttribute("runsFull", !day.isAfter(end));
                    });
            model.addAttribute("staying", together(stages, Replacement.Stage::oddsStaying));
            model.addAttribute("pulled", together(stages, Replacement.Stage::oddsPulled));
        } catch (IllegalArgumentException refused) {
            model.addAttribute("previewProblem", refused.getMessage());
        }
        return "replace";
    }

    private static double together(List<Replacement.Stage> stages, ToDoubleFunction<Replacement.Stage> odds) {
        return -Math.expm1(stages.stream()
                .mapToDouble(s -> Math.log1p(-Math.min(odds.applyAsDouble(s), 1 - 1e-16)))
                .sum());
    }
}
