package org.vastshelf.app.content;

import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.vastshelf.app.kit.Figures;
import org.vastshelf.app.kit.Mark;
import org.vastshelf.app.kit.Page;

/** What people saved, and whether the count of who refers to it is right. */
@Page
class KeptController {

    private static final int SHOWN = 60;

    private final KeptCheck check;

    KeptController(KeptCheck check) {
        this.check = check;
    }

    /** One look, as the page shows it. */
    public record Row(
            String at,
            Mark state,
            String contents,
            String bytes,
            String removed,
            String freed,
            String mended,
            String missing) {

        static Row of(Figures fmt, KeptCheck.Report report) {
            boolean right = report.mended() == 0 && report.missing() == 0;
            return new Row(
                    fmt.moment(report.at()),
                    right ? Mark.fine("as counted") : Mark.failed(report.missing() == 0 ? "mended" : "bytes missing"),
                    fmt.count(report.contents()),
                    fmt.size(report.bytes()),
                    fmt.count(report.removed()),
                    fmt.size(report.removedBytes()),
                    fmt.count(report.mended()),
                    fmt.count(report.missing()));
        }
    }

    @GetMapping("/trace/kept")
    String kept(Model model) {
        model.addAttribute(
                "looks",
                check.reports(SHOWN).stream()
                        .map(report -> Row.of(Figures.of(model), report))
                        .toList());
        return "kept";
    }

    @PostMapping("/trace/kept")
    String look(Model model) {
        check.look();
        return kept(model);
    }
}
