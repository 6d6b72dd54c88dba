package org.vastshelf.app.away;

import java.util.List;
import org.vastshelf.app.away.BucketReport.Found;
import org.vastshelf.app.away.BucketReport.Lacking;
import org.vastshelf.app.kit.Figures;
import org.vastshelf.app.kit.Mark;
import org.vastshelf.core.unit.Bytes;

/**
 * Comparisons of a bucket as their page shows them.
 *
 * @param trigger when the page asks for them again
 * @param lacking what the last one that was done missed
 * @param untold how many more that was than are told
 */
record BucketView(List<Row> rows, String trigger, List<LackingRow> lacking, String untold) {

    record Row(
            String at,
            String by,
            Mark state,
            String objects,
            String bytes,
            String removed,
            String freed,
            String strange,
            String missing,
            String differing) {}

    record LackingRow(String share, String path, String wanted, String there) {}

    static BucketView of(Figures fmt, List<BucketReport> reports) {
        Found last = reports.stream()
                .filter(report -> report.done().isPresent() && report.problem().isEmpty())
                .findFirst()
                .map(BucketReport::found)
                .orElse(Found.NOTHING);
        long untold = last.missing() + last.differing() - last.lacking().size();
        return new BucketView(
                reports.stream().map(report -> row(fmt, report)).toList(),
                reports.stream().allMatch(report -> report.done().isPresent()) ? "never" : "every 2s",
                last.lacking().stream().map(one -> row(fmt, one)).toList(),
                untold == 0 ? "" : fmt.counted(untold, "more object") + " not listed.");
    }

    private static Row row(Figures fmt, BucketReport report) {
        Found found = report.found();
        return new Row(
                fmt.moment(report.asked()),
                report.by(),
                state(report),
                fmt.count(found.objects()),
                fmt.size(Bytes.of(found.bytes())),
                fmt.count(found.removed()),
                fmt.size(Bytes.of(found.removedBytes())),
                fmt.count(found.strange()),
                fmt.count(found.missing()),
                fmt.count(found.differing()));
    }

    private static Mark state(BucketReport report) {
        if (report.done().isEmpty()) {
            return Mark.waiting("under way");
        }
        if (!report.problem().isEmpty()) {
            return Mark.failed("not done: " + report.problem());
        }
        return report.found().isWhole() ? Mark.fine("all there") : Mark.act("not all there");
    }

    private static LackingRow row(Figures fmt, Lacking one) {
        return new LackingRow(
                one.share(),
                one.path(),
                fmt.size(Bytes.of(one.wanted())),
                one.bytes() == null ? "nothing" : fmt.size(Bytes.of(one.bytes())));
    }
}
