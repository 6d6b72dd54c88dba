package org.vastshelf.app.foresee;

import jakarta.servlet.http.HttpServletRequest;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.ModelAttribute;
import org.vastshelf.app.kit.Figures;
import org.vastshelf.app.kit.Listing;
import org.vastshelf.app.kit.Mark;
import org.vastshelf.app.kit.Page;
import org.vastshelf.core.forecast.JudgedBand;

/** What became of earlier forecasts: over all, and for each volume. */
@Page
class PastForecastsController {

    private static final Comparator<PastForecastStore.Held> BY_NAME = Comparator.comparing(
                    (PastForecastStore.Held held) -> held.key().name())
            .thenComparing(PastForecastStore.Held::ahead);

    private final PastForecasts pasts;

    PastForecastsController(PastForecasts pasts) {
        this.pasts = pasts;
    }

    /** How many of so many bands held. */
    record Line(String ahead, int bands, int held, String share) {}

    /** One band of a volume that can be judged. */
    record Row(SpaceName space, String ahead, String made, String expected, String used, String off, Mark held) {}

    @GetMapping("/foresee/kept")
    String kept(@ModelAttribute("fmt") Figures fmt, HttpServletRequest request, Model model) {
        model.addAttribute(
                "scores",
                pasts.scores().stream()
                        .map(s -> new Line(
                                ahead(s.ahead()), s.bands(), s.held(), fmt.percent((double) s.held() / s.bands())))
                        .toList());
        List<PastForecastStore.Held> latest =
                pasts.latest().stream().sorted(BY_NAME).toList();
        model.addAttribute(
                "rows",
                Listing.of(
                                request,
                                latest,
                                held -> held.key().name(),
                                new Listing.Column<PastForecastStore.Held>("volume", BY_NAME),
                                new Listing.Column<>("ahead", Comparator.comparing(PastForecastStore.Held::ahead)),
                                new Listing.Column<>(
                                        "off",
                                        Comparator.comparing(
                                                held -> Math.abs(held.band().off()))))
                        .map(held -> row(fmt, held)));
        return "kept-forecasts";
    }

    private static Row row(Figures fmt, PastForecastStore.Held held) {
        return new Row(
                SpaceName.of(held.key().kind(), held.key().name()),
                ahead(held.ahead()),
                fmt.day(held.made()) + (held.afterwards() ? ", afterwards" : ""),
                fmt.size(held.band().low()) + " to " + fmt.size(held.band().high()),
                fmt.size(held.band().used()),
                String.format(Locale.ROOT, "%+.1f %%", 100 * held.band().off()),
                mark(held.band()));
    }

    static Mark mark(JudgedBand band) {
        String full = band.isFull() ? "; it was full" : "";
        return band.isInside() ? new Mark(Mark.State.FINE, "held" + full) : new Mark(Mark.State.WATCH, "missed" + full);
    }

    private static String ahead(int days) {
        return switch (days) {
            case 28 -> "four weeks";
            case 91 -> "a quarter";
            case 364 -> "a year";
            default -> days + " days";
        };
    }
}
