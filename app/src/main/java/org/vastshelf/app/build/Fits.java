package org.vastshelf.app.build;

import java.util.List;
import org.springframework.stereotype.Component;
import org.vastshelf.app.catalogue.CatalogueStore;
import org.vastshelf.app.catalogue.SurveyStore;
import org.vastshelf.app.clock.ShelfClock;
import org.vastshelf.app.kit.Figures;
import org.vastshelf.core.estate.FileSystemKind;
import org.vastshelf.core.volume.BlockFit;
import org.vastshelf.core.volume.FastPart;

/** What real files say about block sizes and fast parts. */
@Component
class Fits {

    private final CatalogueStore catalogues;
    private final SurveyStore surveys;
    private final ShelfClock clock;

    Fits(CatalogueStore catalogues, SurveyStore surveys, ShelfClock clock) {
        this.catalogues = catalogues;
        this.surveys = surveys;
        this.clock = clock;
    }

    BlocksView blocks(Figures fmt, CatalogueStore.Catalogue catalogue, FileSystemKind kind, int chosen) {
        BlockFit fit = new BlockFit();
        surveys.eachSize(catalogue.no(), fit::add);
        return BlocksView.of(fmt, catalogue.name(), fit.result(kind), chosen);
    }

    /** Share of the accesses that a fast part of each size would serve. */
    List<FastPart.Point> curve(List<String> shares) {
        List<Integer> numbers = catalogues.named(shares).values().stream()
                .map(CatalogueStore.Catalogue::no)
                .toList();
        return FastPart.curve(surveys.heaps(numbers, clock.instant()));
    }
}
