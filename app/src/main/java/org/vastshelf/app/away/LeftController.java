package org.vastshelf.app.away;

import java.util.List;
import java.util.Optional;
import java.util.function.Supplier;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.vastshelf.app.content.FarAway;
import org.vastshelf.app.kit.Figures;
import org.vastshelf.app.kit.Form;
import org.vastshelf.app.kit.Mark;
import org.vastshelf.app.kit.Page;
import org.vastshelf.app.kit.Typed;
import org.vastshelf.app.orders.OrderService;
import org.vastshelf.app.road.NotThere;
import org.vastshelf.app.road.Outcome;
import org.vastshelf.app.road.Taken;
import org.vastshelf.app.security.Someone;
import org.vastshelf.core.change.ColdChange;
import org.vastshelf.core.estate.FilePath;

/** What has left, where it lies, and how it comes back. */
@Page
class LeftController {

    private static final String HERE = "/lighten/left";
    private static final int AT_ONCE = 100;

    private final Returning returning;
    private final Reads reads;
    private final OrderService orders;

    LeftController(Returning returning, Reads reads, OrderService orders) {
        this.orders = orders;
        this.reads = reads;
        this.returning = returning;
    }

    /** An object in the list. */
    public record Row(
            long number, String share, String path, String bytes, String left, String store, Mark state, String goes) {}

    /** Somebody whose reads are held back. */
    public record Rush(String person, String address, String since) {}

    @GetMapping(HERE)
    String list(
            @AuthenticationPrincipal Someone me,
            @RequestParam(defaultValue = "") String share,
            @RequestParam(defaultValue = "") String text,
            @RequestParam(defaultValue = "false") boolean unused,
            @RequestParam(defaultValue = "9223372036854775807") long before,
            Model model) {
        Figures fmt = Figures.of(model);
        List<Returning.Left> some = returning.list(share.strip(), text.strip(), unused, before, AT_ONCE + 1);
        Typed.Fields typed = Typed.of(model).at(HERE);
        model.addAttribute(
                "fields",
                List.of(
                        typed.text("text", "Part of the path", text).width("w-60"),
                        typed.text("share", "Share", share).width("w-40"),
                        typed.tick("unused", "only what was deleted or came back", unused)));
        model.addAttribute(
                "rows", some.stream().limit(AT_ONCE).map(left -> row(fmt, left)).toList());
        model.addAttribute(
                "rushes",
                reads.held().stream()
                        .map(held -> new Rush(held.person(), held.address(), fmt.moment(held.since())))
                        .toList());
        model.addAttribute("acts", me.mayRun());
        model.addAttribute("designs", me.isAdministrator());
        Typed.Fields back = Typed.of(model).at(HERE + "/recall");
        model.addAttribute(
                "recall",
                Form.of(
                                back.action(),
                                "Bring a folder back whole",
                                back.text("onShare", "Share", share).width("w-40"),
                                back.text("folder", "Folder", "/").width("w-80"))
                        .button("Add to the draft")
                        .note("An order brings back all that has left of it, as far as there is room."));
        Typed.Fields anew = Typed.of(model).at(HERE + "/rebuild");
        model.addAttribute(
                "rebuild",
                Form.of(
                                anew.action(),
                                "Put files in place from a bucket alone",
                                anew.text("store", "Cold store", "").width("w-40"),
                                anew.text("ofShare", "They were of share", "").width("w-44"),
                                anew.text("onto", "Put them on share", "").width("w-44"))
                        .button("Add to the draft")
                        .note(
                                "For a volume that is lost: of each path the version comes that left last. What is there stays."));
        model.addAttribute("nothing", some.isEmpty());
        model.addAttribute("more", some.size() > AT_ONCE ? some.get(AT_ONCE - 1).number() : 0L);
        model.addAttribute("goesOn", some.size() > AT_ONCE);
        model.addAttribute("share", share);
        model.addAttribute("text", text);
        model.addAttribute("unused", unused);
        return "left";
    }

    private static Row row(Figures fmt, Returning.Left left) {
        return new Row(
                left.number(),
                left.share(),
                left.path(),
                fmt.size(left.bytes()),
                fmt.moment(left.leftAt()),
                left.store(),
                left.unusedSince().isPresent() ? Mark.waiting("no file reads it") : Mark.fine("read by files"),
                left.goesAt().map(fmt::moment).orElse(""));
    }

    @GetMapping(HERE + "/{number}")
    String one(@AuthenticationPrincipal Someone me, @PathVariable long number, Model model) {
        Figures fmt = Figures.of(model);
        Returning.Left left = returning.find(number);
        String here = HERE + "/" + number;
        Typed typed = Typed.of(model);
        model.addAttribute("left", row(fmt, left));
        model.addAttribute("facts", facts(fmt, left));
        model.addAttribute(
                "versions",
                returning.versions(left.share(), new FilePath(left.path()), AT_ONCE).stream()
                        .map(version -> row(fmt, version))
                        .toList());
        model.addAttribute("acts", me.mayRun());
        model.addAttribute("recalls", me.mayRun() && left.unusedSince().isEmpty());
        model.addAttribute(
                "form",
                Form.of(
                                here + "/bring-back",
                                "Put a file in place that reads it",
                                typed.at(here + "/bring-back")
                                        .text("to", "At", left.path())
                                        .width("w-96"),
                                typed.at(here + "/bring-back").tick("replace", "what is there gives way", false))
                        .button("Bring it back")
                        .note("It takes no room: it is read where it lies until somebody writes to it."));
        return "left-one";
    }

    /** Something that is known of an object. */
    public record Fact(String title, String said) {}

    private static List<Fact> facts(Figures fmt, Returning.Left left) {
        return List.of(
                new Fact("Share", left.share()),
                new Fact("Path when it left", left.path()),
                new Fact("Of", left.owner()),
                new Fact("Last changed", fmt.moment(left.modified())),
                new Fact("Length", fmt.size(left.bytes())),
                new Fact("Left", fmt.moment(left.leftAt())),
                new Fact("Lies in", left.store() + ", as " + left.key()),
                new Fact(
                        "Held there as",
                        (left.recipe() ? "a recipe of a stand-in" : "its bytes")
                                + (left.encrypted() ? ", encrypted" : "")),
                new Fact(
                        "Is removed",
                        left.goesAt().map(fmt::moment).orElse("not as long as a file, a snapshot or a copy needs it")));
    }

    @PostMapping(HERE + "/{number}/bring-back")
    String bringBack(
            @AuthenticationPrincipal Someone me,
            @PathVariable long number,
            @RequestParam String to,
            @RequestParam(defaultValue = "false") boolean replace,
            Model model) {
        return tried(
                me,
                number,
                model,
                () -> returning.bringBack(number, Optional.of(new FilePath(to.strip())), replace, me.getName()));
    }

    @PostMapping(HERE + "/{number}/recall")
    String recall(@AuthenticationPrincipal Someone me, @PathVariable long number, Model model) {
        Returning.Left left = returning.find(number);
        return tried(me, number, model, () -> returning.recall(left.share(), new FilePath(left.path()), me.getName()));
    }

    @PostMapping(HERE + "/recall")
    String recallFolder(
            @AuthenticationPrincipal Someone me,
            @RequestParam String onShare,
            @RequestParam String folder,
            Model model) {
        return drafted(me, model, () -> new ColdChange.RecallFiles(onShare.strip(), new FilePath(folder.strip())));
    }

    @PostMapping(HERE + "/rebuild")
    String rebuild(
            @AuthenticationPrincipal Someone me,
            @RequestParam String store,
            @RequestParam String ofShare,
            @RequestParam String onto,
            Model model) {
        return drafted(me, model, () -> new ColdChange.RebuildStubs(store.strip(), ofShare.strip(), onto.strip()));
    }

    private String drafted(Someone me, Model model, Supplier<ColdChange> change) {
        try {
            orders.add(me.getName(), change.get());
            return "redirect:" + HERE;
        } catch (IllegalArgumentException refused) {
            Typed.refuse(model, refused);
            return list(me, "", "", false, Long.MAX_VALUE, model);
        }
    }

    @PostMapping(HERE + "/rushes")
    String letGo(@AuthenticationPrincipal Someone me, @RequestParam String person, @RequestParam String address) {
        reads.letGo(person, address, me.getName());
        return "redirect:" + HERE;
    }

    private interface Deed {
        Outcome run();
    }

    private String tried(Someone me, long number, Model model, Deed deed) {
        try {
            Outcome outcome = deed.run();
            if (outcome.allowed()) {
                return "redirect:" + HERE + "/" + number;
            }
            Typed.refuse(
                    model,
                    new IllegalArgumentException(
                            outcome.verdict(Figures.of(model).units()).reason()));
        } catch (IllegalArgumentException | Taken | NotThere | FarAway refused) {
            Typed.refuse(model, refused);
        }
        return one(me, number, model);
    }
}
