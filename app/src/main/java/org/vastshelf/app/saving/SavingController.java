package org.vastshelf.app.saving;

import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.vastshelf.app.catalogue.CatalogueStore;
import org.vastshelf.app.catalogue.CatalogueStore.Catalogue;
import org.vastshelf.app.catalogue.CatalogueStore.Source;
import org.vastshelf.app.kit.Figures;
import org.vastshelf.app.kit.Form;
import org.vastshelf.app.kit.Mark;
import org.vastshelf.app.kit.NotFound;
import org.vastshelf.app.kit.Page;
import org.vastshelf.app.kit.Typed;
import org.vastshelf.app.saving.SavingRun.Method;
import org.vastshelf.app.saving.SavingRun.State;
import org.vastshelf.app.saving.SavingRun.Wanted;
import org.vastshelf.app.security.Someone;
import org.vastshelf.app.store.EstateStore;
import org.vastshelf.core.saving.Savings;

/** What could be spared of each share and folder, as it was measured. */
@Page
class SavingController {

    private static final int KIB = 1_024;

    private final SavingService savings;
    private final CatalogueStore catalogues;
    private final EstateStore estates;

    SavingController(SavingService savings, CatalogueStore catalogues, EstateStore estates) {
        this.estates = estates;
        this.savings = savings;
        this.catalogues = catalogues;
    }

    /** How to cut, as it is chosen. */
    private enum Cut {
        FIXED_4(Method.FIXED, 4),
        FIXED_16(Method.FIXED, 16),
        FIXED_64(Method.FIXED, 64),
        FIXED_128(Method.FIXED, 128),
        BY_CONTENTS_16(Method.CONTENT_DEFINED, 16),
        BY_CONTENTS_64(Method.CONTENT_DEFINED, 64),
        BY_CONTENTS_128(Method.CONTENT_DEFINED, 128);

        private final Method method;
        private final int kib;

        Cut(Method method, int kib) {
            this.method = method;
            this.kib = kib;
        }

        private String title() {
            return how(method, kib * KIB);
        }
    }

    /** Which share of the chunks is compared, as it is chosen. */
    private enum Part {
        ALL(0, "all"),
        QUARTER(2, "every 4th on average"),
        SIXTEENTH(4, "every 16th on average"),
        SIXTY_FOURTH(6, "every 64th on average");

        private final int depth;
        private final String title;

        Part(int depth, String title) {
            this.depth = depth;
            this.title = title;
        }

        private String title() {
            return title;
        }
    }

    private static String how(Wanted wanted) {
        String cut = how(wanted.method(), wanted.chunkBytes());
        return wanted.packing() == Packing.NONE
                ? cut
                : cut + ", " + wanted.packing().title();
    }

    private static String how(Method method, int bytes) {
        return method == Method.FIXED
                ? "blocks of " + bytes / KIB + " KiB"
                : "by contents, " + bytes / KIB + " KiB on average";
    }

    /** A measurement in a list. */
    record RunRow(
            long id,
            String begun,
            String how,
            Mark state,
            String problem,
            String files,
            String read,
            String saved,
            String share,
            String packed,
            boolean running,
            boolean rests) {}

    private static String saved(Figures fmt, Savings savings) {
        String saved = fmt.size(savings.savedBytes());
        return savings.standardErrorBytes() == 0 ? saved : saved + " ± " + fmt.size(savings.standardErrorBytes());
    }

    /** What duplicates and packing spare together. */
    private static String packed(Figures fmt, SavingRun run) {
        Savings savings = run.savings();
        if (run.wanted().packing() == Packing.NONE || savings.bytes() == 0) {
            return "";
        }
        return fmt.percent(savings.savedInAll() / (double) savings.bytes());
    }

    private static String share(Figures fmt, Savings savings) {
        return savings.bytes() == 0 ? "" : fmt.percent(savings.savedBytes() / (double) savings.bytes());
    }

    @GetMapping("/lighten/catalogues/{name}")
    String one(@AuthenticationPrincipal Someone me, @PathVariable String name, Model model) {
        Catalogue catalogue = catalogue(name);
        Figures fmt = Figures.of(model);
        runs(fmt, catalogue, me, model);
        model.addAttribute("bytes", fmt.size(catalogue.bytes()));
        model.addAttribute("files", fmt.counted(catalogue.files(), "file"));
        model.addAttribute("measures", me.mayRun() && catalogue.source() != Source.TABLE);
        model.addAttribute("isTable", catalogue.source() == Source.TABLE);
        Typed.Fields fields = Typed.of(model).at("/lighten/catalogues/" + name);
        model.addAttribute(
                "form",
                Form.of(
                                fields.action(),
                                "Measure",
                                fields.select(
                                                "cut",
                                                "Files are cut into",
                                                Arrays.asList(Cut.values()),
                                                Cut::name,
                                                Cut::title,
                                                Cut.FIXED_64)
                                        .width("w-64"),
                                fields.select(
                                                "packing",
                                                "Each chunk is",
                                                Arrays.asList(Packing.values()),
                                                Packing::name,
                                                Packing::title,
                                                Packing.NONE)
                                        .width("w-52"),
                                fields.select(
                                                "share",
                                                "Chunks that are compared",
                                                Arrays.asList(Part.values()),
                                                Part::name,
                                                Part::title,
                                                Part.ALL)
                                        .width("w-52"),
                                fields.number("mibps", "MiB/s at most", 0)
                                        .between(0, Wanted.MOST_MIBPS)
                                        .hint("0: as fast as it goes")
                                        .width("w-40"),
                                fields.number("minutes", "Minutes at most", 0)
                                        .between(0, Wanted.MOST_SECONDS / 60)
                                        .hint("0: to its end")
                                        .width("w-40"))
                        .button("Measure it"));
        return "savings";
    }

    /** The measurements alone, while one is under way. */
    @GetMapping("/lighten/catalogues/{name}/runs")
    String runs(@AuthenticationPrincipal Someone me, @PathVariable String name, Model model) {
        runs(Figures.of(model), catalogue(name), me, model);
        return "savings :: runs";
    }

    private void runs(Figures fmt, Catalogue catalogue, Someone me, Model model) {
        List<SavingRun> all = savings.of(catalogue.name());
        List<RunRow> runs = all.stream().map(run -> runRow(fmt, catalogue, run)).toList();
        model.addAttribute("name", catalogue.name());
        model.addAttribute("runs", runs);
        model.addAttribute("acts", me.mayRun());
        Optional<SavingRun> told = all.stream()
                .filter(run -> run.state() == State.DONE || run.state() == State.STOPPED)
                .findFirst();
        Found found = told.map(savings::found).orElse(new Found(Map.of(), List.of()));
        FoundView view = new FoundView(fmt);
        model.addAttribute("sorts", told.map(run -> view.sorts(found, run)).orElse(List.of()));
        model.addAttribute("alike", view.alike(found));
        model.addAttribute("foundBy", told.map(run -> of(fmt, run)).orElse(""));
        model.addAttribute("poll", runs.stream().anyMatch(RunRow::running) ? "every 2s" : "none");
    }

    private static String of(Figures fmt, SavingRun run) {
        String when = "By the measurement of " + fmt.moment(run.begunAt()) + ", " + how(run.wanted());
        return run.wanted().depth() == 0 ? when : when + ", told from a sample of the chunks";
    }

    private static RunRow runRow(Figures fmt, Catalogue catalogue, SavingRun run) {
        Savings found = run.savings();
        return new RunRow(
                run.id(),
                fmt.moment(run.begunAt()),
                how(run.wanted()),
                mark(run.state()),
                run.problem()
                        + (run.unreadable() == 0
                                ? ""
                                : (run.problem().isEmpty() ? "" : "; ") + fmt.counted(run.unreadable(), "file")
                                        + " could not be read"),
                fmt.count(found.files()),
                fmt.size(found.bytes()) + (run.state() == State.DONE ? "" : " of " + fmt.size(catalogue.bytes())),
                saved(fmt, found),
                share(fmt, found),
                packed(fmt, run),
                run.state() == State.RUNNING,
                run.state() == State.STOPPED || run.state() == State.FAILED);
    }

    private static Mark mark(State state) {
        return switch (state) {
            case RUNNING -> Mark.waiting("under way");
            case DONE -> Mark.fine("done");
            case STOPPED -> Mark.waiting("stopped");
            case FAILED -> Mark.failed("failed");
        };
    }

    @PostMapping("/lighten/catalogues/{name}")
    String measure(
            @AuthenticationPrincipal Someone me,
            @PathVariable String name,
            @RequestParam Cut cut,
            @RequestParam Packing packing,
            @RequestParam Part share,
            @RequestParam(defaultValue = "0") int mibps,
            @RequestParam(defaultValue = "0") int minutes,
            Model model) {
        try {
            int seconds = Math.multiplyExact(minutes, 60);
            savings.begin(
                    name, new Wanted(cut.method, cut.kib * KIB, packing, share.depth, mibps, seconds), me.getName());
            return "redirect:/lighten/catalogues/" + name;
        } catch (IllegalArgumentException | ArithmeticException refused) {
            Typed.refuse(model, refused);
            return one(me, name, model);
        }
    }

    @PostMapping("/lighten/catalogues/{name}/{id}/stop")
    String stop(@AuthenticationPrincipal Someone me, @PathVariable String name, @PathVariable long id) {
        savings.stop(name, id, me.getName());
        return "redirect:/lighten/catalogues/" + name;
    }

    @PostMapping("/lighten/catalogues/{name}/{id}/go-on")
    String goOn(@AuthenticationPrincipal Someone me, @PathVariable String name, @PathVariable long id, Model model) {
        try {
            savings.goOn(name, id, me.getName());
            return "redirect:/lighten/catalogues/" + name;
        } catch (IllegalArgumentException refused) {
            Typed.refuse(model, refused);
            return one(me, name, model);
        }
    }

    private Catalogue catalogue(String name) {
        return catalogues.find(name).orElseThrow(() -> new NotFound("catalogue", name));
    }
}
