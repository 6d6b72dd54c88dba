package org.vastshelf.app.spare;

import jakarta.servlet.http.HttpServletRequest;
import java.math.BigDecimal;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.vastshelf.app.config.Settings;
import org.vastshelf.app.kit.Figures;
import org.vastshelf.app.kit.Listing;
import org.vastshelf.app.kit.NotFound;
import org.vastshelf.app.kit.Page;
import org.vastshelf.app.spare.Spares.Part;
import org.vastshelf.app.store.EstateStore;
import org.vastshelf.core.estate.Share;
import org.vastshelf.core.spare.Ages;
import org.vastshelf.core.spare.ShareCost;

/** What could be spared of a share, folder by folder. */
@Page
class PartsController {

    private final Spares spares;
    private final EstateStore estates;

    private final String currency;

    PartsController(Spares spares, EstateStore estates, Settings settings) {
        this.currency = settings.currency();
        this.spares = spares;
        this.estates = estates;
    }

    /** A folder in the list. */
    record Row(
            String folder,
            String files,
            String bytes,
            String equal,
            String equalShare,
            String unused,
            String unusedShare,
            String left,
            String now,
            String once,
            String away) {}

    @GetMapping("/lighten/shares/{name}")
    String list(@PathVariable String name, HttpServletRequest request, Model model) {
        Share share =
                Optional.ofNullable(estates.load().shares().get(name)).orElseThrow(() -> new NotFound("share", name));
        Figures fmt = Figures.of(model);
        List<Part> parts = spares.parts(share).stream()
                .sorted(Comparator.comparing(PartsController::taken).reversed())
                .toList();
        model.addAttribute("name", name);
        model.addAttribute("monthly", currency + " a month");
        model.addAttribute("none", parts.isEmpty());
        model.addAttribute(
                "measured", parts.stream().anyMatch(part -> part.equal().isPresent()));
        model.addAttribute(
                "folders",
                Listing.of(
                                request,
                                parts,
                                Part::folder,
                                new Listing.Column<>("name", Comparator.comparing(Part::folder)),
                                new Listing.Column<>("bytes", Comparator.comparing(PartsController::bytes)),
                                new Listing.Column<>("equal", Comparator.comparing(PartsController::equal)),
                                new Listing.Column<>("unused", Comparator.comparing(PartsController::unused)),
                                new Listing.Column<>("now", Comparator.comparing(PartsController::taken)))
                        .map(part -> row(fmt, part)));
        return "spare-folders";
    }

    private static long taken(Part part) {
        return part.cost().ages().here().allocated();
    }

    private static long bytes(Part part) {
        return part.cost().ages().here().all().bytes();
    }

    private static long equal(Part part) {
        return part.equal().map(ShareCost.Equal::saved).orElse(-1L);
    }

    private static long unused(Part part) {
        return part.cost().ages().unused(SpareView.YEAR).all().bytes();
    }

    private static Row row(Figures fmt, Part part) {
        ShareCost cost = part.cost();
        Ages ages = cost.ages();
        return new Row(
                name(part.folder()),
                fmt.count(ages.here().all().files()),
                fmt.size(bytes(part)),
                part.equal().map(equal -> fmt.size(equal.saved())).orElse(""),
                part.equal()
                        .map(equal -> share(fmt, equal.saved(), equal.bytes()))
                        .orElse(""),
                fmt.size(unused(part)),
                share(fmt, unused(part), bytes(part)),
                ages.left().files() == 0 ? "" : fmt.size(ages.left().bytes()),
                money(fmt, cost.monthly()),
                money(fmt, cost.withEqualOnce()),
                money(fmt, cost.withoutUnused(SpareView.YEAR)));
    }

    private static String name(String folder) {
        return switch (folder) {
            case "" -> "all other folders";
            case "/" -> "right in the share";
            default -> folder;
        };
    }

    private static String share(Figures fmt, long of, long all) {
        return all == 0 ? "" : fmt.percent(of / (double) all);
    }

    private static String money(Figures fmt, Optional<BigDecimal> amount) {
        return amount.map(fmt::money).orElse("");
    }
}
