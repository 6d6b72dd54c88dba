package org.vastshelf.app.look;

import jakarta.servlet.http.HttpServletRequest;
import java.time.LocalDate;
import java.util.Collection;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Function;
import java.util.stream.Stream;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.ModelAttribute;
import org.vastshelf.app.clock.ShelfClock;
import org.vastshelf.app.foresee.Forecasts;
import org.vastshelf.app.foresee.Forecasts.Space;
import org.vastshelf.app.foresee.MovedDates;
import org.vastshelf.app.kit.Figures;
import org.vastshelf.app.kit.Listing;
import org.vastshelf.app.kit.Page;
import org.vastshelf.app.kit.Scope;
import org.vastshelf.app.limit.AccountPageStore;
import org.vastshelf.app.protect.Losses;
import org.vastshelf.app.replica.LatePairs;
import org.vastshelf.app.security.Someone;
import org.vastshelf.app.store.EstateStore;
import org.vastshelf.app.store.UsageStore;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.LimitRule;
import org.vastshelf.core.estate.Pool;
import org.vastshelf.core.estate.Usage;
import org.vastshelf.core.estate.Volume;
import org.vastshelf.core.failure.Rebuilds;
import org.vastshelf.core.forecast.FillForecast;
import org.vastshelf.core.limit.Account;
import org.vastshelf.core.look.Attention;
import org.vastshelf.core.look.AttentionRules;
import org.vastshelf.core.unit.Counted;

/** What needs somebody today, and when every space is full. */
@Page
class LookController {

    /** From this share of its strictest level on an account is looked at, and so many of them at most. */
    private static final double NEAR = 0.995;

    private static final int ACCOUNTS = 200;
    private static final int MOST_SPACES = 40;

    private final EstateStore estates;
    private final UsageStore usage;
    private final AccountPageStore accounts;
    private final Forecasts forecasts;
    private final MovedDates moved;
    private final ShelfClock clock;
    private final Stuck stuck;
    private final Losses losses;
    private final LatePairs late;

    LookController(
            EstateStore estates,
            UsageStore usage,
            AccountPageStore accounts,
            Forecasts forecasts,
            MovedDates moved,
            ShelfClock clock,
            Stuck stuck,
            Losses losses,
            LatePairs late) {
        this.losses = losses;
        this.late = late;
        this.stuck = stuck;
        this.estates = estates;
        this.usage = usage;
        this.accounts = accounts;
        this.forecasts = forecasts;
        this.clock = clock;
        this.moved = moved;
    }

    @GetMapping("/look")
    String look(
            @AuthenticationPrincipal Someone me,
            @ModelAttribute("scope") Scope scope,
            @ModelAttribute("fmt") Figures fmt,
            HttpServletRequest request,
            Model model) {
        Estate estate = Rebuilds.seen(estates.load(), clock.instant());
        Seen seen = new Seen(estate, me, scope);
        Usage held = usage.load();
        LocalDate today = clock.today();
        Map<String, FillForecast> expected = new HashMap<>();
        Map<String, Space> volumes = forecasts.volumes();
        volumes.forEach((name, space) -> expected.put(name, space.forecast()));
        List<LimitRule> rules = estate.limits().values().stream()
                .filter(r -> r.stopAt().isPresent() && seen.share(r.share()))
                .toList();
        List<Account> near = accounts.fullerThan(estate, rules, NEAR, ACCOUNTS);
        List<LookLine> lines = Stream.of(
                        AttentionRules.find(estate, held, expected, near, today, fmt.units()).stream()
                                .filter(seen::about),
                        moved.all().stream()
                                .map(date -> date.attention(fmt.units()))
                                .filter(seen::about),
                        losses.attention().stream().filter(seen::about),
                        late.all(fmt, me).filter(seen::about),
                        me.readsAll() ? stuck.all() : Stream.<Attention>empty())
                .flatMap(Function.identity())
                .sorted()
                .map(a -> me.readsAll() ? LookLine.of(fmt, a) : LookLine.ofKeeper(fmt, a))
                .toList();
        List<Space> spaces = spaces(seen, volumes.values());
        Listing<LookLine> attention = Listing.of(request, lines, LookLine::text);
        model.addAttribute("attention", attention);
        model.addAttribute("lead", lead(attention.total()));
        model.addAttribute(
                "timeline", Timeline.draw(fmt, spaces.subList(0, Math.min(MOST_SPACES, spaces.size())), today));
        if (spaces.size() > MOST_SPACES) {
            model.addAttribute(
                    "later", Counted.of(spaces.size() - MOST_SPACES, "space") + " more, full later or never");
        }
        return "look";
    }

    private static String lead(int things) {
        return switch (things) {
            case 0 -> "Nothing. All is well.";
            case 1 -> "One thing.";
            default -> Counted.of(things, "thing") + ", most urgent first.";
        };
    }

    private List<Space> spaces(Seen seen, Collection<Space> volumes) {
        return Stream.concat(
                        volumes.stream().filter(s -> seen.volume(s.name())),
                        forecasts.pools().values().stream().filter(s -> seen.pool(s.name())))
                .sorted(Comparator.comparing((Space s) -> s.forecast().likely().orElse(LocalDate.MAX))
                        .thenComparing(Space::name))
                .toList();
    }

    /** What is in scope and for this person's eyes: readers see all, keepers their own shares. */
    private record Seen(Estate estate, Someone me, Scope scope) {

        boolean pool(String name) {
            Pool pool = estate.pools().get(name);
            return me.readsAll() && pool != null && scope.covers(pool);
        }

        boolean volume(String name) {
            Volume volume = estate.volumes().get(name);
            return volume != null
                    && scope.covers(estate, volume)
                    && (me.readsAll() || estate.sharesOn(name).anyMatch(me::sees));
        }

        boolean share(String name) {
            return Optional.ofNullable(estate.shares().get(name))
                    .filter(share -> me.sees(share) && volume(share.volume()))
                    .isPresent();
        }

        boolean drive(String key) {
            return me.readsAll()
                    && (scope.server().isEmpty()
                            || estate.drives().get(key).server().equals(scope.server()));
        }

        boolean about(Attention attention) {
            String key = attention.subject().key();
            return switch (attention.subject().area()) {
                case POOL, POOL_RESERVE -> pool(key);
                case VOLUME, RESERVE, PAIR -> volume(key);
                case DRIVE -> drive(key);
                case SHARE, PROTECTION -> share(key);
                case ORDER, AGENDA, RUSH, TIERING -> me.readsAll();
                case ACCOUNT -> share(estate.limits().get(key).share());
            };
        }
    }
}
