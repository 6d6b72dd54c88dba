package org.vastshelf.app.snapshot;

import jakarta.servlet.http.HttpServletRequest;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.ModelAttribute;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.vastshelf.app.clock.ShelfClock;
import org.vastshelf.app.kit.Days;
import org.vastshelf.app.kit.Figures;
import org.vastshelf.app.kit.Form;
import org.vastshelf.app.kit.Listing;
import org.vastshelf.app.kit.Page;
import org.vastshelf.app.kit.Typed;
import org.vastshelf.app.orders.OrderService;
import org.vastshelf.app.rule.ScheduleForm;
import org.vastshelf.app.security.Someone;
import org.vastshelf.app.snapshot.SnapshotStore.Taken;
import org.vastshelf.app.store.EstateStore;
import org.vastshelf.app.store.UsageStore;
import org.vastshelf.core.change.RuleChange;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.Kinds;
import org.vastshelf.core.estate.Share;
import org.vastshelf.core.estate.SnapshotRule;
import org.vastshelf.core.time.ScheduleWords;
import org.vastshelf.core.unit.Bytes;

/** The snapshots of a volume: what they hold, and when they are taken and deleted. */
@Page
class SnapshotsController {

    private static final int COMING = 3;

    private final Snapshots snapshots;
    private final SnapshotViews views;
    private final SnapshotHolds holds;
    private final EstateStore estates;
    private final UsageStore usage;
    private final OrderService orders;
    private final ShelfClock clock;

    SnapshotsController(
            Snapshots snapshots,
            SnapshotViews views,
            SnapshotHolds holds,
            EstateStore estates,
            UsageStore usage,
            OrderService orders,
            ShelfClock clock) {
        this.snapshots = snapshots;
        this.views = views;
        this.holds = holds;
        this.estates = estates;
        this.usage = usage;
        this.orders = orders;
        this.clock = clock;
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
            String needed,
            List<Look> looks) {}

    /** A share as a snapshot has it. */
    record Look(String share, String href) {}

    /** What deleting the chosen ones would free. */
    record Choice(int count, String freed, boolean mayDelete) {
        public boolean isAny() {
            return count > 0;
        }
    }

    @GetMapping("/protect/volumes/{volume}")
    String volume(
            @AuthenticationPrincipal Someone me,
            @PathVariable String volume,
            @RequestParam(defaultValue = "") List<Integer> chosen,
            HttpServletRequest request,
            Model model) {
        Figures fmt = Figures.of(model);
        Shelf shelf = views.of(volume);
        Typed.Fields fields = Typed.of(model).at("/protect/volumes/" + volume);
        List<String> shares =
                estates.load().sharesOn(volume).map(Share::name).sorted().toList();
        model.addAttribute("volume", volume);
        boolean keeps = shelf.volume().kind().keepsSnapshots();
        model.addAttribute("keeps", keeps);
        model.addAttribute("takes", keeps && me.mayRun());
        model.addAttribute("schedules", keeps && me.isAdministrator());
        model.addAttribute("any", !shelf.taken().isEmpty());
        model.addAttribute("kind", shelf.volume().kind().title());
        model.addAttribute("held", fmt.size(Bytes.of(shelf.held().held())));
        model.addAttribute("used", fmt.size(usage.load().of(volume).used()));
        choose(me, fmt, shelf, chosen, model);
        model.addAttribute("drawn", shelf.held().held() > 0);
        model.addAttribute("lives", LivesPicture.of(fmt, shelf.taken(), views.held(volume)));
        schedule(estates.load(), volume, model);
        model.addAttribute(
                "take",
                Form.of(
                                fields.action(),
                                "Take one now",
                                fields.text("name", "Name", "").width("w-64"))
                        .button("Take it"));
        Map<Integer, List<SnapshotStore.Need>> needed = views.needs(volume);
        List<Integer> newestFirst = IntStream.range(0, shelf.taken().size())
                .map(i -> shelf.taken().size() - 1 - i)
                .boxed()
                .toList();
        model.addAttribute(
                "snapshots",
                Listing.of(request, newestFirst, i -> shelf.taken().get(i).name())
                        .map(i -> line(fmt, shelf, i, chosen, needed, shares)));
        model.addAttribute(
                "until", fields.day("until", "Lock the chosen until", "").width("w-48"));
        return "snapshots";
    }

    private static Line line(
            Figures fmt,
            Shelf shelf,
            int i,
            List<Integer> chosen,
            Map<Integer, List<SnapshotStore.Need>> needed,
            List<String> shares) {
        Taken taken = shelf.taken().get(i);
        return new Line(
                taken.number(),
                taken.name(),
                fmt.moment(taken.at()),
                taken.by(),
                fmt.size(Bytes.of(shelf.held().heldAlone(i))),
                fmt.size(Bytes.of(shelf.held().heldBy(i))),
                chosen.contains(taken.number()),
                needed.getOrDefault(taken.number(), List.of()).stream()
                        .map(SnapshotStore.Need::why)
                        .collect(Collectors.joining("; ")),
                shares.stream()
                        .map(share -> new Look(share, "/protect/snapshots/" + share + "/" + taken.number()))
                        .toList());
    }

    private static void choose(Someone me, Figures fmt, Shelf shelf, List<Integer> chosen, Model model) {
        model.addAttribute(
                "choice",
                new Choice(
                        chosen.size(),
                        fmt.size(shelf.held().freedBy(shelf.positions(chosen))),
                        !chosen.isEmpty() && me.mayRun()));
    }

    /** What deleting those that are ticked would free, as they are ticked. */
    @GetMapping("/protect/volumes/{volume}/choice")
    String choice(
            @AuthenticationPrincipal Someone me,
            @PathVariable String volume,
            @RequestParam(defaultValue = "") List<Integer> chosen,
            Model model) {
        choose(me, Figures.of(model), views.of(volume), chosen, model);
        return "snapshots :: choice";
    }

    private void schedule(Estate estate, String volume, Model model) {
        Typed.Fields fields = Typed.of(model).at("/protect/volumes/" + volume + "/schedule");
        Optional<SnapshotRule> rule = estate.find(Kinds.SNAPSHOTTING, volume);
        model.addAttribute("scheduled", rule.isPresent());
        model.addAttribute("action", fields.action());
        model.addAttribute("when", ScheduleForm.fields(fields, rule.map(SnapshotRule::when), ScheduleForm.always()));
        model.addAttribute("keep", RuleForm.fields(fields, rule));
    }

    /** When it would be taken next, and which of those that are there would go. */
    @GetMapping("/protect/volumes/{volume}/schedule")
    String coming(
            @PathVariable String volume,
            @ModelAttribute ScheduleForm when,
            @ModelAttribute RuleForm form,
            Model model) {
        try {
            model.addAttribute("coming", said(form.rule(volume, when), Figures.of(model)));
        } catch (IllegalArgumentException refused) {
            model.addAttribute("comingProblem", refused.getMessage());
        }
        return "schedule :: coming";
    }

    private String said(SnapshotRule rule, Figures fmt) {
        List<Instant> next = rule.when().runs(clock.instant(), ShelfClock.ZONE, COMING);
        List<Integer> leaving = views.leaving(rule, next.subList(0, Math.min(1, next.size())));
        Map<Integer, String> names =
                views.of(rule.volume()).taken().stream().collect(Collectors.toMap(Taken::number, Taken::name));
        String gone = leaving.isEmpty()
                ? "None that is there would go with the first."
                : fmt.counted(leaving.size(), "snapshot") + " would go with the first, and "
                        + fmt.size(Bytes.of(views.freed(rule.volume(), leaving))) + " be free: "
                        + leaving.stream().map(names::get).collect(Collectors.joining(", ")) + ".";
        return "Comes " + ScheduleWords.of(rule.when()) + ", next "
                + next.stream().map(fmt::moment).collect(Collectors.joining(", ")) + ". " + gone;
    }

    @PostMapping("/protect/volumes/{volume}/schedule")
    String schedule(
            @AuthenticationPrincipal Someone me,
            @PathVariable String volume,
            @ModelAttribute ScheduleForm when,
            @ModelAttribute RuleForm form,
            HttpServletRequest request,
            Model model) {
        try {
            orders.add(me.getName(), new RuleChange.SetRule(form.rule(volume, when)));
            return "redirect:/protect/volumes/" + volume;
        } catch (IllegalArgumentException refused) {
            Typed.refuse(model, refused);
            return volume(me, volume, List.of(), request, model);
        }
    }

    @PostMapping("/protect/volumes/{volume}/schedule/drop")
    String dropSchedule(@AuthenticationPrincipal Someone me, @PathVariable String volume) {
        orders.add(me.getName(), new RuleChange.DropRule(Kinds.SNAPSHOTTING.name(), volume));
        return "redirect:/protect/volumes/" + volume;
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
            return volume(me, volume, List.of(), request, model);
        }
    }

    @PostMapping("/protect/volumes/{volume}/lock")
    String lock(
            @AuthenticationPrincipal Someone me,
            @PathVariable String volume,
            @RequestParam(defaultValue = "") List<Integer> chosen,
            @RequestParam(defaultValue = "") String until,
            HttpServletRequest request,
            Model model) {
        try {
            holds.lock(
                    me.getName(),
                    volume,
                    chosen,
                    Days.read("until", until).atStartOfDay(ShelfClock.ZONE).toInstant());
            return "redirect:/protect/volumes/" + volume;
        } catch (IllegalArgumentException refused) {
            Typed.refuse(model, refused);
            return volume(me, volume, chosen, request, model);
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
            return volume(me, volume, chosen, request, model);
        }
    }
}
