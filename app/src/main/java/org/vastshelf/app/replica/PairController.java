package org.vastshelf.app.replica;

import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
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
import org.vastshelf.app.kit.Mark;
import org.vastshelf.app.kit.NotFound;
import org.vastshelf.app.kit.Page;
import org.vastshelf.app.kit.Typed;
import org.vastshelf.app.orders.OrderService;
import org.vastshelf.app.road.NotThere;
import org.vastshelf.app.road.Taken;
import org.vastshelf.app.rule.ScheduleForm;
import org.vastshelf.app.security.Someone;
import org.vastshelf.app.store.EstateStore;
import org.vastshelf.core.change.Change;
import org.vastshelf.core.change.PairChange;
import org.vastshelf.core.change.RuleChange;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.Kinds;
import org.vastshelf.core.estate.RehearsalRule;
import org.vastshelf.core.estate.ReplicaPair;
import org.vastshelf.core.estate.ReplicaPair.Mode;
import org.vastshelf.core.replica.PairRoute;
import org.vastshelf.core.unit.Bytes;

/** A replica pair: how it stands, and what can be done with it. */
@Page
class PairController {

    private static final String HERE = PairsController.HERE;
    private static final int EVENTS = 200;
    private static final int LEFT = 200;

    private final Copies copies;
    private final LeftFiles besides;
    private final ReplicaStore store;
    private final RehearsalStore rehearsals;
    private final RehearsalDue due;
    private final EstateStore estates;
    private final OrderService orders;
    private final ShelfClock clock;

    PairController(
            Copies copies,
            LeftFiles besides,
            ReplicaStore store,
            RehearsalStore rehearsals,
            RehearsalDue due,
            EstateStore estates,
            OrderService orders,
            ShelfClock clock) {
        this.copies = copies;
        this.besides = besides;
        this.store = store;
        this.rehearsals = rehearsals;
        this.due = due;
        this.estates = estates;
        this.orders = orders;
        this.clock = clock;
    }

    record EventRow(String at, String state, String cause, String lag) {}

    record LeftRow(long no, String share, String path, String kind, String size, String owner, String changed) {}

    /** A rehearsal in a list. */
    record RehearsalRow(long order, String at, String state, String took, Mark mark, String said) {}

    @GetMapping(HERE + "/{volume}")
    String pair(@AuthenticationPrincipal Someone me, @PathVariable String volume, Model model) {
        Figures fmt = Figures.of(model);
        Estate estate = estates.load();
        ReplicaPair pair = estate.find(Kinds.PAIR, volume).orElseThrow(() -> new NotFound("replica pair", volume));
        Optional<Copies.Standing> standing = copies.of(volume);
        Instant now = clock.instant();
        List<ReplicaStore.Event> events = store.events(volume, EVENTS);
        model.addAttribute("pair", PairRow.of(fmt, estate, pair, standing));
        model.addAttribute("copy", pair.copy());
        Optional<Replica> replica = store.find(volume).filter(r -> r.baseAt().isPresent());
        model.addAttribute("readable", me.isAdministrator() && replica.isPresent());
        model.addAttribute("base", replica.map(Replica::base).orElse(0));
        model.addAttribute("host", pair.host());
        model.addAttribute("address", pair.address());
        String progress = standing.map(s -> progress(fmt, s)).orElse("");
        model.addAttribute("sending", !progress.isEmpty());
        model.addAttribute("progress", progress);
        Optional<String> shared = PairRoute.of(estate, pair).shared(estate);
        model.addAttribute("sharing", shared.isPresent());
        model.addAttribute("shared", shared.orElse(""));
        model.addAttribute("lagging", !events.isEmpty());
        model.addAttribute(
                "lag", events.isEmpty() ? null : LagPicture.of(events.reversed(), pair.mode() == Mode.IN_STEP, now));
        model.addAttribute(
                "events",
                events.stream()
                        .map(e -> new EventRow(
                                fmt.moment(e.at()),
                                e.state().title(),
                                e.cause(),
                                fmt.duration(Duration.ofSeconds(e.lagSeconds())) + ", "
                                        + fmt.size(Bytes.of(e.lagBytes()))))
                        .toList());
        model.addAttribute(
                "left",
                store.left(volume, LEFT).stream()
                        .map(l -> new LeftRow(
                                l.no(),
                                l.share(),
                                l.path(),
                                l.kind().toLowerCase(Locale.ROOT),
                                fmt.size(Bytes.of(l.bytes())),
                                l.owner(),
                                fmt.moment(Instant.ofEpochSecond(l.modified()))))
                        .toList());
        model.addAttribute("acts", me.isAdministrator() ? acts(pair) : List.of());
        model.addAttribute("acting", me.isAdministrator());
        rehearsals(me, fmt, estate, volume, model);
        model.addAttribute("action", HERE + "/" + volume);
        return "pair";
    }

    private void rehearsals(Someone me, Figures fmt, Estate estate, String volume, Model model) {
        model.addAttribute(
                "rehearsals",
                rehearsals.of(volume, EVENTS).stream()
                        .map(r -> new RehearsalRow(
                                r.order(),
                                fmt.moment(r.at()),
                                fmt.moment(r.stateAt()),
                                fmt.duration(Duration.ofSeconds(r.seconds())),
                                r.isGood()
                                        ? Mark.fine("right")
                                        : r.done() ? Mark.act("not right") : Mark.watch("under way"),
                                Rehearsing.said(r) + " " + fmt.size(Bytes.of(r.bytes())) + " in all, "
                                        + fmt.size(Bytes.of(r.readBytes())) + " read."))
                        .toList());
        String address = HERE + "/" + volume + "/rehearsals";
        model.addAttribute(
                "byItself",
                new Form(
                        address,
                        "When is it rehearsed by itself?",
                        ScheduleForm.fields(
                                Typed.of(model).at(address),
                                estate.find(Kinds.REHEARSAL, volume).map(RehearsalRule::when),
                                ScheduleForm.daily()),
                        List.of(Form.Button.of("Draft the schedule")),
                        ""));
    }

    /** Rehearses it by itself from then on, or no more. */
    @PostMapping(HERE + "/{volume}/rehearsals")
    String schedule(
            @AuthenticationPrincipal Someone me,
            @PathVariable String volume,
            @ModelAttribute ScheduleForm when,
            Model model) {
        try {
            orders.add(
                    me.getName(),
                    when.schedule()
                            .<Change>map(schedule -> new RuleChange.SetRule(new RehearsalRule(volume, schedule)))
                            .orElseGet(() -> new RuleChange.DropRule(Kinds.REHEARSAL.name(), volume)));
            return "redirect:" + HERE + "/" + volume;
        } catch (IllegalArgumentException refused) {
            Typed.refuse(model, refused);
            return pair(me, volume, model);
        }
    }

    /** Saves a file that was left behind beside what is there now. */
    @PostMapping(HERE + "/{volume}/left")
    String beside(
            @AuthenticationPrincipal Someone me, @PathVariable String volume, @RequestParam long no, Model model) {
        try {
            model.addAttribute("said", besides.save(me.getName(), volume, no));
        } catch (IllegalArgumentException | NotThere | Taken refused) {
            Typed.refuse(model, refused);
        }
        return pair(me, volume, model);
    }

    private static String progress(Figures fmt, Copies.Standing standing) {
        if (standing.goal() == 0) {
            return "";
        }
        return fmt.size(Bytes.of(standing.sent())) + " of " + fmt.size(Bytes.of(standing.goal())) + " sent"
                + standing.arrival().map(at -> ", all by " + fmt.moment(at)).orElse("");
    }

    private static List<Form.Button> acts(ReplicaPair pair) {
        return pair.over()
                ? List.of(Form.Button.of("Draft going back", "act", "back"))
                : List.of(
                        Form.Button.of(
                                pair.paused() ? "Draft going on" : "Draft a pause",
                                "act",
                                pair.paused() ? "on" : "pause"),
                        Form.Button.of("Draft failing over as planned", "act", "planned"),
                        Form.Button.of("Draft failing over in need", "act", "need"),
                        Form.Button.of("Draft a rehearsal", "act", "rehearse"),
                        Form.Button.of("Draft its end", "act", "end"));
    }

    @PostMapping(HERE + "/{volume}")
    String act(@AuthenticationPrincipal Someone me, @PathVariable String volume, @RequestParam String act) {
        orders.add(
                me.getName(),
                switch (act) {
                    case "back" -> new PairChange.GoBack(volume);
                    case "pause" -> new PairChange.RestPair(volume, true);
                    case "on" -> new PairChange.RestPair(volume, false);
                    case "planned" -> new PairChange.FailOver(volume, false);
                    case "need" -> new PairChange.FailOver(volume, true);
                    case "rehearse" -> new PairChange.Rehearse(volume, due.had(volume));
                    case "end" -> new PairChange.EndPair(volume);
                    default ->
                        throw new IllegalArgumentException(
                                "act is '" + act + "', must be back, pause, on, planned, need, rehearse or end");
                });
        return "redirect:" + HERE + "/" + volume;
    }
}
