package org.vastshelf.app.retention;

import jakarta.servlet.http.HttpServletRequest;
import java.util.Comparator;
import java.util.function.BiConsumer;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.vastshelf.app.kit.AtField;
import org.vastshelf.app.kit.Figures;
import org.vastshelf.app.kit.Form;
import org.vastshelf.app.kit.Listing;
import org.vastshelf.app.kit.Mark;
import org.vastshelf.app.kit.Page;
import org.vastshelf.app.kit.Typed;
import org.vastshelf.app.security.Someone;
import org.vastshelf.app.store.EstateStore;
import org.vastshelf.core.estate.FilePath;
import org.vastshelf.core.estate.LegalTag;
import org.vastshelf.core.unit.Bytes;

/** Legal tags, and who puts them on and takes them off. */
@Page
class LegalHoldsController {

    private static final String HERE = "/protect/holds";

    private final LegalHolds holds;
    private final EstateStore estates;

    LegalHoldsController(LegalHolds holds, EstateStore estates) {
        this.holds = holds;
        this.estates = estates;
    }

    /**
     * A tag in a list.
     *
     * @param asks whether it can be asked to take it off; else somebody did, and it can be taken off or kept
     */
    record Row(
            String key,
            String tag,
            String share,
            String path,
            String since,
            String by,
            String why,
            Mark state,
            String kept,
            boolean asks) {}

    @GetMapping(HERE)
    String list(@AuthenticationPrincipal Someone me, HttpServletRequest request, Model model) {
        Figures fmt = Figures.of(model);
        model.addAttribute(
                "tags",
                Listing.of(
                                request,
                                holds.all(),
                                tag -> tag.tag() + " " + tag.share() + " " + tag.path() + " " + tag.why(),
                                new Listing.Column<>("tag", Comparator.comparing(LegalTag::tag)),
                                new Listing.Column<>("since", Comparator.comparing(LegalTag::at)))
                        .map(tag -> row(fmt, tag)));
        model.addAttribute("runs", me.mayRun());
        Typed.Fields fields = Typed.of(model).at(HERE);
        model.addAttribute(
                "put",
                Form.of(
                                HERE,
                                "Hold a file or a folder",
                                fields.select(
                                                "share",
                                                "Share",
                                                estates.load().shares().keySet(),
                                                "")
                                        .width("w-48"),
                                fields.text("path", "File or folder", "/").width("w-64"),
                                fields.text("tag", "Tag", "")
                                        .with("placeholder", "case-12")
                                        .width("w-40"),
                                fields.text("why", "Why", "").width("w-80"))
                        .button("Put it on"));
        return "holds";
    }

    private Row row(Figures fmt, LegalTag tag) {
        Holding.Sum kept = holds.kept(tag);
        return new Row(
                tag.key(),
                tag.tag(),
                tag.share(),
                tag.path().text(),
                fmt.moment(tag.at()),
                tag.by(),
                tag.why(),
                tag.release()
                        .map(asked -> Mark.watch(asked.by() + " asks to take it off"))
                        .orElse(Mark.fine("on")),
                fmt.counted(kept.files(), "file") + ", " + fmt.size(Bytes.of(kept.bytes())),
                tag.release().isEmpty());
    }

    @PostMapping(HERE)
    String put(
            @AuthenticationPrincipal Someone me,
            @RequestParam(defaultValue = "") String share,
            @RequestParam(defaultValue = "") String path,
            @RequestParam(defaultValue = "") String tag,
            @RequestParam(defaultValue = "") String why,
            HttpServletRequest request,
            Model model) {
        try {
            FilePath at = AtField.read("path", () -> new FilePath(path.strip()));
            holds.put(me.getName(), share, at, tag.strip(), why.strip());
            return "redirect:" + HERE;
        } catch (IllegalArgumentException refused) {
            Typed.refuse(model, refused);
            return list(me, request, model);
        }
    }

    @PostMapping(HERE + "/ask")
    String ask(@AuthenticationPrincipal Someone me, @RequestParam String key, HttpServletRequest request, Model model) {
        return with(me, key, request, model, holds::ask);
    }

    @PostMapping(HERE + "/keep")
    String keep(
            @AuthenticationPrincipal Someone me, @RequestParam String key, HttpServletRequest request, Model model) {
        return with(me, key, request, model, holds::keep);
    }

    @PostMapping(HERE + "/take-off")
    String takeOff(
            @AuthenticationPrincipal Someone me, @RequestParam String key, HttpServletRequest request, Model model) {
        return with(me, key, request, model, holds::takeOff);
    }

    private String with(
            Someone me, String key, HttpServletRequest request, Model model, BiConsumer<Someone, String> deed) {
        try {
            deed.accept(me, key);
            return "redirect:" + HERE;
        } catch (IllegalArgumentException refused) {
            Typed.refuse(model, refused);
            return list(me, request, model);
        }
    }
}
