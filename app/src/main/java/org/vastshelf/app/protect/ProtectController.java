package org.vastshelf.app.protect;

import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.time.Duration;
import java.time.Instant;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;
import org.apache.commons.csv.CSVFormat;
import org.apache.commons.csv.CSVPrinter;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.ModelAttribute;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.vastshelf.app.clock.ShelfClock;
import org.vastshelf.app.kit.Field;
import org.vastshelf.app.kit.Figures;
import org.vastshelf.app.kit.Listing;
import org.vastshelf.app.kit.Mark;
import org.vastshelf.app.kit.NotFound;
import org.vastshelf.app.kit.Page;
import org.vastshelf.app.kit.Scope;
import org.vastshelf.app.kit.SpreadsheetText;
import org.vastshelf.app.kit.Typed;
import org.vastshelf.app.orders.OrderService;
import org.vastshelf.app.security.Someone;
import org.vastshelf.app.store.EstateStore;
import org.vastshelf.app.store.UsageStore;
import org.vastshelf.core.change.RuleChange;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.Kinds;
import org.vastshelf.core.estate.ProtectionGoal;
import org.vastshelf.core.estate.ProtectionGoal.Loss;
import org.vastshelf.core.estate.Share;
import org.vastshelf.core.estate.Usage;
import org.vastshelf.core.protect.Recovery;
import org.vastshelf.core.replica.PairProposal;
import org.vastshelf.core.unit.Bytes;

/** What would be lost, by share and mishap, and what is wanted. */
@Page
class ProtectController {

    private static final int USUAL_LOSS = 1_440;
    private static final int USUAL_BACK = 240;
    /** Older than this wants to be looked at, where nobody said what is wanted. */
    private static final Duration USUAL = Duration.ofMinutes(USUAL_LOSS);

    private static final char UNBROKEN = '\u00a0';

    private final Losses losses;
    private final EstateStore estates;
    private final UsageStore usage;
    private final OrderService orders;
    private final ShelfClock clock;

    ProtectController(Losses losses, EstateStore estates, UsageStore usage, OrderService orders, ShelfClock clock) {
        this.losses = losses;
        this.estates = estates;
        this.usage = usage;
        this.orders = orders;
        this.clock = clock;
    }

    /**
     * What could be brought back after a mishap.
     *
     * @param detail bytes changed since, how long it takes, and from what; empty for nothing
     * @param why how that was found
     */
    record Cell(Mark mark, String detail, String why) {}

    /** A share with what is left of it after each mishap. */
    record Row(
            String share, String volume, String wanted, List<Cell> cells, int count, String held, String rehearsed) {}

    @GetMapping("/protect")
    String protect(@ModelAttribute("scope") Scope scope, HttpServletRequest request, Model model) {
        Figures fmt = Figures.of(model);
        Estate estate = estates.load();
        Usage held = usage.load();
        Instant now = clock.instant();
        List<Share> shares = shares(estate, scope);
        model.addAttribute(
                "losses", Arrays.stream(Loss.values()).map(Loss::title).toList());
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
                        .mapAll(some -> losses.of(some).stream()
                                .map(row -> row(fmt, row, held, now))
                                .toList()));
        return "protect";
    }

    private static Row row(Figures fmt, Losses.Row row, Usage held, Instant now) {
        return new Row(
                row.share().name(),
                row.share().volume(),
                row.goal()
                        .map(goal -> "at most " + fmt.duration(Duration.ofMinutes(goal.loseMinutes())) + ", within "
                                + fmt.duration(Duration.ofMinutes(goal.backMinutes())))
                        .orElse("say what is wanted"),
                Arrays.stream(Loss.values())
                        .map(loss -> cell(fmt, row, loss, now))
                        .toList(),
                row.snapshots(),
                "hold " + fmt.size(held.of(row.share().volume()).snapshots()),
                rehearsed(fmt, row, now));
    }

    private static String rehearsed(Figures fmt, Losses.Row row, Instant now) {
        return row.copied()
                ? row.rehearsed()
                        .map(at -> "rehearsed " + fmt.duration(Duration.between(at, now)) + " ago")
                        .orElse("never rehearsed")
                : "";
    }

    /** All of them, a line for each share and mishap. */
    @GetMapping("/protect/losses.csv")
    void csv(@ModelAttribute("scope") Scope scope, HttpServletResponse response) throws IOException {
        Estate estate = estates.load();
        Instant now = clock.instant();
        response.setContentType("text/csv;charset=UTF-8");
        response.setHeader("Content-Disposition", "attachment; filename=\"losses.csv\"");
        try (CSVPrinter csv = new CSVPrinter(response.getWriter(), CSVFormat.RFC4180)) {
            csv.printRecord(
                    "share",
                    "volume",
                    "mishap",
                    "newest state",
                    "bytes changed since",
                    "seconds to bring back",
                    "from",
                    "falls short",
                    "failover rehearsed");
            for (Losses.Row row : losses.of(shares(estate, scope))) {
                Share share = row.share();
                for (Loss loss : Loss.values()) {
                    Optional<Recovery> recovery =
                            Optional.ofNullable(row.after().get(loss));
                    csv.printRecord(
                            share.name(),
                            share.volume(),
                            loss.title(),
                            recovery.map(r -> r.state().toString()).orElse(""),
                            recovery.map(r -> String.valueOf(r.changed())).orElse(""),
                            recovery.map(r -> String.valueOf(r.back().toSeconds()))
                                    .orElse(""),
                            recovery.map(r -> SpreadsheetText.written(r.from())).orElse("nothing"),
                            row.shortfall(loss, now).orElse(""),
                            row.rehearsed().map(Instant::toString).orElse(""));
                }
            }
        }
    }

    private static List<Share> shares(Estate estate, Scope scope) {
        return estate.shares().values().stream()
                .filter(share -> scope.covers(estate, estate.volumes().get(share.volume())))
                .sorted(Comparator.comparing(Share::name))
                .toList();
    }

    private static Cell cell(Figures fmt, Losses.Row row, Loss loss, Instant now) {
        Optional<String> shortfall = row.shortfall(loss, now);
        Recovery recovery = row.after().get(loss);
        if (recovery == null) {
            return new Cell(Mark.act("nothing"), "", shortfall.orElse("No state of it would be left."));
        }

        Duration old = Duration.between(recovery.state(), now);
        String age = fmt.duration(old) + " old";
        boolean stale = row.goal().isEmpty() && old.compareTo(USUAL) > 0;
        return new Cell(
                shortfall.isPresent() || stale ? Mark.watch(age) : Mark.fine(age),
                fmt.size(Bytes.of(recovery.changed())) + " changed since; back in "
                        + fmt.duration(recovery.back()).replace(' ', UNBROKEN),
                "From " + recovery.from() + ", as of " + fmt.moment(recovery.state()) + "; " + recovery.how() + "."
                        + shortfall.map(why -> " It falls short: " + why + ".").orElse(""));
    }

    /** What is wanted of a share, and what would mend what falls short. */
    record Gap(String loss, String why, String mend, boolean drafts, String where, String key) {}

    @GetMapping("/protect/shares/{name}")
    String share(@AuthenticationPrincipal Someone me, @PathVariable String name, Model model) {
        Share share =
                Optional.ofNullable(estates.load().shares().get(name)).orElseThrow(() -> new NotFound("share", name));
        Losses.Row row = losses.of(List.of(share)).getFirst();
        Instant now = clock.instant();
        model.addAttribute("share", name);
        model.addAttribute("administers", me.isAdministrator());
        model.addAttribute("set", row.goal().isPresent());
        model.addAttribute("action", "/protect/shares/" + name);
        model.addAttribute("fields", fields(Typed.of(model).at("/protect/shares/" + name), row.goal()));
        model.addAttribute(
                "gaps",
                Arrays.stream(Loss.values())
                        .flatMap(loss -> row.shortfall(loss, now).map(why -> gap(row, loss, why)).stream())
                        .toList());
        return "protect-share";
    }

    private Mending mending(Losses.Row row, Loss loss) {
        Estate estate = estates.load();
        return Mending.of(
                row,
                loss,
                () -> PairProposal.of(
                        estate,
                        usage.load(),
                        estate.volumes().get(row.share().volume()),
                        loss,
                        row.goal().orElseThrow().loseMinutes()));
    }

    private Gap gap(Losses.Row row, Loss loss, String why) {
        Mending mending = mending(row, loss);
        return new Gap(loss.title(), why, mending.said(), mending.change().isPresent(), mending.where(), loss.name());
    }

    private static List<Field> fields(Typed.Fields typed, Optional<ProtectionGoal> goal) {
        List<Field> ticks = Arrays.stream(Loss.values())
                .map(loss -> typed.tick(
                        loss.name(),
                        loss.title(),
                        goal.map(g -> g.against().contains(loss)).orElse(loss != Loss.ACCOUNT)))
                .toList();
        return Stream.concat(
                        Stream.of(
                                typed.number(
                                                "loseMinutes",
                                                "Lose at most what changed in so many minutes",
                                                goal.map(ProtectionGoal::loseMinutes)
                                                        .orElse(USUAL_LOSS))
                                        .width("w-80"),
                                typed.number(
                                                "backMinutes",
                                                "Have it back within so many minutes",
                                                goal.map(ProtectionGoal::backMinutes)
                                                        .orElse(USUAL_BACK))
                                        .width("w-80")),
                        ticks.stream())
                .toList();
    }

    @PostMapping("/protect/shares/{name}")
    String want(
            @AuthenticationPrincipal Someone me,
            @PathVariable String name,
            @RequestParam(defaultValue = "0") int loseMinutes,
            @RequestParam(defaultValue = "0") int backMinutes,
            HttpServletRequest request,
            Model model) {
        try {
            List<Loss> against = Arrays.stream(Loss.values())
                    .filter(loss -> request.getParameter(loss.name()) != null)
                    .toList();
            orders.add(
                    me.getName(), new RuleChange.SetRule(new ProtectionGoal(name, loseMinutes, backMinutes, against)));
            return "redirect:/protect/shares/" + name;
        } catch (IllegalArgumentException refused) {
            Typed.refuse(model, refused);
            return share(me, name, model);
        }
    }

    @PostMapping("/protect/shares/{name}/drop")
    String drop(@AuthenticationPrincipal Someone me, @PathVariable String name) {
        orders.add(me.getName(), new RuleChange.DropRule(Kinds.GOAL.name(), name));
        return "redirect:/protect/shares/" + name;
    }

    /** Drafts what mends a gap. */
    @PostMapping("/protect/shares/{name}/mend")
    String mend(@AuthenticationPrincipal Someone me, @PathVariable String name, @RequestParam Loss loss) {
        Share share =
                Optional.ofNullable(estates.load().shares().get(name)).orElseThrow(() -> new NotFound("share", name));
        Losses.Row row = losses.of(List.of(share)).getFirst();
        if (row.goal().isPresent()) {
            mending(row, loss).change().ifPresent(change -> orders.add(me.getName(), change));
        }
        return "redirect:/protect/shares/" + name;
    }
}
