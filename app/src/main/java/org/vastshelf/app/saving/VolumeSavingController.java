package org.vastshelf.app.saving;

import java.util.ArrayList;
import java.util.List;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.ModelAttribute;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.vastshelf.app.kit.Figures;
import org.vastshelf.app.kit.Mark;
import org.vastshelf.app.kit.Page;
import org.vastshelf.app.kit.Typed;
import org.vastshelf.app.orders.OrderService;
import org.vastshelf.app.rule.ScheduleForm;
import org.vastshelf.app.security.Someone;
import org.vastshelf.app.store.EstateStore;
import org.vastshelf.app.store.UsageStore;
import org.vastshelf.core.change.RuleChange;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.Kinds;
import org.vastshelf.core.estate.Usage;
import org.vastshelf.core.estate.Volume;
import org.vastshelf.core.ledger.Ledgers;
import org.vastshelf.core.time.ScheduleWords;
import org.vastshelf.core.unit.Bytes;

/** What a volume saves by keeping equal units once and packing them, and by which rule. */
@Page
class VolumeSavingController {

    private static final String HERE = "/lighten/volumes/";

    private final CommonRuns runs;
    private final EstateStore estates;
    private final UsageStore usage;
    private final OrderService orders;
    private final SavingService measured;

    VolumeSavingController(
            CommonRuns runs, EstateStore estates, UsageStore usage, OrderService orders, SavingService measured) {
        this.measured = measured;
        this.runs = runs;
        this.estates = estates;
        this.usage = usage;
        this.orders = orders;
    }

    /** Something that is said of a volume. */
    public record Fact(String title, String said) {}

    /**
     * What leaving out files of a share costs.
     *
     * @param sorts by kind and folder; none where it was not measured
     */
    public record LeftOut(String share, List<FoundView.Sort> sorts) {}

    /** A run in the list. */
    public record Run(
            String begun, Mark state, String files, String bytes, String saved, String problem, boolean running) {}

    @GetMapping(HERE + "{volume}")
    String one(@AuthenticationPrincipal Someone me, @PathVariable String volume, Model model) {
        CommonRuns.Saving saving = runs.of(volume);
        show(me, saving, model);
        model.addAttribute("designs", me.isAdministrator());
        if (me.isAdministrator()) {
            model.addAttribute("action", HERE + volume);
            FoundView view = new FoundView(Figures.of(model));
            model.addAttribute(
                    "leftOut",
                    estates.load().shares().values().stream()
                            .filter(share -> share.volume().equals(volume))
                            .map(share -> new LeftOut(
                                    share.name(),
                                    measured.latestOf(share.name())
                                            .map(run -> view.sorts(measured.found(run), run))
                                            .orElse(List.of())))
                            .toList());
            model.addAttribute("parts", SavingTyping.parts(Typed.of(model).at(HERE + volume), volume, saving.rule()));
        }
        return "volume-saving";
    }

    /** Figures and runs alone, while one is under way. */
    @GetMapping(HERE + "{volume}/runs")
    String runs(@AuthenticationPrincipal Someone me, @PathVariable String volume, Model model) {
        show(me, runs.of(volume), model);
        return "volume-saving :: runs";
    }

    private void show(Someone me, CommonRuns.Saving saving, Model model) {
        Figures fmt = Figures.of(model);
        boolean running = saving.runs().stream().anyMatch(run -> run.state() == CommonRun.State.RUNNING);
        model.addAttribute("volume", saving.volume());
        model.addAttribute("facts", facts(fmt, saving));
        model.addAttribute(
                "runs", saving.runs().stream().map(run -> run(fmt, run)).toList());
        model.addAttribute("ruled", saving.rule().isPresent());
        model.addAttribute("acts", me.mayRun());
        model.addAttribute("begins", me.mayRun() && saving.rule().isPresent() && !running);
        model.addAttribute("poll", running ? "every 2s" : "never");
    }

    private List<Fact> facts(Figures fmt, CommonRuns.Saving saving) {
        Estate estate = estates.load();
        Usage held = usage.load();
        Volume volume = estate.volumes().get(saving.volume());
        List<Fact> facts = new ArrayList<>();
        Bytes saved = Bytes.of(saving.savedBytes());
        facts.add(new Fact("Saved", fmt.size(saved)));
        facts.add(new Fact(
                "by files that would take",
                fmt.size(Bytes.of(saving.wholeBytes())) + ", and take " + fmt.size(Bytes.of(saving.keptBytes()))));
        facts.add(new Fact("The volume takes", fmt.size(Ledgers.taken(held, volume))));
        Bytes free = Ledgers.freeFor(estate, held, volume);
        facts.add(new Fact("Its pool has free", fmt.size(free)));
        facts.add(new Fact("If nothing were saved", without(fmt, saved, free)));
        facts.add(new Fact(
                "By its rule",
                saving.rule()
                        .map(rule -> rule.aim().title() + ", " + ScheduleWords.of(rule.when()) + " for "
                                + fmt.counted(rule.hours(), "hour"))
                        .orElse("it has none; files are left as they are")));
        return facts;
    }

    private static String without(Figures fmt, Bytes saved, Bytes free) {
        return saved.compareTo(free) > 0
                ? "the pool would lack " + fmt.size(saved.minus(free))
                : "the pool would have " + fmt.size(free.minus(saved)) + " free";
    }

    private static Run run(Figures fmt, CommonRun run) {
        return new Run(
                fmt.moment(run.begun()),
                switch (run.state()) {
                    case RUNNING -> Mark.waiting(run.state().title());
                    case DONE -> Mark.fine(run.state().title());
                    case STOPPED -> Mark.watch(run.state().title());
                },
                fmt.count(run.files()),
                fmt.size(Bytes.of(run.bytes())),
                run.saved() < 0 ? "− " + fmt.size(Bytes.of(-run.saved())) : fmt.size(Bytes.of(run.saved())),
                run.problem(),
                run.state() == CommonRun.State.RUNNING);
    }

    @PostMapping(HERE + "{volume}")
    String change(
            @AuthenticationPrincipal Someone me,
            @PathVariable String volume,
            @ModelAttribute SavingTyping typing,
            @ModelAttribute ScheduleForm when,
            Model model) {
        runs.of(volume);
        try {
            orders.add(me.getName(), new RuleChange.SetRule(typing.rule(volume, when)));
            return "redirect:" + HERE + volume;
        } catch (IllegalArgumentException refused) {
            Typed.refuse(model, refused);
            return one(me, volume, model);
        }
    }

    @PostMapping(HERE + "{volume}/drop")
    String drop(@AuthenticationPrincipal Someone me, @PathVariable String volume) {
        orders.add(me.getName(), new RuleChange.DropRule(Kinds.SAVING.name(), volume));
        return "redirect:" + HERE + volume;
    }

    @PostMapping(HERE + "{volume}/begin")
    String begin(@AuthenticationPrincipal Someone me, @PathVariable String volume, Model model) {
        try {
            runs.begin(me.getName(), volume);
            return "redirect:" + HERE + volume;
        } catch (IllegalArgumentException refused) {
            Typed.refuse(model, refused);
            return one(me, volume, model);
        }
    }

    @PostMapping(HERE + "{volume}/stop")
    String stop(@AuthenticationPrincipal Someone me, @PathVariable String volume) {
        runs.stop(me.getName(), volume);
        return "redirect:" + HERE + volume;
    }
}
