package org.vastshelf.app.build;

import java.util.List;
import org.vastshelf.app.kit.Figures;
import org.vastshelf.core.unit.Bytes;
import org.vastshelf.core.volume.BlockFit;

/** What blocks of each size would waste on the files of a catalogue. */
public record BlocksView(String catalogue, String files, List<Row> rows) {

    private static final int BAR = 220;

    /** A block size; bars in px. */
    public record Row(
            String css, String block, int slackBar, int metadataBar, String slack, String metadata, String note) {}

    static BlocksView of(Figures fmt, String catalogue, BlockFit.Result result, int chosen) {
        Bytes most = result.lines().stream()
                .map(BlockFit.Line::overhead)
                .max(Bytes::compareTo)
                .orElse(Bytes.ZERO);
        return new BlocksView(
                catalogue,
                fmt.count(result.files()) + " files, " + fmt.size(result.logical())
                        + ": slack behind the end of files, and metadata for each block",
                result.lines().stream()
                        .map(line ->
                                row(fmt, line, most, line.blockSize() == chosen, line.blockSize() == result.best()))
                        .toList());
    }

    private static Row row(Figures fmt, BlockFit.Line line, Bytes most, boolean chosen, boolean best) {
        return new Row(
                chosen ? "chosen" : "",
                line.blockSize() / 1024 + " KiB",
                bar(line.slack(), most),
                bar(line.metadata(), most),
                fmt.size(line.slack()),
                fmt.size(line.metadata()),
                best ? "least in all" : "");
    }

    private static int bar(Bytes part, Bytes most) {
        return most.isZero() ? 0 : (int) Math.round(part.shareOf(most) * BAR);
    }
}
