package org.vastshelf.app.plank;

import org.jspecify.annotations.Nullable;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.ModelAttribute;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.context.request.ServletWebRequest;
import org.vastshelf.app.away.LeftBytes;
import org.vastshelf.app.clock.ShelfClock;
import org.vastshelf.app.foresee.EstateStamp;
import org.vastshelf.app.foresee.Forecasts;
import org.vastshelf.app.kit.Page;
import org.vastshelf.app.kit.Scope;
import org.vastshelf.app.kit.Unchanged;
import org.vastshelf.app.security.Someone;
import org.vastshelf.app.store.EstateStore;
import org.vastshelf.app.store.UsageStore;

/** The plank, which pages fetch for themselves; not sent again as long as nothing has changed. */
@Page
class PlankController {

    private static final String LOCAL = "/[a-z]{0,20}";

    private final EstateStore estates;
    private final UsageStore usage;
    private final LeftBytes left;
    private final Forecasts forecasts;
    private final EstateStamp stamp;
    private final ShelfClock clock;

    PlankController(
            EstateStore estates,
            UsageStore usage,
            LeftBytes left,
            Forecasts forecasts,
            EstateStamp stamp,
            ShelfClock clock) {
        this.left = left;
        this.estates = estates;
        this.usage = usage;
        this.forecasts = forecasts;
        this.stamp = stamp;
        this.clock = clock;
    }

    /** The pools in scope; {@code verb} is the page to which its blocks lead. */
    @GetMapping("/plank")
    @Nullable
    String plank(
            @AuthenticationPrincipal Someone me,
            @ModelAttribute("scope") Scope scope,
            @RequestParam(defaultValue = "/look") String verb,
            ServletWebRequest request,
            Model model) {
        if (!verb.matches(LOCAL)) {
            throw new IllegalArgumentException("verb must be the path of a page such as /look");
        }
        if (Unchanged.since(request, stamp.of(me.getName()), scope.name(), verb)) {
            return null;
        }
        model.addAttribute("verbPath", verb);
        model.addAttribute(
                "plank",
                Plank.draw(
                        estates.load(),
                        usage.load(),
                        left.byVolume(),
                        forecasts.volumes(),
                        forecasts.pools(),
                        clock.today(),
                        scope::covers));
        return "plank :: pools";
    }
}
