package org.vastshelf.app.desk;

import java.util.List;
import java.util.Optional;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.vastshelf.app.kit.Figures;
import org.vastshelf.app.kit.Page;
import org.vastshelf.app.security.Someone;
import org.vastshelf.app.snapshot.EarlierVersions;

/** Earlier versions of a person's files in a folder. */
@Page
class EarlierController {

    private static final int SHOWN = 500;

    private final EarlierVersions versions;
    private final DeskPage page;

    EarlierController(EarlierVersions versions, DeskPage page) {
        this.versions = versions;
        this.page = page;
    }

    /** One version as the page shows it. */
    record Row(String name, String size, String changed, int snapshot, String taken) {}

    @GetMapping("/desk/earlier")
    String earlier(@AuthenticationPrincipal Someone me, Seat asked, Model model) {
        Seat seat = asked.person().isEmpty() ? asked.at(me.getName(), asked.share()) : asked;
        DeskPage.requireMay(me, seat.person());
        Figures fmt = Figures.of(model);
        List<Row> rows = versions.of(seat.person(), seat.share(), seat.folder(), SHOWN).stream()
                .map(v -> new Row(
                        v.name(), fmt.size(v.bytes()), fmt.moment(v.changed()), v.snapshot(), fmt.moment(v.takenAt())))
                .toList();
        model.addAttribute("seat", seat);
        model.addAttribute("rows", rows);
        return "earlier";
    }

    /** Brings one back, beside what is there by now. */
    @PostMapping("/desk/earlier")
    String bring(
            @AuthenticationPrincipal Someone me,
            Seat seat,
            @RequestParam String name,
            @RequestParam int snapshot,
            Model model) {
        return page.answer(
                me,
                seat,
                () -> versions.bring(
                        seat.person(), seat.share(), seat.inside("name", name), snapshot, Optional.empty()),
                model);
    }
}
