package org.vastshelf.app.foresee;

import jakarta.servlet.http.HttpServletRequest;
import java.io.IOException;
import java.io.InputStreamReader;
import java.io.Reader;
import java.nio.charset.StandardCharsets;
import java.time.LocalDate;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.function.Function;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.ModelAttribute;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseBody;
import org.springframework.web.multipart.MultipartFile;
import org.springframework.web.util.UriComponentsBuilder;
import org.vastshelf.app.foresee.SpaceLists.Named;
import org.vastshelf.app.kit.Figures;
import org.vastshelf.app.kit.Form;
import org.vastshelf.app.kit.Listing;
import org.vastshelf.app.kit.Page;
import org.vastshelf.app.kit.Scope;
import org.vastshelf.app.kit.Typed;
import org.vastshelf.app.security.Someone;
import org.vastshelf.app.store.EstateStore;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.forecast.FillForecast;
import org.vastshelf.core.unit.Counted;

/** When spaces are full, and how that comes about. */
@Page
class ForeseeController {

    private final SpaceLists lists;
    private final Refusing refusing;
    private final ForecastKeeping keeping;
    private final SpaceFinder finder;
    private final PastForecasts pasts;
    private final SuppositionStore suppositions;
    private final EstateStore estates;
    private final BroughtIn broughtIn;

    ForeseeController(
            SpaceLists lists,
            Refusing refusing,
            ForecastKeeping keeping,
            SpaceFinder finder,
            PastForecasts pasts,
            SuppositionStore suppositions,
            EstateStore estates,
            BroughtIn broughtIn) {
        this.lists = lists;
        this.refusing = refusing;
        this.keeping = keeping;
        this.finder = finder;
        this.pasts = pasts;
        this.suppositions = suppositions;
        this.estates = estates;
        this.broughtIn = broughtIn;
    }

    /** Which spaces are asked for. */
    enum Shown {
        SPACES("volumes, pools and file servers"),
        SHARES("shares, with what refuses first"),
        ACCOUNTS("accounts of limits");

        private final String title;

        Shown(String title) {
            this.title = title;
        }

        String key() {
            return name().toLowerCase(Locale.ROOT);
        }

        static Shown of(@Nullable String key) {
            return Stream.of(values())
                    .filter(s -> s.key().equals(key))
                    .findFirst()
                    .orElse(SPACES);
        }
    }

    /**
     * A supposition that was kept.
     *
     * @param again where it is supposed anew
     * @param over where it is drawn over what happened
     */
    record Kept(SuppositionStore.Saved saved, String again, String over) {

        static Kept of(SpaceName space, SuppositionStore.Saved saved) {
            return new Kept(
                    saved,
                    space.suppose() + "?" + saved.asked(),
                    UriComponentsBuilder.fromPath(space.href())
                            .queryParam("over", "{over}")
                            .encode()
                            .buildAndExpand(saved.name())
                            .toUriString());
        }
    }

    /** A way to look at it. */
    record Choice(String href, String title, @Nullable String current) {}

    @GetMapping("/foresee")
    String foresee(
            @AuthenticationPrincipal Someone me,
            @ModelAttribute("scope") Scope scope,
            @ModelAttribute("fmt") Figures fmt,
            @RequestParam(required = false) @Nullable String show,
            HttpServletRequest request,
            Model model) {
        Shown shown = Shown.of(show);
        Estate estate = estates.load();
        List<Named> spaces = switch (shown) {
            case SPACES -> lists.spaces(me, estate, scope);
            case SHARES -> lists.shares(me, estate, scope);
            case ACCOUNTS -> lists.accounts(me, estate, scope);
        };
        Refusing.Asked asked = refusing.in(estate);
        model.addAttribute(
                "spaces",
                Listing.of(
                                request,
                                spaces,
                                named ->
                                        named.name().kind() + " " + named.name().title(),
                                new Listing.Column<Named>(
                                        "space",
                                        Comparator.comparing(n -> n.name().title())),
                                new Listing.Column<>("early", day(FillForecast::early)),
                                new Listing.Column<>("likely", day(FillForecast::likely)),
                                new Listing.Column<>("late", day(FillForecast::late)),
                                new Listing.Column<>("in30", within(30)),
                                new Listing.Column<>("in90", within(90)),
                                new Listing.Column<>("in365", within(365)),
                                new Listing.Column<>(
                                        "growth",
                                        Comparator.comparing(
                                                n -> n.space().forecast().bytesPerDay())))
                        .map(n -> SpaceRow.of(fmt, n.name(), n.space(), refused(me, fmt, asked, n))));
        model.addAttribute(
                "choices",
                Stream.of(Shown.values())
                        .map(s -> new Choice("/foresee?show=" + s.key(), s.title, s == shown ? "true" : null))
                        .toList());
        model.addAttribute("refusals", shown != Shown.SPACES);
        model.addAttribute("growthHead", "growth, " + fmt.largeUnit() + " a year");
        int pending = keeping.pending();
        if (pending > 0) {
            model.addAttribute(
                    "pending",
                    Counted.of(pending, "forecast") + " of yesterday or before; newer ones are being computed.");
        }
        return "foresee";
    }

    private static SpaceRow.@Nullable Refused refused(Someone me, Figures fmt, Refusing.Asked asked, Named named) {
        return named.share().isEmpty()
                ? null
                : asked.on(named.share(), named.limit())
                        .map(refusal -> new SpaceRow.Refused(
                                SpaceRow.Day.of(fmt, Optional.of(refusal.day())),
                                switch (refusal.by()) {
                                    case LIMIT ->
                                        refusal.name().equals(named.name().title())
                                                ? "this limit"
                                                : "limit of " + refusal.name();
                                    case VOLUME -> "volume " + refusal.name();
                                    // Who keeps a share needs not know where it lies.
                                    case POOL -> me.readsAll() ? "pool " + refusal.name() : "its pool";
                                }))
                        .orElse(new SpaceRow.Refused(SpaceRow.Day.of(fmt, Optional.empty()), ""));
    }

    /** Spaces that are never full come last. */
    private static Comparator<Named> day(Function<FillForecast, Optional<LocalDate>> which) {
        return Comparator.comparing(
                named -> which.apply(named.space().forecast()).orElse(LocalDate.MAX));
    }

    private static Comparator<Named> within(int days) {
        return Comparator.comparing(
                named -> named.space().forecast().fullWithin().getOrDefault(days, 0.0));
    }

    @GetMapping("/foresee/{kind}/{key}")
    String space(
            @AuthenticationPrincipal Someone me,
            @PathVariable String kind,
            @PathVariable String key,
            @RequestParam(required = false, defaultValue = "") String over,
            Model model) {
        SpaceFinder.Found found = finder.find(me, kind, key);
        model.addAttribute(
                "page", SpaceView.of(Figures.of(model), found.name(), found.space(), pasts.of(found.space())));
        model.addAttribute(
                "chart",
                UriComponentsBuilder.fromPath(found.name().chart())
                        .queryParam("over", "{over}")
                        .encode()
                        .buildAndExpand(over)
                        .toUriString());
        if (!found.isAddedUp()) {
            return "space";
        }
        model.addAttribute(
                "supposed",
                suppositions.all(found.space()).stream()
                        .map(saved -> Kept.of(found.name(), saved))
                        .toList());
        if (!me.mayRun()) {
            return "space";
        }
        Typed.Fields fields = Typed.of(model).at("/foresee/" + kind + "/" + key + "/history");
        model.addAttribute(
                "bring",
                Form.of(
                                fields.action(),
                                "What it held before",
                                fields.file("table", "CSV with day and used_tib")
                                        .hint("or used_bytes, used_gib, used_gb …; short gaps are filled and marked")
                                        .with("required", "required")
                                        .width("w-64"))
                        .button("Bring it in"));
        return "space";
    }

    /** Brings in what the space held before it was watched here. */
    @PostMapping("/foresee/{kind}/{key}/history")
    String bring(
            @AuthenticationPrincipal Someone me,
            @PathVariable String kind,
            @PathVariable String key,
            @RequestParam MultipartFile table,
            Model model)
            throws IOException {
        try (Reader reader = new InputStreamReader(table.getInputStream(), StandardCharsets.UTF_8)) {
            BroughtIn.Report report = broughtIn.bring(me.getName(), kind, key, HistoryTable.read(reader));
            model.addAttribute(
                    "told",
                    Counted.of(report.days(), "day") + " brought in, "
                            + report.findings().size() + " mended; the forecast" + " follows within seconds");
        } catch (IllegalArgumentException refused) {
            Typed.refuse(model, refused);
        }
        return space(me, kind, key, "", model);
    }

    @GetMapping("/foresee/{kind}/{key}/chart")
    @ResponseBody
    SpaceChart chart(
            @AuthenticationPrincipal Someone me,
            @PathVariable String kind,
            @PathVariable String key,
            @RequestParam(required = false, defaultValue = "") String over) {
        SpaceFinder.Found found = finder.find(me, kind, key);
        return suppositions
                .find(found.space(), over)
                .map(saved -> SpaceChart.over(found.history(), found.space(), saved.name(), saved.course()))
                .orElseGet(() -> SpaceChart.of(found.history(), found.space()));
    }
}
