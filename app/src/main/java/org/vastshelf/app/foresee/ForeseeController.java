package org.vastshelf.app.foresee;

import jakarta.servlet.http.HttpServletRequest;
import java.io.IOException;
import java.io.InputStreamReader;
import java.io.Reader;
import java.nio.charset.StandardCharsets;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.function.Function;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.ModelAttribute;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseBody;
import org.springframework.web.multipart.MultipartFile;
import org.vastshelf.app.foresee.Forecasts.Space;
import org.vastshelf.app.kit.Figures;
import org.vastshelf.app.kit.Form;
import org.vastshelf.app.kit.Listing;
import org.vastshelf.app.kit.NotFound;
import org.vastshelf.app.kit.Page;
import org.vastshelf.app.kit.Scope;
import org.vastshelf.app.kit.Typed;
import org.vastshelf.app.security.Someone;
import org.vastshelf.app.store.EstateStore;
import org.vastshelf.app.store.HistoryStore;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.forecast.FillForecast;
import org.vastshelf.core.forecast.FillForecast.BandDay;
import org.vastshelf.core.forecast.History;
import org.vastshelf.core.unit.Counted;

/** When spaces are full, and how that comes about. */
@Page
class ForeseeController {

    private static final int WEEKS_DRAWN = 52;

    private final Forecasts forecasts;
    private final ForecastKeeping keeping;
    private final HistoryStore histories;
    private final EstateStore estates;
    private final BroughtIn broughtIn;

    ForeseeController(
            Forecasts forecasts,
            ForecastKeeping keeping,
            HistoryStore histories,
            EstateStore estates,
            BroughtIn broughtIn) {
        this.keeping = keeping;
        this.histories = histories;
        this.forecasts = forecasts;
        this.estates = estates;
        this.broughtIn = broughtIn;
    }

    /** Columns for the chart: seconds since 1970, then bytes; null where a line has no value. */
    record Chart(List<Long> seconds, List<List<Double>> lines, long capacity) {}

    @GetMapping("/foresee")
    String foresee(
            @AuthenticationPrincipal Someone me,
            @ModelAttribute("scope") Scope scope,
            @ModelAttribute("fmt") Figures fmt,
            HttpServletRequest request,
            Model model) {
        List<Space> spaces = new ArrayList<>(forecasts.volumes().values());
        spaces.addAll(forecasts.pools().values());
        Estate estate = estates.load();
        spaces.removeIf(s -> !sees(me, estate, s.kind(), s.name()) || !inScope(scope, estate, s));
        spaces.sort(Comparator.comparing(s -> s.forecast().likely().orElse(LocalDate.MAX)));
        model.addAttribute(
                "spaces",
                Listing.of(
                                request,
                                spaces,
                                space -> space.kind() + " " + space.name(),
                                new Listing.Column<>("space", Comparator.comparing(Space::name)),
                                new Listing.Column<>("early", day(FillForecast::early)),
                                new Listing.Column<>("likely", day(FillForecast::likely)),
                                new Listing.Column<>("late", day(FillForecast::late)),
                                new Listing.Column<>("in30", within(30)),
                                new Listing.Column<>("in90", within(90)),
                                new Listing.Column<>("in365", within(365)),
                                new Listing.Column<>(
                                        "growth",
                                        Comparator.comparing(s -> s.forecast().bytesPerDay())))
                        .map(space -> SpaceRow.of(fmt, space)));
        model.addAttribute("growthHead", "growth, " + fmt.largeUnit() + " a year");
        int pending = keeping.pending();
        if (pending > 0) {
            model.addAttribute(
                    "pending",
                    Counted.of(pending, "forecast") + " of yesterday or before; newer ones are being computed.");
        }
        return "foresee";
    }

    /** Spaces that are never full come last. */
    private static Comparator<Space> day(Function<FillForecast, Optional<LocalDate>> which) {
        return Comparator.comparing(space -> which.apply(space.forecast()).orElse(LocalDate.MAX));
    }

    private static Comparator<Space> within(int days) {
        return Comparator.comparing(space -> space.forecast().fullWithin().getOrDefault(days, 0.0));
    }

    private static boolean inScope(Scope scope, Estate estate, Space space) {
        return space.kind().equals("pool")
                ? scope.volume().isEmpty() && scope.covers(estate.pools().get(space.name()))
                : scope.covers(estate, estate.volumes().get(space.name()));
    }

    @GetMapping("/foresee/{kind}/{name}")
    String space(
            @AuthenticationPrincipal Someone me, @PathVariable String kind, @PathVariable String name, Model model) {
        Space space = find(me, kind, name);
        model.addAttribute("page", SpaceView.of(Figures.of(model), space));
        Typed.Fields fields = Typed.of(model).at("/foresee/" + kind + "/" + name + "/history");
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
    @PostMapping("/foresee/{kind}/{name}/history")
    String bring(
            @AuthenticationPrincipal Someone me,
            @PathVariable String kind,
            @PathVariable String name,
            @RequestParam MultipartFile table,
            Model model)
            throws IOException {
        try (Reader reader = new InputStreamReader(table.getInputStream(), StandardCharsets.UTF_8)) {
            BroughtIn.Report report = broughtIn.bring(me.getName(), kind, name, HistoryTable.read(reader));
            model.addAttribute(
                    "told",
                    Counted.of(report.days(), "day") + " brought in, "
                            + report.findings().size() + " mended; the forecast" + " follows within seconds");
        } catch (IllegalArgumentException refused) {
            Typed.refuse(model, refused);
        }
        return space(me, kind, name, model);
    }

    @GetMapping("/foresee/{kind}/{name}/chart")
    @ResponseBody
    Chart chart(@AuthenticationPrincipal Someone me, @PathVariable String kind, @PathVariable String name) {
        Space space = find(me, kind, name);
        List<Long> seconds = new ArrayList<>();
        List<List<Double>> lines = List.of(new ArrayList<>(), new ArrayList<>(), new ArrayList<>(), new ArrayList<>());
        List<History.DayUse> days = histories.of(kind, name).stream()
                .flatMap(history -> history.lastDays(History.MOST_DAYS).stream())
                .toList();
        for (int i = 0; i < days.size(); i++) {
            seconds.add(days.get(i).day().toEpochDay() * 86_400);
            double used = days.get(i).used().value();
            boolean last = i == days.size() - 1;
            add(lines, used, last ? used : null, last ? used : null, last ? used : null);
        }
        for (BandDay day : space.forecast().band().subList(0, WEEKS_DRAWN)) {
            seconds.add(day.day().toEpochDay() * 86_400);
            add(lines, null, day.low(), day.middle(), day.high());
        }
        return new Chart(seconds, lines, space.capacity().value());
    }

    private static void add(List<List<Double>> lines, @org.jspecify.annotations.Nullable Double... values) {
        for (int i = 0; i < values.length; i++) {
            lines.get(i).add(values[i]);
        }
    }

    private Space find(Someone me, String kind, String name) {
        return forecasts
                .of(kind, name)
                .filter(s -> sees(me, estates.load(), kind, name))
                .orElseThrow(() -> new NotFound(kind + " with a week of history", name));
    }

    private static boolean sees(Someone me, Estate estate, String kind, String name) {
        return me.readsAll() || kind.equals("volume") && estate.sharesOn(name).anyMatch(me::sees);
    }
}
