package org.vastshelf.app.trace;

import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.io.Writer;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.Collection;
import java.util.List;
import java.util.Locale;
import java.util.function.Function;
import java.util.stream.Stream;
import org.apache.commons.csv.CSVFormat;
import org.apache.commons.csv.CSVPrinter;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.ModelAttribute;
import org.springframework.web.bind.annotation.RequestParam;
import org.vastshelf.app.kit.AtField;
import org.vastshelf.app.kit.Field;
import org.vastshelf.app.kit.Figures;
import org.vastshelf.app.kit.Mark;
import org.vastshelf.app.kit.Page;
import org.vastshelf.app.kit.Scope;
import org.vastshelf.app.kit.SpreadsheetText;
import org.vastshelf.app.kit.Typed;
import org.vastshelf.app.store.EstateStore;
import org.vastshelf.core.audit.AuditLine;
import org.vastshelf.core.estate.Share;
import org.vastshelf.core.gate.FileOperation;

/** Who did what. */
@Page
class TraceController {

    private static final int PAGE = 100;
    private static final int EXPORT = 10_000;
    private static final List<String> VERDICTS = List.of("ALLOWED", "REFUSED");
    private static final List<String> OPERATIONS = Stream.concat(
                    Stream.concat(Arrays.stream(FileOperation.Kind.values()).map(Enum::name), Stream.of("ORDER")),
                    Arrays.stream(Deeds.Kind.values()).map(Deeds.Kind::word))
            .toList();

    private final AuditStore audit;
    private final EstateStore estates;
    private final AuditVerification verification;

    TraceController(AuditStore audit, EstateStore estates, AuditVerification verification) {
        this.audit = audit;
        this.estates = estates;
        this.verification = verification;
    }

    /** What was typed into the filter. */
    record Query(String person, String share, String operation, String verdict) {
        Query {
            person = person == null ? "" : person.strip();
            share = share == null ? "" : share;
            operation = operation == null ? "" : operation;
            verdict = verdict == null ? "" : verdict;
        }

        AuditStore.Filter filter() {
            return new AuditStore.Filter(person, share, operation, verdict);
        }
    }

    @GetMapping("/trace")
    String trace(
            @ModelAttribute("query") Query query,
            @RequestParam(defaultValue = "9223372036854775807") long before,
            @RequestParam(defaultValue = "0") long receipt,
            @ModelAttribute("scope") Scope scope,
            Model model) {
        Query scoped = query.share().isEmpty() && !scope.volume().isEmpty()
                ? estates.load()
                        .sharesOn(scope.volume())
                        .findFirst()
                        .map(Share::name)
                        .map(s -> new Query(query.person(), s, query.operation(), query.verdict()))
                        .orElse(query)
                : query;
        List<AuditLine> lines =
                receipt > 0 ? audit.find(receipt).stream().toList() : audit.page(scoped.filter(), before, PAGE + 1);
        Figures fmt = Figures.of(model);
        model.addAttribute(
                "lead", fmt.count(audit.count()) + " audit lines, newest first, each chained to the one before.");
        model.addAttribute("filter", scoped);
        model.addAttribute("fields", fields(Typed.of(model).at("trace"), scoped));
        model.addAttribute(
                "lines", lines.stream().limit(PAGE).map(l -> Row.of(fmt, l)).toList());
        if (lines.size() > PAGE) {
            model.addAttribute("older", lines.get(PAGE - 1).number());
        }
        return "trace";
    }

    /** An audit line in the list; the reason is empty where it went without saying. */
    record Row(
            String number,
            String at,
            String person,
            String client,
            String did,
            Mark verdict,
            String where,
            String reason,
            String bytes) {

        static Row of(Figures fmt, AuditLine line) {
            return new Row(
                    fmt.count(line.number()),
                    fmt.moment(line.at()),
                    line.person(),
                    line.client(),
                    line.operation().toLowerCase(Locale.ROOT).replace('_', ' '),
                    line.verdict().equals("ALLOWED") ? Mark.fine("allowed") : Mark.failed("refused"),
                    line.share() + line.path() + (line.target().isEmpty() ? "" : " → " + line.target()),
                    line.reason().equals("allowed") ? "" : " · " + line.reason(),
                    fmt.count(line.bytes()));
        }
    }

    private List<Field> fields(Typed.Fields typed, Query query) {
        return List.of(
                typed.text("person", "Person", query.person()).width("w-40"),
                choice(typed, "share", "Share", estates.load().shares().keySet(), query.share())
                        .width("w-40"),
                choice(typed, "operation", "Operation", OPERATIONS, query.operation())
                        .width("w-32"),
                choice(typed, "verdict", "Verdict", VERDICTS, query.verdict()).width("w-32"));
    }

    private static Field choice(Typed.Fields typed, String name, String label, Collection<String> some, String given) {
        List<String> all = Stream.concat(Stream.of(""), some.stream()).toList();
        return typed.select(
                name,
                label,
                all,
                Function.identity(),
                word -> word.isEmpty() ? "all" : word.toLowerCase(Locale.ROOT),
                given);
    }

    /** Whether every line is as it was written. */
    @GetMapping("/trace/verification")
    String verify(@RequestParam(defaultValue = "") String noted, Model model) {
        try {
            model.addAttribute("report", Found.of(verification.verify(AuditVerification.noted(noted))));
        } catch (IllegalArgumentException refused) {
            Typed.refuse(model, new AtField("noted", String.valueOf(refused.getMessage())));
        }
        model.addAttribute(
                "noted",
                Typed.of(model)
                        .at("/trace/verification")
                        .text("noted", "Noted end, to be checked too", noted)
                        .width("max-w-3xl"));
        return "verification";
    }

    /** What the check found, and the end to note for the next time. */
    record Found(Mark state, String text, String end) {

        static Found of(AuditVerification.Report report) {
            return new Found(
                    report.whole() ? Mark.fine("whole") : Mark.failed("not whole"),
                    report.text() + ".",
                    report.number() + ":" + report.hash());
        }
    }

    @GetMapping("/trace/lines.csv")
    void csv(@ModelAttribute Query query, HttpServletResponse response) throws IOException {
        response.setContentType("text/csv;charset=UTF-8");
        response.setHeader("Content-Disposition", "attachment; filename=audit-lines.csv");
        try (Writer out = new java.io.OutputStreamWriter(response.getOutputStream(), StandardCharsets.UTF_8);
                CSVPrinter csv = new CSVPrinter(out, CSVFormat.RFC4180)) {
            csv.printRecord(
                    "number",
                    "at",
                    "person",
                    "client",
                    "share",
                    "operation",
                    "path",
                    "target",
                    "bytes",
                    "verdict",
                    "reason");
            for (AuditLine line : audit.page(query.filter(), Long.MAX_VALUE, EXPORT)) {
                csv.printRecord(
                        line.number(),
                        line.at(),
                        SpreadsheetText.written(line.person()),
                        SpreadsheetText.written(line.client()),
                        line.share(),
                        line.operation(),
                        SpreadsheetText.written(line.path()),
                        SpreadsheetText.written(line.target()),
                        line.bytes(),
                        line.verdict(),
                        SpreadsheetText.written(line.reason()));
            }
        }
    }
}
