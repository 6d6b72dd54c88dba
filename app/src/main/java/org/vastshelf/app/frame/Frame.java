package org.vastshelf.app.frame;

import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import org.springframework.security.core.Authentication;
import org.springframework.security.core.context.SecurityContextHolder;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.ControllerAdvice;
import org.springframework.web.bind.annotation.ModelAttribute;
import org.vastshelf.app.clock.ShelfClock;
import org.vastshelf.app.kit.Figures;
import org.vastshelf.app.kit.Page;
import org.vastshelf.app.kit.Scope;
import org.vastshelf.app.kit.Typed;
import org.vastshelf.app.orders.OrderService;
import org.vastshelf.app.preference.PreferenceStore;
import org.vastshelf.app.security.Role;
import org.vastshelf.app.security.Someone;
import org.vastshelf.app.store.EstateStore;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.unit.UnitSystem;

/** What every page in the frame needs. */
@ControllerAdvice(annotations = Page.class)
class Frame {

    /** One of the verbs, in the order of their keys. */
    record Verb(String name, String path, int key) {

        Place in(Scope scope, String shown) {
            return new Place(name, path, scoped(scope), key, shown.startsWith(path) ? "page" : null);
        }
    }

    /**
     * A verb as the frame offers it.
     *
     * @param scope that it keeps; null for the whole estate
     * @param current as ARIA has it; null for another page
     */
    record Place(
            String name,
            String path,
            @Nullable String scope,
            int key,
            @Nullable String current) {}

    /** A part of the scope, from the file server down to the volume. */
    record Crumb(String name) {}

    /** What the person's dialog offers. */
    record Other(String theme, String word) {}

    private static @Nullable String scoped(Scope scope) {
        return scope.name().isEmpty() ? null : scope.name();
    }

    private static final List<Verb> VERBS = List.of(
            new Verb("Look", "/look", 1),
            new Verb("Build", "/build", 2),
            new Verb("Serve", "/serve", 3),
            new Verb("Limit", "/limit", 4),
            new Verb("Lighten", "/lighten", 5),
            new Verb("Protect", "/protect", 6),
            new Verb("Trace", "/trace", 7),
            new Verb("Foresee", "/foresee", 8),
            new Verb("Orders", "/orders", 9));

    private final EstateStore estates;
    private final PreferenceStore preferences;
    private final OrderService orders;
    private final ShelfClock clock;

    Frame(EstateStore estates, PreferenceStore preferences, OrderService orders, ShelfClock clock) {
        this.estates = estates;
        this.preferences = preferences;
        this.orders = orders;
        this.clock = clock;
    }

    @ModelAttribute
    void fill(Model model, HttpServletRequest request, HttpServletResponse response) {
        Authentication who = SecurityContextHolder.getContext().getAuthentication();
        if (who == null || !(who.getPrincipal() instanceof Someone me)) {
            return;
        }
        PreferenceStore.Preference preference = preferences.of(me.getName());
        Estate estate = estates.load();
        Scope asked = Scope.of(
                estate, Optional.ofNullable(request.getParameter("scope")).orElse(""));
        Scope scope = mayNarrow(me, estate, asked) ? asked : Scope.ESTATE;
        model.addAttribute("me", me);
        model.addAttribute("typed", Typed.in(request));
        model.addAttribute("fmt", new Figures(preference.units()));
        model.addAttribute("theme", preference.theme());
        ThemeCookie.keep(preference.theme(), request, response);
        model.addAttribute("units", preference.units().name());
        model.addAttribute("binary", preference.units() == UnitSystem.BINARY);
        model.addAttribute(
                "otherTheme",
                preference.theme().equals("dark")
                        ? new Other("light", "Light theme")
                        : new Other("dark", "Dark theme"));
        model.addAttribute("now", clock.instant());
        model.addAttribute("canMove", clock.canMove() && me.mayRun());
        model.addAttribute("scope", scope);
        String path = request.getRequestURI();
        List<Verb> verbs = me.readsAll() ? VERBS : keeperVerbs(me);
        model.addAttribute("scopeName", scoped(scope));
        model.addAttribute(
                "crumbs",
                Stream.of(scope.server(), scope.pool(), scope.volume())
                        .filter(name -> !name.isEmpty())
                        .map(Crumb::new)
                        .toList());
        model.addAttribute("verbs", verbs.stream().map(v -> v.in(scope, path)).toList());
        model.addAttribute("desk", me.role() != Role.AUDITOR);
        model.addAttribute("atDesk", path.startsWith("/desk") ? "page" : null);
        model.addAttribute("path", path);
        model.addAttribute("verbPath", verbPath(request.getRequestURI()));
        boolean fragment = request.getHeader("HX-Request") != null;
        if (!fragment && me.mayRun()) {
            orders.draftIdOf(me.getName()).ifPresent(id -> model.addAttribute("drawerOrder", id));
        }
    }

    /** A scope names its volume, pool and file server, which is not for everybody. */
    private static boolean mayNarrow(Someone me, Estate estate, Scope scope) {
        return me.readsAll()
                || !scope.volume().isEmpty() && estate.sharesOn(scope.volume()).anyMatch(me::sees);
    }

    /** Where a narrower or wider scope of this page's verb is shown. */
    private static String verbPath(String path) {
        return VERBS.stream()
                .map(Verb::path)
                .filter(path::startsWith)
                .findFirst()
                .orElse("/look");
    }

    private static List<Verb> keeperVerbs(Someone me) {
        return me.role() == Role.KEEPER
                ? VERBS.stream()
                        .filter(v ->
                                List.of("Look", "Serve", "Limit", "Foresee").contains(v.name))
                        .toList()
                : List.of();
    }
}
