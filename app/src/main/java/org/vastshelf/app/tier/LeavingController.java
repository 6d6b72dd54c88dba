package org.vastshelf.app.tier;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.ModelAttribute;
import org.springframework.web.bind.annotation.PathVariable;
import org.vastshelf.app.cold.ColdStores;
import org.vastshelf.app.config.Settings;
import org.vastshelf.app.kit.Field;
import org.vastshelf.app.kit.Figures;
import org.vastshelf.app.kit.Page;
import org.vastshelf.app.kit.Typed;
import org.vastshelf.app.store.EstateStore;
import org.vastshelf.core.estate.Kinds;

/** What would leave for a cold store, before anything moves. */
@Page
class LeavingController {

    private final TierPlanning planning;
    private final EstateStore estates;
    private final ColdStores stores;
    private final String currency;

    LeavingController(TierPlanning planning, EstateStore estates, ColdStores stores, Settings settings) {
        this.stores = stores;
        this.planning = planning;
        this.estates = estates;
        this.currency = settings.currency();
    }

    @GetMapping("/lighten/leaving/{name}")
    String leaving(@PathVariable String name, @ModelAttribute Leaving asked, Model model) {
        show(name, asked, model);
        return "leaving";
    }

    /** The answer alone, while the question is changed. */
    @GetMapping("/lighten/leaving/{name}/plan")
    String plan(@PathVariable String name, @ModelAttribute Leaving asked, Model model) {
        show(name, asked, model);
        return "leaving :: plan";
    }

    private void show(String name, Leaving asked, Model model) {
        long capacity = capacity(name);
        model.addAttribute("name", name);
        estates.load().find(Kinds.TIERING, asked.rule()).ifPresent(rule -> model.addAttribute("rule", rule.name()));
        model.addAttribute("answered", false);
        try {
            TierPlanning.Answer answer = planning.answer(name, asked, capacity);
            model.addAttribute("view", LeavingView.of(Figures.of(model), asked, answer, store(asked), currency));
            model.addAttribute("answered", true);
        } catch (IllegalArgumentException refused) {
            Typed.refuse(model, refused);
        }
        model.addAttribute("fields", fields(Typed.of(model).at("/lighten/leaving/" + name), asked, capacity > 0));
    }

    /** Of the volume that is served; 0 for what is no share. */
    private long capacity(String name) {
        return Optional.ofNullable(estates.load().shares().get(name))
                .map(share ->
                        estates.load().volumes().get(share.volume()).size().value())
                .orElse(0L);
    }

    /** The one that was asked about; the first where none was. */
    private Optional<ColdStores.Known> store(Leaving asked) {
        return stores.all().stream()
                .filter(known -> asked.store().isEmpty() || known.store().name().equals(asked.store()))
                .findFirst();
    }

    private List<Field> fields(Typed.Fields typed, Leaving asked, boolean isShare) {
        List<String> stores = List.copyOf(estates.load().all(Kinds.COLD_STORE).keySet());
        return Stream.of(which(typed, asked), where(typed, asked, isShare, stores), age(typed, asked))
                .flatMap(fields -> fields)
                .toList();
    }

    private static Stream<Field> which(Typed.Fields typed, Leaving asked) {
        return Stream.of(
                RuleTyping.countedFrom(typed, asked.by()).width("w-44"),
                typed.text("larger", "Larger than", asked.larger())
                        .hint("such as 1 MiB; 0 for all but empty ones")
                        .width("w-52"),
                typed.text("kinds", "Only", asked.kinds())
                        .hint("such as films, pictures; empty for all kinds")
                        .width("w-60"),
                typed.area("within", "Only what lies below", asked.within())
                        .with("rows", 2)
                        .hint("a folder a line; empty for all")
                        .width("w-60"),
                typed.area("exclude", "Except what lies below", asked.exclude())
                        .with("rows", 2)
                        .hint("a folder a line")
                        .width("w-60"),
                typed.text("people", "Except of", asked.people())
                        .hint("accounts, with commas between them")
                        .width("w-60"));
    }

    /** As wide as the picture of ages below it, which has the same scale. */
    private static Stream<Field> age(Typed.Fields typed, Leaving asked) {
        return Stream.of(typed.slider("days", "Age, in days", asked.days())
                .between(0, Leaving.MOST_DAYS)
                .width("along"));
    }

    private static Stream<Field> where(Typed.Fields typed, Leaving asked, boolean isShare, List<String> stores) {
        List<Field> fields = new ArrayList<>();
        if (isShare) {
            fields.add(typed.text("percent", "Only while more is used than %", asked.percent())
                    .hint("of the volume; empty for all that may leave")
                    .width("w-60"));
        }
        if (!stores.isEmpty()) {
            fields.add(typed.select("store", "To", stores, asked.store().isEmpty() ? stores.getFirst() : asked.store())
                    .width("w-40"));
            fields.add(typed.text("link", "Over the link, MiB/s", asked.link()).width("w-44"));
        }
        fields.add(
                typed.text("backup", "The backup reads, MiB/s", asked.backup()).width("w-52"));
        return fields.stream();
    }
}
