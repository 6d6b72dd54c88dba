package org.vastshelf.app.snapshot;

import jakarta.servlet.http.HttpServletRequest;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.vastshelf.app.kit.AtField;
import org.vastshelf.app.kit.Figures;
import org.vastshelf.app.kit.Form;
import org.vastshelf.app.kit.Listing;
import org.vastshelf.app.kit.Page;
import org.vastshelf.app.kit.Typed;
import org.vastshelf.app.orders.OrderService;
import org.vastshelf.app.security.Someone;
import org.vastshelf.app.store.EstateStore;
import org.vastshelf.app.store.UsageStore;
import org.vastshelf.core.change.CloneChange;
import org.vastshelf.core.estate.CloneOf;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.Kinds;
import org.vastshelf.core.estate.Usage;

/** Clones: what they are of, what they take, and how one is made. */
@Page
class ClonesController {

    private static final String HERE = "/protect/clones";

    private final SnapshotViews views;
    private final EstateStore estates;
    private final UsageStore usage;
    private final OrderService orders;

    ClonesController(SnapshotViews views, EstateStore estates, UsageStore usage, OrderService orders) {
        this.views = views;
        this.estates = estates;
        this.usage = usage;
        this.orders = orders;
    }

    /** A clone in a list. */
    record Row(String name, String source, String snapshot, String pool, String own, String shared) {}

    /**
     * All clones, and a form for one more.
     *
     * @param volume whose snapshot is to be cloned; empty for no form
     */
    @GetMapping(HERE)
    String list(
            @AuthenticationPrincipal Someone me,
            @RequestParam(defaultValue = "") String volume,
            @RequestParam(defaultValue = "0") int snapshot,
            @RequestParam(defaultValue = "false") boolean ofCopy,
            HttpServletRequest request,
            Model model) {
        Figures fmt = Figures.of(model);
        Estate estate = estates.load();
        Usage held = usage.load();
        model.addAttribute(
                "clones",
                Listing.of(
                                request,
                                List.copyOf(estate.all(Kinds.CLONE).values()),
                                clone -> clone.volume() + " " + clone.source(),
                                new Listing.Column<>("clone", Comparator.comparing(CloneOf::volume)),
                                new Listing.Column<>("source", Comparator.comparing(CloneOf::source)))
                        .map(clone -> row(fmt, estate, held, clone)));
        model.addAttribute("none", estate.all(Kinds.CLONE).isEmpty());
        model.addAttribute("acting", me.isAdministrator());
        boolean makes = me.isAdministrator() && !volume.isEmpty();
        model.addAttribute("makes", makes);
        if (makes) {
            List<SnapshotViews.Brief> there = views.brief(volume).reversed();
            model.addAttribute("make", form(model, estate, volume, there, snapshot, ofCopy));
        }
        return "clones";
    }

    private static Form form(
            Model model, Estate estate, String volume, List<SnapshotViews.Brief> there, int snapshot, boolean ofCopy) {
        Map<Integer, String> names =
                there.stream().collect(Collectors.toMap(SnapshotViews.Brief::number, SnapshotViews.Brief::name));
        Typed.Fields fields = Typed.of(model).at(HERE);

        Form form = Form.of(
                HERE + "?volume=" + volume,
                "Make a snapshot of " + volume + " writable",
                fields.select(
                                "snapshot",
                                "Snapshot",
                                there.stream().map(SnapshotViews.Brief::number).toList(),
                                String::valueOf,
                                number -> names.getOrDefault(number, ""),
                                snapshot)
                        .width("w-72"),
                fields.text("name", "Called", "")
                        .hint("volume and share")
                        .with("placeholder", volume + "-then")
                        .width("w-56"));
        Form placed = estate.find(Kinds.PAIR, volume).isEmpty()
                ? form
                : form.with(fields.tick("ofCopy", "of its copy, where that lies", ofCopy));
        return placed.button("Add to the draft");
    }

    private Row row(Figures fmt, Estate estate, Usage held, CloneOf clone) {
        Usage.Held has = held.of(clone.volume());
        String called = views.brief(clone.source()).stream()
                .filter(s -> s.number() == clone.snapshot())
                .map(SnapshotViews.Brief::name)
                .findFirst()
                .orElse("");
        return new Row(
                clone.volume(),
                clone.source(),
                called,
                estate.volumes().get(clone.volume()).pool(),
                fmt.size(has.used()),
                fmt.size(has.borrowed().all()));
    }

    @PostMapping(HERE)
    String make(
            @AuthenticationPrincipal Someone me,
            @RequestParam String volume,
            @RequestParam(defaultValue = "0") int snapshot,
            @RequestParam(defaultValue = "") String name,
            @RequestParam(defaultValue = "false") boolean ofCopy,
            HttpServletRequest request,
            Model model) {
        try {
            requireName(name.strip(), volume);
            orders.add(me.getName(), new CloneChange.MakeClone(volume, snapshot, name.strip(), ofCopy));
            return "redirect:" + HERE;
        } catch (IllegalArgumentException refused) {
            Typed.refuse(model, refused);
            return list(me, volume, snapshot, ofCopy, request, model);
        }
    }

    /** Named as a volume is, which is said at its place and not only in the draft. */
    private static void requireName(String name, String volume) {
        try {
            new CloneOf(name, volume, 0);
        } catch (IllegalArgumentException refused) {
            throw new AtField("name", String.valueOf(refused.getMessage()));
        }
    }

    @PostMapping(HERE + "/{clone}")
    String separate(@AuthenticationPrincipal Someone me, @PathVariable String clone) {
        orders.add(me.getName(), new CloneChange.SeparateClone(clone));
        return "redirect:" + HERE;
    }
}
