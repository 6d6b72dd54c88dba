package org.vastshelf.app.foresee;

import java.time.LocalDate;
import java.time.temporal.ChronoUnit;
import java.util.List;
import java.util.Optional;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.ModelAttribute;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseBody;
import org.vastshelf.app.clock.ShelfClock;
import org.vastshelf.app.kit.AtField;
import org.vastshelf.app.kit.Figures;
import org.vastshelf.app.kit.NotFound;
import org.vastshelf.app.kit.Page;
import org.vastshelf.app.kit.Typed;
import org.vastshelf.app.security.Someone;
import org.vastshelf.core.forecast.Course;
import org.vastshelf.core.forecast.FillForecast;
import org.vastshelf.core.forecast.Supposition;
import org.vastshelf.core.forecast.Supposition.Supposed;

/** What if: suppositions about a space, and what follows from them for its dates. */
@Page
class SupposeController {

    private static final int LONGEST_NAME = 80;

    private final SpaceFinder finder;
    private final SuppositionStore store;
    private final ShelfClock clock;

    SupposeController(SpaceFinder finder, SuppositionStore store, ShelfClock clock) {
        this.finder = finder;
        this.store = store;
        this.clock = clock;
    }

    /** A date as it is and as it would be. */
    record Moved(String which, String today, String supposed, String by) {}

    @GetMapping("/foresee/{kind}/{key}/suppose")
    String suppose(
            @AuthenticationPrincipal Someone me,
            @PathVariable String kind,
            @PathVariable String key,
            @ModelAttribute SupposedForm form,
            Model model) {
        SpaceFinder.Found found = find(me, kind, key);
        Typed.Fields fields = Typed.of(model).at(found.name().suppose());
        LocalDate today = clock.today();
        model.addAttribute("space", found.name());
        model.addAttribute("chart", found.name().suppose() + "/chart?" + form.query());
        try {
            List<Supposition> all = form.suppositions(today, found.space().capacity());
            Supposed supposed = Supposition.of(
                    found.space().forecast().course(), found.space().capacity(), all);
            model.addAttribute("dates", dates(Figures.of(model), found.space().forecast(), supposed));
        } catch (IllegalArgumentException refused) {
            Typed.refuse(model, refused);
            fields = Typed.of(model).at(found.name().suppose());
        }
        model.addAttribute("given", form.typed());
        model.addAttribute(
                "name", fields.text("name", "Keep it under a name", "").width("w-64"));
        model.addAttribute("groups", SupposedForm.groups(fields, today, form));
        return "suppose";
    }

    private SpaceFinder.Found find(Someone me, String kind, String key) {
        SpaceFinder.Found found = finder.find(me, kind, key);
        if (!found.isAddedUp()) {
            throw new NotFound("supposition about " + kind, key);
        }
        return found;
    }

    private static List<Moved> dates(Figures fmt, FillForecast forecast, Supposed supposed) {
        return List.of(
                moved(fmt, "early, one in ten", forecast.early(), supposed.full(Course.EARLY)),
                moved(fmt, "likely, one in two", forecast.likely(), supposed.full(Course.LIKELY)),
                moved(fmt, "late, nine in ten", forecast.late(), supposed.full(Course.LATE)));
    }

    private static Moved moved(Figures fmt, String which, Optional<LocalDate> is, Optional<LocalDate> would) {
        String never = "beyond ten years";
        return new Moved(
                which, is.map(fmt::day).orElse(never), would.map(fmt::day).orElse(never), by(fmt, is, would));
    }

    private static String by(Figures fmt, Optional<LocalDate> is, Optional<LocalDate> would) {
        if (is.equals(would)) {
            return "the same";
        }
        if (is.isEmpty() || would.isEmpty()) {
            return would.isEmpty() ? "put off" : "comes near";
        }
        long days = ChronoUnit.DAYS.between(is.get(), would.get());
        return fmt.counted(Math.abs(days), "day") + (days < 0 ? " earlier" : " later");
    }

    @GetMapping("/foresee/{kind}/{key}/suppose/chart")
    @ResponseBody
    SpaceChart chart(
            @AuthenticationPrincipal Someone me,
            @PathVariable String kind,
            @PathVariable String key,
            @ModelAttribute SupposedForm form) {
        SpaceFinder.Found found = find(me, kind, key);
        List<Supposition> all = form.suppositions(clock.today(), found.space().capacity());
        return SpaceChart.with(
                found.history(),
                found.space(),
                Supposition.of(found.space().forecast().course(), found.space().capacity(), all));
    }

    /** Keeps what is supposed under a name. */
    @PostMapping("/foresee/{kind}/{key}/suppose")
    String keep(
            @AuthenticationPrincipal Someone me,
            @PathVariable String kind,
            @PathVariable String key,
            @ModelAttribute SupposedForm form,
            @RequestParam(defaultValue = "") String name,
            Model model) {
        SpaceFinder.Found found = find(me, kind, key);
        try {
            keep(me, found, form, name.strip());
        } catch (IllegalArgumentException refused) {
            Typed.refuse(model, refused);
            return suppose(me, kind, key, form, model);
        }
        return "redirect:" + found.name().href();
    }

    private void keep(Someone me, SpaceFinder.Found found, SupposedForm form, String name) {
        if (name.isEmpty() || name.length() > LONGEST_NAME) {
            throw new AtField("name", "name is " + name.length() + " characters long, must be 1 to " + LONGEST_NAME);
        }
        List<Supposition> all = form.suppositions(clock.today(), found.space().capacity());
        if (all.isEmpty()) {
            throw new IllegalArgumentException("nothing is supposed");
        }
        Course course = Supposition.of(
                        found.space().forecast().course(), found.space().capacity(), all)
                .course();
        boolean kept = store.add(
                found.space(), new SuppositionStore.Saved(name, me.getName(), clock.today(), form.query(), course));
        if (!kept) {
            throw new AtField("name", "name '" + name + "' is taken for this space");
        }
    }

    @PostMapping("/foresee/{kind}/{key}/forget")
    String forget(
            @AuthenticationPrincipal Someone me,
            @PathVariable String kind,
            @PathVariable String key,
            @RequestParam String name) {
        SpaceFinder.Found found = find(me, kind, key);
        store.drop(found.space(), name);
        return "redirect:" + found.name().href();
    }
}
