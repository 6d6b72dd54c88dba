package org.vastshelf.app.build;

import java.util.List;
import java.util.function.Supplier;
import org.jspecify.annotations.Nullable;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.ModelAttribute;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.vastshelf.app.kit.AtField;
import org.vastshelf.app.kit.Page;
import org.vastshelf.app.kit.Typed;
import org.vastshelf.app.kit.WholeNumbers;
import org.vastshelf.app.orders.OrderService;
import org.vastshelf.app.rule.ScheduleForm;
import org.vastshelf.app.security.Someone;
import org.vastshelf.app.store.EstateStore;
import org.vastshelf.core.change.Change;
import org.vastshelf.core.change.PoolChange;
import org.vastshelf.core.change.RuleChange;
import org.vastshelf.core.estate.Drive;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.Kinds;
import org.vastshelf.core.estate.LiftRule;
import org.vastshelf.core.estate.PaceClass;
import org.vastshelf.core.estate.Pool;
import org.vastshelf.core.estate.ScrubRule;
import org.vastshelf.core.layout.Layout;
import org.vastshelf.core.ledger.Ledgers;
import org.vastshelf.core.unit.Bytes;
import org.vastshelf.core.unit.SizeText;

/** One pool: where its bytes went, how it stands, and what can be changed while it runs. */
@Page
class PoolController {

    private final EstateStore estates;
    private final OrderService orders;
    private final PoolPage page;

    PoolController(EstateStore estates, OrderService orders, PoolPage page) {
        this.estates = estates;
        this.orders = orders;
        this.page = page;
    }

    @GetMapping("/build/pools/{name}")
    String pool(@PathVariable String name, Model model) {
        return page.show(name, model);
    }

    private String add(Someone me, String name, Supplier<Change> change, Model model) {
        try {
            orders.add(me.getName(), change.get());
            return "redirect:/build/pools/" + name;
        } catch (IllegalArgumentException refused) {
            Typed.refuse(model, refused);
            return page.show(name, model);
        }
    }

    private static List<String> given(@Nullable List<String> drives) {
        return drives == null ? List.of() : drives;
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
                () -> new PoolChange.AddGroup(name, given(drives), layout, fast, part.equals("cache")),
                model);
    }

    @PostMapping("/build/pools/{name}/drives")
    String drives(
            @AuthenticationPrincipal Someone me,
            @PathVariable String name,
            @RequestParam int group,
            @RequestParam(required = false) List<String> drives,
            Model model) {
        return add(me, name, () -> new PoolChange.AddDrives(name, group, given(drives)), model);
    }

    @PostMapping("/build/pools/{name}/remove-group")
    String removeGroup(
            @AuthenticationPrincipal Someone me, @PathVariable String name, @RequestParam int group, Model model) {
        return add(me, name, () -> new PoolChange.RemoveGroup(name, group), model);
    }

    @PostMapping("/build/pools/{name}/spares")
    String spares(
            @AuthenticationPrincipal Someone me,
            @PathVariable String name,
            @RequestParam(required = false) List<String> drives,
            Model model) {
        return add(me, name, () -> new PoolChange.AddSpares(name, given(drives)), model);
    }

    @PostMapping("/build/pools/{name}/release-spares")
    String releaseSpares(
            @AuthenticationPrincipal Someone me,
            @PathVariable String name,
            @RequestParam(required = false) List<String> drives,
            Model model) {
        return add(me, name, () -> new PoolChange.ReleaseSpares(name, given(drives)), model);
    }

    @PostMapping("/build/pools/{name}/reserve")
    String reserve(
            @AuthenticationPrincipal Someone me, @PathVariable String name, @RequestParam String size, Model model) {
        return add(
                me,
                name,
                () -> new PoolChange.SetPoolReserve(name, AtField.read("size", () -> share(name, size))),
                model);
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
                () -> new PoolChange.ReservePool(
                        name,
                        server,
                        AtField.read("size", () -> SizeText.parse("reservation", size, Bytes.tib(1), Bytes.tib(4_096))),
                        pace),
                model);
    }

    @PostMapping("/build/pools/{name}/take-space")
    String takeSpace(@AuthenticationPrincipal Someone me, @PathVariable String name, Model model) {
        return add(me, name, () -> new PoolChange.TakeSpace(name), model);
    }

    @GetMapping("/build/pools/{name}/fast-part")
    String fastPart(@PathVariable String name, Model model) {
        return page.fast(name, model);
    }

    @PostMapping("/build/pools/{name}/scrub")
    String scrub(
            @AuthenticationPrincipal Someone me,
            @PathVariable String name,
            @ModelAttribute ScheduleForm when,
            Model model) {
        return add(
                me,
                name,
                () -> when.schedule()
                        .<Change>map(schedule -> new RuleChange.SetRule(new ScrubRule(name, schedule)))
                        .orElseGet(() -> new RuleChange.DropRule(Kinds.SCRUBBING.name(), name)),
                model);
    }

    @PostMapping("/build/pools/{name}/lift")
    String lift(
            @AuthenticationPrincipal Someone me,
            @PathVariable String name,
            @ModelAttribute ScheduleForm when,
            @RequestParam String hours,
            @RequestParam String limit,
            Model model) {
        return add(
                me,
                name,
                () -> new RuleChange.SetRule(new LiftRule(
                        name,
                        when.schedule(),
                        AtField.read("hours", () -> WholeNumbers.whole("hours of a lift", hours)),
                        AtField.read("limit", () -> WholeNumbers.whole("limit of a lift", limit)))),
                model);
    }

    @PostMapping("/build/pools/{name}/dissolve")
    String dissolve(@AuthenticationPrincipal Someone me, @PathVariable String name, Model model) {
        return add(me, name, () -> new PoolChange.DissolvePool(name), model);
    }

    /** Members of a pool by key, for the page on which they are replaced. */
    static List<Drive> members(Estate estate, Pool pool) {
        return estate.drives(pool.members());
    }
}
