package org.vastshelf.app.build;

import java.util.List;
import org.springframework.stereotype.Component;
import org.vastshelf.app.catalogue.CatalogueStore;
import org.vastshelf.app.catalogue.SurveyStore;
import org.vastshelf.app.clock.ShelfClock;
import org.vastshelf.core.estate.FileSystemKind;
import org.vastshelf.core.unit.Bytes;
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

    /** A block size with its bars in px. */
    record BlockLine(BlockFit.Line line, int slack, int metadata, boolean best, boolean chosen) {}

    record BlockPicture(String catalogue, BlockFit.Result result, List<BlockLine> lines) {}

    BlockPicture blocks(CatalogueStore.Catalogue catalogue, FileSystemKind kind, int chosen) {
        BlockFit fit = new BlockFit();
        surveys.eachSize(catalogue.no(), fit::add);
        BlockFit.Result result = fit.result(kind);
        Bytes most = result.lines().stream()
                .map(BlockFit.Line::overhead)
                .max(Bytes::compareTo)
                .orElse(Bytes.ZERO);
        List<BlockLine> lines = result.lines().stream()
                .map(line -> new BlockLine(
                        line,
                        bar(line.slack(), most),
                        bar(line.metadata(), most),
                        line.blockSize() == result.best(),
                        line.blockSize() == chosen))
                .toList();
        return new BlockPicture(catalogue.name(), result, lines);
    }

    private static int bar(Bytes part, Bytes most) {
        return most.isZero() ? 0 : (int) Math.round(part.shareOf(most) * 220);
    }

    /** The curve of a fast part as points of a line, 0 to 360 px wide and 120 high. */
    record FastPicture(List<FastPart.Point> curve, String points, Bytes half, Bytes most, Bytes all) {}

    /** Share of the accesses that a fast part of each size would serve. */
    List<FastPart.Point> curve(List<String> shares) {
        List<Integer> numbers = catalogues.named(shares).values().stream()
                .map(CatalogueStore.Catalogue::no)
                .toList();
        return FastPart.curve(surveys.heaps(numbers, clock.instant()));
    }

    FastPicture fast(List<String> shares) {
        List<FastPart.Point> curve = curve(shares);
        Bytes all = curve.getLast().size();
        StringBuilder points = new StringBuilder();
        for (FastPart.Point point : curve) {
            points.append(all.isZero() ? 0 : Math.round(point.size().shareOf(all) * 360))
                    .append(',')
                    .append(Math.round(120 - point.served() * 115))
                    .append(' ');
        }
        return new FastPicture(
                curve, points.toString().strip(), FastPart.sizeFor(curve, 0.5), FastPart.sizeFor(curve, 0.9), all);
    }
}
