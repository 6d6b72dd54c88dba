package org.vastshelf.app.snapshot;

import java.util.List;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.util.UriComponentsBuilder;
import org.vastshelf.app.kit.Figures;
import org.vastshelf.app.kit.Page;
import org.vastshelf.app.kit.Typed;

/** A name sought over all snapshots of a share. */
@Page
class FindController {

    private static final int SHOWN = 300;

    private final Finding finding;

    FindController(Finding finding) {
        this.finding = finding;
    }

    /** One that was found, with where to look at it. */
    record Row(String name, String folder, String size, String owner, String snapshot, String href) {}

    @GetMapping("/protect/find/{share}")
    String find(@PathVariable String share, @RequestParam(defaultValue = "") String q, Model model) {
        Figures fmt = Figures.of(model);
        model.addAttribute("share", share);
        model.addAttribute("q", q);
        try {
            List<Row> rows = q.isBlank()
                    ? List.of()
                    : finding.find(share, q, SHOWN).stream()
                            .map(found -> row(fmt, share, found))
                            .toList();
            model.addAttribute("rows", rows);
            model.addAttribute("nothing", rows.isEmpty() && !q.isBlank());
        } catch (IllegalArgumentException refused) {
            Typed.refuse(model, refused);
            model.addAttribute("rows", List.of());
        }
        return "found-in-snapshots";
    }

    private static Row row(Figures fmt, String share, Finding.Found found) {
        UriComponentsBuilder there = UriComponentsBuilder.fromPath("/protect/snapshots/{share}/{number}")
                .queryParam("path", "{path}");
        String path = found.isFolder()
                ? found.folder().child(found.name()).text()
                : found.folder().text();
        String href = (found.isFolder() ? there : there.queryParam("file", "{file}"))
                .encode()
                .buildAndExpand(share, found.snapshot(), path, found.name())
                .toUriString();
        return new Row(
                found.isFolder() ? found.name() + "/" : found.name(),
                found.folder().text(),
                found.isFolder() ? "" : fmt.size(found.bytes()),
                found.owner(),
                found.called(),
                href);
    }
}
