package org.vastshelf.app.frame;

import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpSession;
import java.time.Duration;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.security.web.WebAttributes;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestHeader;
import org.springframework.web.bind.annotation.RequestParam;
import org.vastshelf.app.catalogue.CatalogueStore;
import org.vastshelf.app.demo.TimeJump;
import org.vastshelf.app.kit.Page;
import org.vastshelf.app.preference.PreferenceStore;
import org.vastshelf.app.security.Routes;
import org.vastshelf.app.security.Someone;
import org.vastshelf.app.store.EstateStore;
import org.vastshelf.core.estate.Directory;
import org.vastshelf.core.estate.Estate;

/** The parts of the frame that answer: signing in, finding, units and theme, the clock. */
@Page
class FrameController {

    private static final int MOST_RESULTS = 12;
    private static final Map<String, Duration> JUMPS = Map.of(
            "hour", Duration.ofHours(1),
            "day", Duration.ofDays(1),
            "week", Duration.ofDays(7),
            "month", Duration.ofDays(30));

    private final EstateStore estates;
    private final CatalogueStore catalogues;
    private final Directory directory;
    private final PreferenceStore preferences;
    private final TimeJump time;

    FrameController(
            EstateStore estates,
            CatalogueStore catalogues,
            Directory directory,
            PreferenceStore preferences,
            TimeJump time) {
        this.estates = estates;
        this.catalogues = catalogues;
        this.directory = directory;
        this.preferences = preferences;
        this.time = time;
    }

    /** Something found: what it is, its name and where it leads. */
    public record Found(String kind, String name, String path) {}

    private static final List<Found> ACTIONS = List.of(
            new Found("do", "Compose a pool", "/build/new/pool"),
            new Found("do", "Compose a volume", "/build/new/volume"),
            new Found("do", "Reserve a pool", "/build/new/reservation"),
            new Found("do", "Suppose what if", "/build/what-if"),
            new Found("do", "See when to order", "/foresee/orders"),
            new Found("do", "See what became of earlier forecasts", "/foresee/kept"),
            new Found("do", "Break something on the bench", "/build/bench"),
            new Found("do", "Use a template", "/build/definitions"),
            new Found("do", "Open a share", "/serve/new"),
            new Found("do", "Set a limit", "/limit/new"),
            new Found("do", "Sit at the desk", "/desk"),
            new Found("do", "Bring in a folder", "/look/folders"),
            new Found("do", "Measure what could be spared", "/lighten"),
            new Found("do", "Read the audit lines", "/trace"),
            new Found("do", "Read the notices", "/look/notices"));

    @GetMapping("/")
    String home(@AuthenticationPrincipal Someone me) {
        return me.readsAll() || me.role() == org.vastshelf.app.security.Role.KEEPER
                ? "redirect:/look"
                : "redirect:/desk";
    }

    @GetMapping("/sign-in")
    String signIn(Model model, HttpServletRequest request) {
        HttpSession session = request.getSession(false);
        Object why = session == null ? null : session.getAttribute(WebAttributes.AUTHENTICATION_EXCEPTION);
        model.addAttribute("problem", why instanceof Exception e ? e.getMessage() : "Name or password is wrong");
        return "signin";
    }

    @PostMapping("/preferences")
    String prefer(
            @AuthenticationPrincipal Someone me,
            @RequestParam(defaultValue = "") String units,
            @RequestParam(defaultValue = "") String theme,
            @RequestHeader(defaultValue = "/") String referer) {
        preferences.keep(me.getName(), units, theme);
        return "redirect:" + local(referer);
    }

    @PostMapping("/time")
    String jump(
            @AuthenticationPrincipal Someone me,
            @RequestParam String by,
            @RequestHeader(defaultValue = "/") String referer) {
        Duration jump = JUMPS.get(by);
        if (jump == null) {
            throw new IllegalArgumentException("jump is '" + by + "', must be hour, day, week or month");
        }
        time.forward(jump, me.getName());
        return "redirect:" + local(referer);
    }

    /** The path of an address of ours, so that a referrer from elsewhere leads nowhere. */
    private static String local(String referer) {
        String path = referer.replaceFirst("^https?://[^/]*", "");
        return path.startsWith("/") && !path.startsWith("//") ? path : "/";
    }

    @GetMapping("/find")
    String find(@AuthenticationPrincipal Someone me, @RequestParam(defaultValue = "") String q, Model model) {
        String text = q.strip().toLowerCase(Locale.ROOT);
        Estate estate = estates.load();
        List<Found> all = new ArrayList<>(ACTIONS.stream()
                .filter(action -> Routes.mayRead(me.role(), action.path))
                .toList());
        estate.shares().values().stream()
                .filter(me::sees)
                .forEach(s -> all.add(new Found("share", s.name(), "/serve/shares/" + s.name())));
        if (me.readsAll()) {
            estate.pools().keySet().forEach(n -> all.add(new Found("pool", n, "/build/pools/" + n)));
            estate.volumes().keySet().forEach(n -> all.add(new Found("volume", n, "/build/volumes/" + n)));
            estate.servers().keySet().forEach(n -> all.add(new Found("file server", n, "/build?scope=" + n)));
            directory
                    .people()
                    .forEach(p ->
                            all.add(new Found("person", p.name() + " (" + p.uid() + ")", "/trace?person=" + p.uid())));
        }
        List<Found> found = new ArrayList<>(all.stream()
                .filter(f -> f.name().toLowerCase(Locale.ROOT).contains(text))
                .sorted(Comparator.comparing(
                        f -> !f.name().toLowerCase(Locale.ROOT).startsWith(text)))
                .limit(MOST_RESULTS)
                .toList());
        if (text.length() >= 2 && me.readsAll() && found.size() < MOST_RESULTS) {
            catalogues
                    .all()
                    .forEach(c -> catalogues
                            .foldersNamed(c.no(), text, 3)
                            .forEach(f ->
                                    found.add(new Found("folder", c.name() + f.shown(), "/look/folders/" + c.name()))));
        }
        model.addAttribute("found", found.stream().limit(MOST_RESULTS).toList());
        return "found";
    }
}
