package org.vastshelf.app.build;

import java.util.Optional;
import java.util.function.Supplier;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.ModelAttribute;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.vastshelf.app.kit.AtField;
import org.vastshelf.app.kit.Figures;
import org.vastshelf.app.kit.NotFound;
import org.vastshelf.app.kit.Page;
import org.vastshelf.app.kit.Typed;
import org.vastshelf.app.kit.WholeNumbers;
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
import org.vastshelf.core.estate.GrowthRule;
import org.vastshelf.core.estate.Kinds;
import org.vastshelf.core.estate.Pace;
import org.vastshelf.core.estate.Volume;
import org.vastshelf.core.unit.Bytes;
import org.vastshelf.core.unit.SizeText;
import org.vastshelf.core.volume.GrowthSimulation;

/** One volume: what it holds, and what can be changed while clients go on. */
@Page
class VolumeController {

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
        return show(name, model);
    }

    private String show(String name, Model model) {
        Estate estate = estates.load();
        Volume volume = volume(estate, name);
        Optional<GrowthRule> rule = estate.find(Kinds.GROWTH, name);
        model.addAttribute("page", VolumeView.of(Figures.of(model), estate, usage.load(), volume, growths.of(name)));
        model.addAttribute("forms", VolumeForms.of(Figures.of(model), Typed.of(model), estate, volume));
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
            Typed.refuse(model, refused);
            return show(name, model);
        }
    }

    @PostMapping("/build/volumes/{name}/grow")
    String grow(
            @AuthenticationPrincipal Someone me,
            @PathVariable String name,
            @RequestParam String by,
            @RequestParam String amount,
            Model model) {
        return add(
                me,
                name,
                () -> new VolumeChange.ResizeVolume(name, AtField.read("amount", () -> grown(name, by, amount))),
                model);
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
                        name,
                        AtField.read(
                                "mibps",
                                () -> byHand ? new Pace(true, WholeNumbers.whole("pace", mibps)) : Pace.BY_SIZE)),
                model);
    }

    @PostMapping("/build/volumes/{name}/alarm")
    String alarm(
            @AuthenticationPrincipal Someone me, @PathVariable String name, @RequestParam String percent, Model model) {
        return add(
                me,
                name,
                () -> new VolumeChange.SetAlarm(
                        name, AtField.read("percent", () -> WholeNumbers.percent("alarm level", percent, 1, 100))),
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
}
