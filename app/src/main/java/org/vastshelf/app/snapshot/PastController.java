package org.vastshelf.app.snapshot;

import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.util.UriUtils;
import org.vastshelf.app.catalogue.FileRow;
import org.vastshelf.app.kit.AtField;
import org.vastshelf.app.kit.Field;
import org.vastshelf.app.kit.Figures;
import org.vastshelf.app.kit.Page;
import org.vastshelf.app.kit.Typed;
import org.vastshelf.app.orders.OrderService;
import org.vastshelf.app.road.NotThere;
import org.vastshelf.app.road.Outcome;
import org.vastshelf.app.road.Taken;
import org.vastshelf.app.security.Someone;
import org.vastshelf.app.snapshot.BringingBack.Source;
import org.vastshelf.core.change.FileChange.BringBack;
import org.vastshelf.core.change.FileChange.Onto;
import org.vastshelf.core.estate.FilePath;

/** Looks into a snapshot, and brings files back from it. */
@Page
class PastController {

    private static final int SHOWN = 200;

    private final BringingBack back;
    private final RestoreFacts facts;
    private final OrderService orders;

    PastController(BringingBack back, RestoreFacts facts, OrderService orders) {
        this.back = back;
        this.facts = facts;
        this.orders = orders;
    }

    /** A folder or a file as the page shows it; files have no address. */
    record Entry(String name, String path, String size, String owner, String changed, boolean folder) {

        /** Its name without the mark of a folder. */
        public String plain() {
            return folder ? name.substring(0, name.length() - 1) : name;
        }

        public boolean in(List<String> names) {
            return names.contains(plain());
        }
    }

    record Crumb(String name, String path) {}

    @GetMapping("/protect/snapshots/{share}/{number}")
    String look(
            @AuthenticationPrincipal Someone me,
            @PathVariable String share,
            @PathVariable int number,
            @RequestParam(defaultValue = "/") String path,
            @RequestParam(defaultValue = "") String after,
            @RequestParam(defaultValue = "") String file,
            Model model) {
        Figures fmt = Figures.of(model);
        FilePath folder = new FilePath(path);
        BringingBack.Folder found = back.look(new Source(share, number, folder), after, SHOWN);
        List<Entry> entries = new ArrayList<>();
        found.folders()
                .forEach(name ->
                        entries.add(new Entry(name + "/", folder.child(name).text(), "", "", "", true)));
        found.files().forEach(row -> entries.add(entry(fmt, folder, row)));
        model.addAttribute("share", share);
        SnapshotStore.Taken taken = back.snapshot(new Source(share, number, folder));
        model.addAttribute("volume", taken.volume());
        model.addAttribute("snapshot", taken.name());
        model.addAttribute("at", fmt.moment(taken.at()));
        model.addAttribute("folder", path);
        model.addAttribute("along", crumbs(folder));
        model.addAttribute("entries", entries);
        model.addAttribute("next", found.next());
        model.addAttribute("file", file);
        model.addAttribute("bringing", me.mayRun() && !file.isEmpty());
        Typed.Fields fields = Typed.of(model).at("/protect/snapshots/" + share + "/" + number + "/bring");
        List<Field> bring = List.of(
                fields.text("to", "To", file.isEmpty() ? "" : folder.child(file).text())
                        .width("w-96"),
                fields.tick("replace", "replace what is there", false));
        model.addAttribute("bring", bring);
        model.addAttribute("action", fields.action());
        model.addAttribute("here", "/protect/snapshots/" + share + "/" + number);
        model.addAttribute("compare", "/protect/compare/" + share + "?from=" + number);
        model.addAttribute("history", "/protect/history/" + share);
        model.addAttribute("drafts", me.isAdministrator());
        Typed.Fields many = Typed.of(model).at("/protect/snapshots/" + share + "/" + number + "/draft");
        model.addAttribute("draft", many.action());
        model.addAttribute("chosen", many.chosen("names"));
        model.addAttribute(
                "onto",
                List.of(
                        many.text("to", "To the folder", path).width("w-80"),
                        many.select(
                                        "onto",
                                        "Files that are there",
                                        List.of(Onto.values()),
                                        Onto::name,
                                        Onto::title,
                                        Onto.KEEP)
                                .width("w-60")));
        return "past";
    }

    /** Drafts to bring back what is chosen, or all of the folder. */
    @PostMapping("/protect/snapshots/{share}/{number}/draft")
    String draft(
            @AuthenticationPrincipal Someone me,
            @PathVariable String share,
            @PathVariable int number,
            @RequestParam String path,
            @RequestParam(defaultValue = "") List<String> names,
            @RequestParam(defaultValue = "") String to,
            @RequestParam(defaultValue = "KEEP") Onto onto,
            Model model) {
        try {
            BringBack change = new BringBack(
                    share,
                    number,
                    new FilePath(path),
                    names,
                    AtField.read("to", () -> new FilePath(to.strip())),
                    onto,
                    0);
            orders.add(me.getName(), facts.measured(change));
            return "redirect:/protect/snapshots/" + share + "/" + number + "?path="
                    + UriUtils.encodeQueryParam(path, StandardCharsets.UTF_8);
        } catch (IllegalArgumentException refused) {
            Typed.refuse(model, refused);
            return look(me, share, number, path, "", "", model);
        }
    }

    private static Entry entry(Figures fmt, FilePath folder, FileRow row) {
        String name = row.shownName();
        return new Entry(
                name,
                folder.child(name).text(),
                fmt.size(row.bytes()),
                row.owner(),
                fmt.moment(Instant.ofEpochSecond(row.modified())),
                false);
    }

    private static List<Crumb> crumbs(FilePath folder) {
        List<Crumb> crumbs = new ArrayList<>();
        for (FilePath at = folder; !at.isRoot(); at = at.parent()) {
            crumbs.addFirst(new Crumb(at.name(), at.text()));
        }
        return crumbs;
    }

    @PostMapping("/protect/snapshots/{share}/{number}/bring")
    String bring(
            @AuthenticationPrincipal Someone me,
            @PathVariable String share,
            @PathVariable int number,
            @RequestParam String path,
            @RequestParam String file,
            @RequestParam(defaultValue = "") String to,
            @RequestParam(defaultValue = "false") boolean replace,
            Model model) {
        try {
            FilePath source = new FilePath(path).child(file);
            Outcome outcome =
                    back.bring(me.getName(), new Source(share, number, source), new FilePath(to.strip()), replace);
            String said = outcome.allowed()
                    ? "'" + source + "' was brought back to '" + to.strip() + "'."
                    : outcome.verdict(Figures.of(model).units()).reason();
            model.addAttribute("said", said);
            model.addAttribute("done", outcome.allowed());
        } catch (IllegalArgumentException | NotThere | Taken refused) {
            Typed.refuse(model, refused);
        }
        return look(me, share, number, path, "", file, model);
    }
}
