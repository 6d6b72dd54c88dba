package org.vastshelf.app.build;

import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.function.Supplier;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.ModelAttribute;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.vastshelf.app.kit.LedgerPicture;
import org.vastshelf.app.kit.NotFound;
import org.vastshelf.app.kit.Page;
import org.vastshelf.app.orders.OrderService;
import org.vastshelf.app.rule.ScheduleForm;
import org.vastshelf.app.security.Someone;
import org.vastshelf.app.store.EstateStore;
import org.vastshelf.app.store.GrowthStore;
import org.vastshelf.app.store.HistoryStore;
import org.vastshelf.app.store.UsageStore;
import org.vastshelf.core.change.Change;
import org.vastshelf.core.change.RuleChange;
import org.vastshelf.core.change.VolumeChange;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.FileServer;
import org.vastshelf.core.estate.GrowthRule;
import org.vastshelf.core.estate.Kinds;
import org.vastshelf.core.estate.Pace;
import org.vastshelf.core.estate.Pool;
import org.vastshelf.core.estate.Usage;
import org.vastshelf.core.estate.Volume;
import org.vastshelf.core.ledger.ByteLedger;
import org.vastshelf.core.ledger.Ledgers;
import org.vastshelf.core.unit.Bytes;
import org.vastshelf.core.unit.SizeText;
import org.vastshelf.core.volume.GrowthSimulation;
import org.vastshelf.core.volume.MoveCandidates;
import org.vastshelf.core.volume.PaceBudget;

/** One volume: what it holds, and what can be changed while clients go on. */
@Page
class VolumeController {

    private static final int BAR = 780;

    private final EstateStore estates;
    private final UsageStore usage;
    private final HistoryStore history;
    private final GrowthStore growths;
    private final OrderService orders;

    VolumeController(
            EstateStore estates, UsageStore usage, HistoryStore history, GrowthStore growths, OrderService orders) {
        this.estates = estates;
        this.usage = usage;
        this.history = history;
        this.growths = growths;
        this.orders = orders;
    }

    @GetMapping("/build/volumes/{name}")
    String volume(@PathVariable String name, Model model) {
        return show(name, "", model);
    }

    private String show(String name, String problem, Model model) {
        Estate estate = estates.load();
        Volume volume = volume(estate, name);
        Usage all = usage.load();
        Usage.Held held = all.of(name);
        Pool pool = estate.pools().get(volume.pool());
        ByteLedger ledger = Ledgers.ofVolume(all, volume);
        model.addAttribute("volume", volume);
        model.addAttribute("pool", pool);
        model.addAttribute("problem", problem);
        model.addAttribute("held", held);
        model.addAttribute("ledger", LedgerPicture.draw(ledger, ledger.label(), BAR));
        model.addAttribute("poolFree", Ledgers.ofPool(estate, all, pool).free());
        model.addAttribute("shares", estate.sharesOn(name).toList());
        model.addAttribute("pace", volume.pace().of(volume.size(), pool.pace()));
        model.addAttribute("budget", PaceBudget.of(estate, pool, name));
        FileServer server = estate.servers().get(pool.server());
        model.addAttribute("managed", server.managed());
        model.addAttribute("sizes", server.sizes());
        model.addAttribute("growths", growths.of(name));
        Optional<GrowthRule> rule = estate.find(Kinds.GROWTH, name);
        model.addAttribute("ruled", rule.isPresent());
        model.addAttribute("ruleForm", GrowthForm.of(volume, rule));
        ScheduleForm typed = (ScheduleForm) model.getAttribute("typedLooks");
        model.addAttribute(
                "looks",
                ScheduleForm.of(typed, Optional.of(rule.map(GrowthRule::looks).orElse(GrowthRule.OFTEN))));
        model.addAttribute("rhythms", ScheduleForm.always());
        rule.ifPresent(r -> simulate(volume, r, model));
        return "volume";
    }

    private static Volume volume(Estate estate, String name) {
        return Optional.ofNullable(estate.volumes().get(name)).orElseThrow(() -> new NotFound("volume", name));
    }

    private String add(Someone me, String name, Supplier<Change> change, Model model) {
        try {
            orders.add(me.getName(), change.get());
            return "redirect:/build/volumes/" + name;
        } catch (IllegalArgumentException refused) {
            return show(name, String.valueOf(refused.getMessage()), model);
        }
    }

    @PostMapping("/build/volumes/{name}/grow")
    String grow(
            @AuthenticationPrincipal Someone me,
            @PathVariable String name,
            @RequestParam String by,
            @RequestParam String amount,
            Model model) {
        return add(me, name, () -> new VolumeChange.ResizeVolume(name, grown(name, by, amount)), model);
    }

    private Bytes grown(String name, String by, String amount) {
        Bytes size = volume(estates.load(), name).size();
        return switch (by) {
            case "percent" -> {
                int percent = WholeNumbers.percent("growth", amount, 1, 1_000);
                yield Bytes.of(Math.ceilDiv(size.value() / 100 * (100L + percent), Bytes.MIB) * Bytes.MIB);
            }
            case "bytes" -> size.plus(SizeText.parse("growth", amount, Bytes.of(Bytes.MIB), Volume.MOST));
            case "size" -> SizeText.parse("size", amount, Volume.LEAST, Volume.MOST);
            default -> throw new IllegalArgumentException("by is '" + by + "', must be percent, bytes or size");
        };
    }

    @PostMapping("/build/volumes/{name}/kind")
    String kind(
            @AuthenticationPrincipal Someone me, @PathVariable String name, @RequestParam boolean thin, Model model) {
        return add(me, name, () -> new VolumeChange.ConvertVolume(name, thin), model);
    }

    @PostMapping("/build/volumes/{name}/pace")
    String pace(
            @AuthenticationPrincipal Someone me,
            @PathVariable String name,
            @RequestParam boolean byHand,
            @RequestParam(defaultValue = "") String mibps,
            Model model) {
        return add(
                me,
                name,
                () -> new VolumeChange.SetPace(
                        name, byHand ? new Pace(true, WholeNumbers.whole("pace", mibps)) : Pace.BY_SIZE),
                model);
    }

    @PostMapping("/build/volumes/{name}/alarm")
    String alarm(
            @AuthenticationPrincipal Someone me, @PathVariable String name, @RequestParam String percent, Model model) {
        return add(
                me,
                name,
                () -> new VolumeChange.SetAlarm(name, WholeNumbers.percent("alarm level", percent, 1, 100)),
                model);
    }

    @PostMapping("/build/volumes/{name}/remove")
    String remove(@AuthenticationPrincipal Someone me, @PathVariable String name, Model model) {
        return add(me, name, () -> new VolumeChange.RemoveVolume(name), model);
    }

    @PostMapping("/build/volumes/{name}/growth")
    String growth(
            @AuthenticationPrincipal Someone me,
            @PathVariable String name,
            @ModelAttribute GrowthForm form,
            @ModelAttribute ScheduleForm looks,
            @RequestParam(defaultValue = "true") boolean on,
            Model model) {
        model.addAttribute("typedLooks", looks);
        return add(
                me,
                name,
                () -> on
                        ? new RuleChange.SetRule(form.rule(name, looks))
                        : new RuleChange.DropRule(Kinds.GROWTH.name(), name),
                model);
    }

    /** "Had this rule been on for the last year." */
    @PostMapping("/build/volumes/{name}/growth/preview")
    String simulate(
            @PathVariable String name,
            @ModelAttribute GrowthForm form,
            @ModelAttribute ScheduleForm looks,
            Model model) {
        Volume volume = volume(estates.load(), name);
        model.addAttribute("volume", volume);
        try {
            simulate(volume, form.rule(name, looks), model);
        } catch (IllegalArgumentException refused) {
            model.addAttribute("simulationProblem", refused.getMessage());
        }
        return "volume :: simulation";
    }

    private void simulate(Volume volume, GrowthRule rule, Model model) {
        history.of(HistoryStore.VOLUME, volume.name())
                .ifPresentOrElse(
                        found -> model.addAttribute(
                                "simulation",
                                GrowthPicture.draw(GrowthSimulation.run(rule, found.lastDays(GrowthSimulation.YEAR)))),
                        () -> model.addAttribute("simulationProblem", "It has not been watched for a week yet"));
    }

    @GetMapping("/build/volumes/{name}/move")
    String move(@PathVariable String name, Model model) {
        return showMove(name, "", model);
    }

    private String showMove(String name, String problem, Model model) {
        Estate estate = estates.load();
        Usage all = usage.load();
        Volume volume = volume(estate, name);
        Pool source = estate.pools().get(volume.pool());
        Bytes free = Ledgers.ofPool(estate, all, source).free();
        model.addAttribute("volume", volume);
        model.addAttribute("problem", problem);
        model.addAttribute("sourceFree", free);
        model.addAttribute("needs", Ledgers.taken(all, volume));
        model.addAttribute("sourceAfter", free.plus(Ledgers.taken(all, volume)));
        List<MoveCandidates.Candidate> candidates = MoveCandidates.of(estate, all, volume);
        model.addAttribute("candidates", candidates);
        model.addAttribute("somewhere", candidates.stream().anyMatch(MoveCandidates.Candidate::isPossible));
        return "move";
    }

    @PostMapping("/build/volumes/{name}/move")
    String addMove(
            @AuthenticationPrincipal Someone me,
            @PathVariable String name,
            @RequestParam(defaultValue = "") String pool,
            @RequestParam(defaultValue = "600") String limit,
            Model model) {
        try {
            if (pool.isEmpty()) {
                throw new IllegalArgumentException("No pool is chosen");
            }
            orders.add(me.getName(), new VolumeChange.MoveVolume(name, pool, WholeNumbers.whole("bandwidth", limit)));
            return "redirect:/build/volumes/" + name;
        } catch (IllegalArgumentException refused) {
            return showMove(name, String.format(Locale.ROOT, "%s", refused.getMessage()), model);
        }
    }
}
