package org.vastshelf.app.tier;

import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.ModelAttribute;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.vastshelf.app.kit.Figures;
import org.vastshelf.app.kit.NotFound;
import org.vastshelf.app.kit.Page;
import org.vastshelf.app.kit.Typed;
import org.vastshelf.app.orders.OrderService;
import org.vastshelf.app.rule.ScheduleForm;
import org.vastshelf.app.security.Someone;
import org.vastshelf.app.store.EstateStore;
import org.vastshelf.core.change.ColdChange;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.Kinds;
import org.vastshelf.core.estate.TieringRule;
import org.vastshelf.core.tier.FirstRule;

/** Rules by which files leave, and their runs. */
@Page
class RulesController {

    private static final String HERE = "/lighten/rules";

    private final EstateStore estates;
    private final TierRuns runs;
    private final OrderService orders;

    RulesController(EstateStore estates, TierRuns runs, OrderService orders) {
        this.estates = estates;
        this.runs = runs;
        this.orders = orders;
    }

    @GetMapping(HERE)
    String list(@AuthenticationPrincipal Someone me, Model model) {
        Figures fmt = Figures.of(model);
        Estate estate = estates.load();
        Map<String, TierRun> latest = runs.latest();
        model.addAttribute(
                "rules",
                estate.all(Kinds.TIERING).values().stream()
                        .sorted(Comparator.comparingInt(TieringRule::rank))
                        .map(rule -> RuleView.row(fmt, rule, Optional.ofNullable(latest.get(rule.name()))))
                        .toList());
        model.addAttribute(
                "overlaps",
                FirstRule.overlaps(estate).stream().map(RuleView::overlap).toList());
        model.addAttribute("designs", me.isAdministrator() && !stores().isEmpty());
        model.addAttribute("storeless", stores().isEmpty());
        if (me.isAdministrator() && !stores().isEmpty()) {
            form(model, HERE, Optional.empty());
        }
        return "tiering-rules";
    }

    private List<String> stores() {
        return List.copyOf(estates.load().all(Kinds.COLD_STORE).keySet());
    }

    private void form(Model model, String action, Optional<TieringRule> rule) {
        int next = estates.load().all(Kinds.TIERING).values().stream()
                        .mapToInt(TieringRule::rank)
                        .max()
                        .orElse(0)
                + 1;
        model.addAttribute("action", action);
        model.addAttribute("parts", RuleTyping.parts(Typed.of(model).at(action), rule, stores(), next));
    }

    @GetMapping(HERE + "/{name}")
    String one(@AuthenticationPrincipal Someone me, @PathVariable String name, Model model) {
        Figures fmt = Figures.of(model);
        TieringRule rule = rule(name);
        show(me, fmt, rule, model);
        model.addAttribute("designs", me.isAdministrator());
        if (me.isAdministrator()) {
            form(model, HERE + "/" + name, Optional.of(rule));
        }
        return "tiering-rule";
    }

    /** The runs alone, while one is under way. */
    @GetMapping(HERE + "/{name}/runs")
    String runs(@AuthenticationPrincipal Someone me, @PathVariable String name, Model model) {
        show(me, Figures.of(model), rule(name), model);
        return "tiering-rule :: runs";
    }

    private void show(Someone me, Figures fmt, TieringRule rule, Model model) {
        List<TierRun> all = runs.of(rule.name());
        boolean running = all.stream().anyMatch(run -> run.state() == TierRun.State.RUNNING);
        model.addAttribute("name", rule.name());
        model.addAttribute("facts", RuleView.facts(fmt, rule));
        model.addAttribute("previews", RuleView.previews(rule));
        model.addAttribute(
                "runs", all.stream().map(run -> RuleView.run(fmt, run)).toList());
        model.addAttribute("acts", me.mayRun());
        model.addAttribute("begins", me.mayRun() && !running);
        model.addAttribute("poll", running ? "every 1s" : "never");
    }

    private TieringRule rule(String name) {
        return estates.load().find(Kinds.TIERING, name).orElseThrow(() -> new NotFound("tiering rule", name));
    }

    @PostMapping(HERE)
    String make(
            @AuthenticationPrincipal Someone me,
            @ModelAttribute RuleTyping typing,
            @ModelAttribute ScheduleForm when,
            Model model) {
        try {
            String name = typing.name() == null ? "" : typing.name().strip();
            orders.add(me.getName(), new ColdChange.SetTiering(typing.rule(name, when)));
            return "redirect:" + HERE;
        } catch (IllegalArgumentException refused) {
            Typed.refuse(model, refused);
            return list(me, model);
        }
    }

    @PostMapping(HERE + "/{name}")
    String change(
            @AuthenticationPrincipal Someone me,
            @PathVariable String name,
            @ModelAttribute RuleTyping typing,
            @ModelAttribute ScheduleForm when,
            Model model) {
        rule(name);
        try {
            orders.add(me.getName(), new ColdChange.SetTiering(typing.rule(name, when)));
            return "redirect:" + HERE + "/" + name;
        } catch (IllegalArgumentException refused) {
            Typed.refuse(model, refused);
            return one(me, name, model);
        }
    }

    @PostMapping(HERE + "/{name}/drop")
    String drop(@AuthenticationPrincipal Someone me, @PathVariable String name) {
        orders.add(me.getName(), new ColdChange.DropTiering(name));
        return "redirect:" + HERE + "/" + name;
    }

    @PostMapping(HERE + "/{name}/run")
    String run(@AuthenticationPrincipal Someone me, @PathVariable String name, Model model) {
        try {
            runs.run(name, me.getName());
            return "redirect:" + HERE + "/" + name;
        } catch (IllegalArgumentException underWay) {
            Typed.refuse(model, underWay);
            return one(me, name, model);
        }
    }

    @PostMapping(HERE + "/{name}/runs/{id}/stop")
    String stop(@AuthenticationPrincipal Someone me, @PathVariable String name, @PathVariable long id) {
        runs.stop(name, id, me.getName());
        return "redirect:" + HERE + "/" + name;
    }
}
