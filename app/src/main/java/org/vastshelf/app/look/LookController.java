package org.vastshelf.app.look;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.ModelAttribute;
import org.vastshelf.app.clock.ShelfClock;
import org.vastshelf.app.frame.Page;
import org.vastshelf.app.frame.Scope;
import org.vastshelf.app.limit.AccountStore;
import org.vastshelf.app.look.Forecasts.Space;
import org.vastshelf.app.security.Someone;
import org.vastshelf.app.store.EstateStore;
import org.vastshelf.app.store.UsageStore;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.Usage;
import org.vastshelf.core.estate.Volume;
import org.vastshelf.core.forecast.FillForecast;
import org.vastshelf.core.limit.Account;
import org.vastshelf.core.look.Attention;
import org.vastshelf.core.look.AttentionRules;

/** What needs somebody today, and when every space is full. */
@Page
class LookController {

    private static final int ACCOUNTS_EACH = 2_000;

    private final EstateStore estates;
    private final UsageStore usage;
    private final AccountStore accounts;
    private final Forecasts forecasts;
    private final ShelfClock clock;

    LookController(
            EstateStore estates, UsageStore usage, AccountStore accounts, Forecasts forecasts, ShelfClock clock) {
        this.estates = estates;
        this.usage = usage;
        this.accounts = accounts;
        this.forecasts = forecasts;
        this.clock = clock;
    }

    @GetMapping("/look")
    String look(@AuthenticationPrincipal Someone me, @ModelAttribute("scope") Scope scope, Model model) {
        Estate estate = visible(estates.load(), me, scope);
        Usage held = usage.load();
        LocalDate today = clock.today();
        Map<String, FillForecast> expected = new HashMap<>();
        forecasts.volumes().forEach((name, space) -> expected.put(name, space.forecast()));
        List<Account> near = estate.limits().values().stream()
                .filter(rule -> rule.stopAt().isPresent())
                .flatMap(rule -> accounts.of(rule, ACCOUNTS_EACH).stream())
                .toList();
        model.addAttribute("attention", AttentionRules.find(estate, held, expected, near, today));
        model.addAttribute("timeline", Timeline.draw(spaces(estate, me), today));
        return "look";
    }

    private List<Space> spaces(Estate estate, Someone me) {
        List<Space> spaces = new ArrayList<>(forecasts.volumes().values().stream()
                .filter(s -> estate.volumes().containsKey(s.name()))
                .toList());
        if (me.readsAll()) {
            forecasts.pools().values().stream()
                    .filter(s -> estate.pools().containsKey(s.name()))
                    .forEach(spaces::add);
        }
        spaces.sort(Comparator.comparing((Space s) -> s.forecast().likely().orElse(LocalDate.MAX))
                .thenComparing(Space::name));
        return spaces;
    }

    /** The part of the estate that is in scope and that this person may see. */
    private static Estate visible(Estate estate, Someone me, Scope scope) {
        Map<String, Volume> volumes = new java.util.LinkedHashMap<>(estate.volumes());
        volumes.values().removeIf(v -> !scope.covers(estate, v)
                || !me.readsAll() && estate.sharesOn(v.name()).noneMatch(me::sees));
        var pools = new java.util.LinkedHashMap<>(estate.pools());
        pools.values().removeIf(p -> !scope.covers(p) || !me.readsAll());
        var drives = new java.util.LinkedHashMap<>(estate.drives());
        drives.values().removeIf(d -> !me.readsAll()
                || !scope.server().isEmpty() && !scope.server().equals(d.server()));
        var shares = new java.util.LinkedHashMap<>(estate.shares());
        shares.values().removeIf(s -> !volumes.containsKey(s.volume()));
        var limits = new java.util.LinkedHashMap<>(estate.limits());
        limits.values().removeIf(l -> !shares.containsKey(l.share()));
        var poolsOfVolumes = me.readsAll() ? pools : estate.pools();
        return new Estate(
                estate.sites(), estate.servers(), estate.enclosures(), drives, poolsOfVolumes, volumes, shares, limits);
    }
}
