package org.vastshelf.app.folder;

import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.io.InputStreamReader;
import java.nio.charset.StandardCharsets;
import java.sql.SQLException;
import java.time.LocalDate;
import java.time.ZoneOffset;
import java.util.Comparator;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.multipart.MultipartFile;
import org.vastshelf.app.catalogue.CatalogueStore;
import org.vastshelf.app.catalogue.CatalogueStore.Catalogue;
import org.vastshelf.app.catalogue.SurveyStore;
import org.vastshelf.app.clock.ShelfClock;
import org.vastshelf.app.kit.Figures;
import org.vastshelf.app.kit.Form;
import org.vastshelf.app.kit.Listing;
import org.vastshelf.app.kit.Page;
import org.vastshelf.app.kit.Typed;
import org.vastshelf.core.catalogue.SizeClass;

/** Real folders brought in, and what is in any catalogue. */
@Page
class FolderController {

    private static final int LARGEST = 20;

    private final FolderService folders;
    private final CatalogueCsv csv;
    private final CatalogueStore catalogues;
    private final SurveyStore surveys;
    private final ShelfClock clock;

    FolderController(
            FolderService folders, CatalogueCsv csv, CatalogueStore catalogues, SurveyStore surveys, ShelfClock clock) {
        this.folders = folders;
        this.csv = csv;
        this.catalogues = catalogues;
        this.surveys = surveys;
        this.clock = clock;
    }

    @GetMapping("/look/folders")
    String list(HttpServletRequest request, Model model) {
        return show(request, model);
    }

    private String show(HttpServletRequest request, Model model) {
        Figures fmt = Figures.of(model);
        Typed typed = Typed.of(model);
        model.addAttribute(
                "catalogues",
                Listing.of(
                                request,
                                catalogues.all(),
                                c -> c.name() + " " + c.root(),
                                new Listing.Column<>("catalogue", Comparator.comparing(Catalogue::name)),
                                new Listing.Column<>("files", Comparator.comparing(Catalogue::files)),
                                new Listing.Column<>("bytes", Comparator.comparing(Catalogue::bytes)),
                                new Listing.Column<>("unreadable", Comparator.comparing(Catalogue::unreadable)))
                        .map(c -> CatalogueRow.of(fmt, c)));
        model.addAttribute("roots", String.join(", ", folders.roots()));
        Typed.Fields folder = typed.at("/look/folders");
        Typed.Fields table = typed.at("/look/folders/import");
        model.addAttribute(
                "folder",
                Form.of(
                        folder.action(),
                        "A folder of this host",
                        folder.text("name", "Name", "").width("w-44"),
                        folder.text("folder", "Folder", "")
                                .with("placeholder", "/usr/share/doc")
                                .width("w-64")));
        model.addAttribute(
                "table",
                Form.of(
                                table.action(),
                                "Or a CSV of files",
                                table.text("name", "Name", "").width("w-44"),
                                table.file("file", "File")
                                        .with("required", "required")
                                        .width("w-64"))
                        .button("Import"));
        return "folders";
    }

    @PostMapping("/look/folders")
    String bringIn(@RequestParam String name, @RequestParam String folder, HttpServletRequest request, Model model) {
        try {
            folders.bringIn(name.strip(), folder.strip());
            return "redirect:/look/folders/" + name.strip();
        } catch (IllegalArgumentException refused) {
            Typed.refuse(model, refused);
            return show(request, model);
        }
    }

    @PostMapping("/look/folders/import")
    String importCsv(
            @RequestParam String name, @RequestParam MultipartFile file, HttpServletRequest request, Model model)
            throws SQLException, IOException {
        try (var reader = new InputStreamReader(file.getInputStream(), StandardCharsets.UTF_8)) {
            csv.read(name.strip(), reader);
            return "redirect:/look/folders/" + name.strip();
        } catch (IllegalArgumentException refused) {
            Typed.refuse(model, refused);
            return show(request, model);
        }
    }

    @GetMapping("/look/folders/{name}")
    String folder(@PathVariable String name, Model model) {
        Catalogue catalogue = folders.find(name);
        Figures fmt = Figures.of(model);
        model.addAttribute("catalogue", CatalogueView.of(fmt, catalogue));
        model.addAttribute("sizes", SizeClass.values());
        model.addAttribute(
                "page",
                FolderView.of(
                        fmt,
                        AgeMap.of(surveys.ageAndSize(catalogue), today(catalogue)),
                        surveys.largestFiles(catalogue.no(), LARGEST),
                        surveys.largestFolders(catalogue.no(), LARGEST),
                        surveys.byKind(catalogue),
                        surveys.byOwner(catalogue).stream().limit(LARGEST).toList(),
                        surveys.unreadable(catalogue.no(), LARGEST)));
        return "folder";
    }

    @GetMapping("/look/folders/{name}/progress")
    String progress(@PathVariable String name, Model model) {
        model.addAttribute("catalogue", CatalogueView.of(Figures.of(model), folders.find(name)));
        return "folder :: progress";
    }

    @PostMapping("/look/folders/{name}/stop")
    String stop(@PathVariable String name) {
        folders.stop(name);
        return "redirect:/look/folders/" + name;
    }

    @PostMapping("/look/folders/{name}/go-on")
    String goOn(@PathVariable String name) {
        folders.goOn(name);
        return "redirect:/look/folders/" + name;
    }

    @PostMapping("/look/folders/{name}/remove")
    String remove(@PathVariable String name) {
        folders.remove(name);
        return "redirect:/look/folders";
    }

    @GetMapping("/look/folders/{name}/files.csv")
    void export(@PathVariable String name, HttpServletResponse response) throws SQLException, IOException {
        csv.write(folders.find(name), response);
    }

    /** Files of this host age by its clock, those of the demo's shares by the demo's. */
    private LocalDate today(Catalogue catalogue) {
        return catalogue.source() == CatalogueStore.Source.SHARE
                ? clock.today()
                : LocalDate.ofInstant(clock.real(), ZoneOffset.UTC);
    }
}
