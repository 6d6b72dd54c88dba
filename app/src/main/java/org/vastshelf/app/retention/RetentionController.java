package org.vastshelf.app.retention;

import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.time.LocalDate;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.apache.commons.csv.CSVFormat;
import org.apache.commons.csv.CSVPrinter;
import org.springframework.http.HttpHeaders;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.ModelAttribute;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.util.UriUtils;
import org.vastshelf.app.clock.ShelfClock;
import org.vastshelf.app.kit.CalendarText;
import org.vastshelf.app.kit.Days;
import org.vastshelf.app.kit.Figures;
import org.vastshelf.app.kit.Listing;
import org.vastshelf.app.kit.Mark;
import org.vastshelf.app.kit.Page;
import org.vastshelf.app.kit.SpreadsheetText;
import org.vastshelf.app.kit.Typed;
import org.vastshelf.app.orders.OrderService;
import org.vastshelf.app.security.Someone;
import org.vastshelf.core.change.RetentionChange;
import org.vastshelf.core.estate.RetentionRule;
import org.vastshelf.core.unit.Bytes;

/** Retention rules: what they hold, what becomes free, and how they are sealed. */
@Page
class RetentionController {

    private static final String HERE = "/protect/retention";
    /** Days on which something becomes free that a page names. */
    private static final int SHOWN = 60;

    private static final int SOON_DAYS = 30;

    private final Retention retention;
    private final OrderService orders;
    private final ShelfClock clock;

    RetentionController(Retention retention, OrderService orders, ShelfClock clock) {
        this.retention = retention;
        this.orders = orders;
        this.clock = clock;
    }

    /** A rule in a list. */
    record Row(
            String key,
            String share,
            String folder,
            String term,
            String quiet,
            Mark state,
            String sealed,
            String free,
            String soon) {}

    /** What becomes free on a day. */
    record Day(String day, String files, String bytes) {}

    @GetMapping(HERE)
    String list(@AuthenticationPrincipal Someone me, HttpServletRequest request, Model model) {
        Figures fmt = Figures.of(model);
        model.addAttribute(
                "rules",
                Listing.of(
                                request,
                                retention.rules(),
                                RetentionRule::title,
                                new Listing.Column<>("share", Comparator.comparing(RetentionRule::key)))
                        .map(rule -> row(fmt, rule, retention.holding(rule))));
        return show(me, RetentionForm.empty(""), model);
    }

    private String show(Someone me, RetentionForm form, Model model) {
        Typed.Fields fields = Typed.of(model).at(HERE);
        model.addAttribute("composes", me.isAdministrator());
        if (me.isAdministrator()) {
            model.addAttribute(
                    "where",
                    form.where(fields, orders.withDraft(me.getName()).shares().keySet()));
            model.addAttribute("term", form.term(fields));
        }
        return "retention";
    }

    private static Row row(Figures fmt, RetentionRule rule, Holding holding) {
        return new Row(
                rule.key(),
                rule.share(),
                rule.folder().text(),
                rule.term(),
                fmt.duration(rule.quiet()),
                rule.isSealed() ? Mark.fine("sealed") : Mark.watch("on trial"),
                rule.seal()
                        .map(seal -> "sealed " + fmt.moment(seal.at()) + " by " + seal.by()
                                + ", the last file then free on " + seal.lastFree())
                        .orElse("not sealed: can be lifted"),
                said(fmt, holding.free()),
                said(fmt, holding.within(SOON_DAYS)));
    }

    /** What becomes free when, of all rules, with who sealed them; what is free already comes first. */
    @GetMapping(HERE + "/free.csv")
    void csv(HttpServletResponse response) throws IOException {
        response.setContentType("text/csv;charset=UTF-8");
        response.setHeader(HttpHeaders.CONTENT_DISPOSITION, "attachment; filename=\"retention.csv\"");
        try (CSVPrinter csv = new CSVPrinter(response.getWriter(), CSVFormat.RFC4180)) {
            csv.printRecord("share", "folder", "rule", "sealed by", "sealed at", "free on", "files", "bytes");
            for (RetentionRule rule : retention.rules()) {
                Holding holding = retention.holding(rule);
                line(csv, rule, "already", holding.free());
                for (Map.Entry<LocalDate, Holding.Sum> day : holding.coming().entrySet()) {
                    line(csv, rule, day.getKey().toString(), day.getValue());
                }
            }
        }
    }

    private static void line(CSVPrinter csv, RetentionRule rule, String day, Holding.Sum sum) throws IOException {
        csv.printRecord(
                rule.share(),
                SpreadsheetText.written(rule.folder().text()),
                rule.term(),
                rule.seal().map(RetentionRule.Seal::by).orElse(""),
                rule.seal().map(seal -> seal.at().toString()).orElse(""),
                day,
                sum.files(),
                sum.bytes());
    }

    @PostMapping(HERE)
    String compose(
            @AuthenticationPrincipal Someone me,
            @ModelAttribute RetentionForm form,
            HttpServletRequest request,
            Model model) {
        try {
            RetentionChange.SetRetention change = form.change(Optional.empty());
            orders.add(me.getName(), form.change(sealOf(change.rule().key())));
            return "redirect:" + HERE;
        } catch (IllegalArgumentException refused) {
            Typed.refuse(model, refused);
            return list(me, request, model);
        }
    }

    private Optional<RetentionRule.Seal> sealOf(String key) {
        return retention.rules().stream()
                .filter(rule -> rule.key().equals(key))
                .findFirst()
                .flatMap(RetentionRule::seal);
    }

    @GetMapping(HERE + "/rule")
    String rule(@AuthenticationPrincipal Someone me, @RequestParam String key, Model model) {
        Figures fmt = Figures.of(model);
        RetentionRule rule = retention.rule(key);
        Holding holding = retention.holding(rule);
        model.addAttribute("rule", row(fmt, rule, holding));
        model.addAttribute("held", said(fmt, holding.held()));
        model.addAttribute("young", said(fmt, holding.young()));
        model.addAttribute("free", said(fmt, holding.free()));
        model.addAttribute("last", holding.last().toString());
        model.addAttribute("days", fmt.count(holding.coming().size()));
        model.addAttribute(
                "coming",
                holding.coming().entrySet().stream()
                        .limit(SHOWN)
                        .map(e -> new Day(
                                e.getKey().toString(),
                                fmt.count(e.getValue().files()),
                                fmt.size(Bytes.of(e.getValue().bytes()))))
                        .toList());
        model.addAttribute("seals", me.isAdministrator() && !rule.isSealed());
        Typed.Fields fields = Typed.of(model).at(HERE + "/seal");
        model.addAttribute(
                "sealing",
                List.of(
                        fields.text("lastFree", "The day on which the last file that is there becomes free", "")
                                .with("placeholder", "2033-03-31")
                                .width("w-96"),
                        fields.text("years", "Years, typed again", "")
                                .hint("only beyond ten years")
                                .width("w-44")));
        model.addAttribute("changes", me.isAdministrator());
        Typed.Fields longer = Typed.of(model).at(HERE);
        model.addAttribute("longer", RetentionForm.of(rule).term(longer));
        return "retention-rule";
    }

    private static String said(Figures fmt, Holding.Sum sum) {
        return fmt.counted(sum.files(), "file") + ", " + fmt.size(Bytes.of(sum.bytes()));
    }

    @PostMapping(HERE + "/seal")
    String seal(
            @AuthenticationPrincipal Someone me,
            @RequestParam String key,
            @RequestParam(defaultValue = "") String lastFree,
            @RequestParam(defaultValue = "") String years,
            Model model) {
        try {
            LocalDate day = Days.read("lastFree", lastFree);
            retention.seal(me.getName(), key, day, RetentionForm.typed("years", years));
            return "redirect:" + HERE + "/rule?key=" + UriUtils.encodeQueryParam(key, StandardCharsets.UTF_8);
        } catch (IllegalArgumentException refused) {
            Typed.refuse(model, refused);
            return rule(me, key, model);
        }
    }

    @PostMapping(HERE + "/lift")
    String lift(@AuthenticationPrincipal Someone me, @RequestParam String key) {
        orders.add(me.getName(), new RetentionChange.LiftRetention(key));
        return "redirect:" + HERE;
    }

    /** Days on which something becomes free, of all rules, as a calendar. */
    @GetMapping(HERE + "/free.ics")
    ResponseEntity<String> calendar() {
        CalendarText calendar = new CalendarText("retention", clock.instant());
        for (RetentionRule rule : retention.rules()) {
            retention.holding(rule).coming().entrySet().stream()
                    .limit(SHOWN)
                    .forEach(e -> calendar.on(
                            e.getKey(),
                            new CalendarText.Event(
                                    "retention-"
                                            + Integer.toHexString(rule.key().hashCode()) + "-" + e.getKey(),
                                    "Free again: " + e.getValue().files() + " files of " + rule.key(),
                                    rule.title() + "; " + e.getValue().bytes() + " bytes")));
        }
        return ResponseEntity.ok()
                .contentType(MediaType.parseMediaType("text/calendar;charset=UTF-8"))
                .header(HttpHeaders.CONTENT_DISPOSITION, "attachment; filename=\"retention.ics\"")
                .body(calendar.ended());
    }
}
