package org.vastshelf.app.snapshot;

import jakarta.servlet.http.HttpServletRequest;
import java.time.Duration;
import java.time.Instant;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.stream.IntStream;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.ModelAttribute;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.vastshelf.app.clock.ShelfClock;
import org.vastshelf.app.kit.Figures;
import org.vastshelf.app.kit.Form;
import org.vastshelf.app.kit.Listing;
import org.vastshelf.app.kit.Mark;
import org.vastshelf.app.kit.Page;
import org.vastshelf.app.kit.Scope;
import org.vastshelf.app.kit.Typed;
import org.vastshelf.app.security.Someone;
import org.vastshelf.app.snapshot.SnapshotStore.Taken;
import org.vastshelf.app.store.EstateStore;
import org.vastshelf.app.store.UsageStore;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.Share;
import org.vastshelf.core.estate.Usage;
import org.vastshelf.core.unit.Bytes;

/** What would be lost, by share and mishap; and the snapshots of a volume. */
@Page
class ProtectController {

    private final Snapshots snapshots;
    private final SnapshotStore store;
    private final EstateStore estates;
    private final UsageStore usage;
    private final ShelfClock clock;

    ProtectController(
            Snapshots snapshots, SnapshotStore store, EstateStore estates, UsageStore usage, ShelfClock clock) {
        this.snapshots = snapshots;
        this.store = store;
        this.estates = estates;
        this.usage = usage;
        this.clock = clock;
    }

    /**
     * A share, with what is left of it after each mishap.
     *
     * @param mistake what a file changed or deleted by mistake could be brought back from
     * @param disaster what the volume could be brought back from when it is lost, with its file server or its site
     */
    record Row(String share, String volume, String page, Mark mistake, Mark disaster, int count, String held) {}

    @GetMapping("/protect")
    String protect(@ModelAttribute("scope") Scope scope, HttpServletRequest request, Model model) {
        Figures fmt = Figures.of(model);
        Estate estate = estates.load();
        Usage held = usage.load();
        Map<String, List<Taken>> taken = store.all();
        List<Share> shares = estate.shares().values().stream()
                .filter(share -> scope.covers(estate, estate.volumes().get(share.volume())))
                .sorted(Comparator.comparing(Share::name))
                .toList();
        model.addAttribute(
                "shares",
                Listing.of(
                                request,
                                shares,
                                share -> share.name() + " " + share.volume(),
                                new Listing.Column<>("share", Comparator.comparing(Share::name)),
                                new Listing.Column<>(
                                        "held",
                                        Comparator.comparing(
                                                share -> held.of(share.volume()).snapshots())))
                        .map(share -> row(fmt, share, taken.getOrDefault(share.volume(), List.of()), held)));
        return "protect";
    }

    private Row row(Figures fmt, Share share, List<Taken> taken, Usage held) {
        return new Row(
                share.name(),
                share.volume(),
                "/protect/volumes/" + share.volume(),
                taken.isEmpty()
                        ? Mark.failed("nothing")
                        : newest(fmt, taken.getLast().at()),
                Mark.failed("nothing"),
                taken.size(),
                fmt.size(held.of(share.volume()).snapshots()));
    }

    private Mark newest(Figures fmt, Instant at) {
        Duration age = Duration.between(at, clock.instant());
        String text = fmt.duration(age) + " old";
        return age.compareTo(Duration.ofDays(1)) > 0 ? Mark.watch(text) : Mark.fine(text);
    }

    /** A snapshot as the page shows it. */
    record Line(
            int number,
            String name,
            String at,
            String by,
            String alone,
            String held,
            boolean chosen,
            List<Look> looks) {}

    /** A share as a snapshot has it. */
    record Look(String share, String href) {}

    /** What deleting the chosen ones would free. */
    record Choice(int count, String freed) {}

    @GetMapping("/protect/volumes/{volume}")
    String volume(
            @PathVariable String volume,
            @RequestParam(defaultValue = "") List<Integer> chosen,
            HttpServletRequest request,
            Model model) {
        Figures fmt = Figures.of(model);
        Snapshots.Shelf shelf = snapshots.of(volume);
        Typed.Fields fields = Typed.of(model).at("/protect/volumes/" + volume);
        List<String> shares =
                estates.load().sharesOn(volume).map(Share::name).sorted().toList();
        model.addAttribute("volume", volume);
        model.addAttribute("keeps", shelf.volume().kind().keepsSnapshots());
        model.addAttribute("kind", shelf.volume().kind().title());
        model.addAttribute("held", fmt.size(Bytes.of(shelf.held().held())));
        model.addAttribute("used", fmt.large(usage.load().of(volume).used()));
        model.addAttribute("count", shelf.taken().size());
        model.addAttribute(
                "choice", new Choice(chosen.size(), fmt.size(shelf.held().freedBy(shelf.positions(chosen)))));
        model.addAttribute(
                "take",
                Form.of(
                                fields.action(),
                                "Take one now",
                                fields.text("name", "Name", "").width("w-64"))
                        .button("Take it"));
        List<Integer> newestFirst = IntStream.range(0, shelf.taken().size())
                .map(i -> shelf.taken().size() - 1 - i)
                .boxed()
                .toList();
        model.addAttribute(
                "snapshots",
                Listing.of(request, newestFirst, i -> shelf.taken().get(i).name())
                        .map(i -> line(fmt, shelf, i, chosen, shares)));
        return "snapshots";
    }

    private static Line line(Figures fmt, Snapshots.Shelf shelf, int i, List<Integer> chosen, List<String> shares) {
        Taken taken = shelf.taken().get(i);
        return new Line(
                taken.number(),
                taken.name(),
                fmt.moment(taken.at()),
                taken.by(),
                fmt.size(Bytes.of(shelf.held().heldAlone(i))),
                fmt.size(Bytes.of(shelf.held().heldBy(i))),
                chosen.contains(taken.number()),
                shares.stream()
                        .map(share -> new Look(share, "/protect/snapshots/" + share + "/" + taken.number()))
                        .toList());
    }

    @PostMapping("/protect/volumes/{volume}")
    String take(
            @AuthenticationPrincipal Someone me,
            @PathVariable String volume,
            @RequestParam(defaultValue = "") String name,
            HttpServletRequest request,
            Model model) {
        try {
            snapshots.take(me.getName(), volume, name);
            return "redirect:/protect/volumes/" + volume;
        } catch (IllegalArgumentException refused) {
            Typed.refuse(model, refused);
            return volume(volume, List.of(), request, model);
        }
    }

    @PostMapping("/protect/volumes/{volume}/delete")
    String delete(
            @AuthenticationPrincipal Someone me,
            @PathVariable String volume,
            @RequestParam(defaultValue = "") List<Integer> chosen,
            HttpServletRequest request,
            Model model) {
        try {
            snapshots.delete(me.getName(), volume, chosen);
            return "redirect:/protect/volumes/" + volume;
        } catch (IllegalArgumentException refused) {
            Typed.refuse(model, refused);
            return volume(volume, chosen, request, model);
        }
    }
}
