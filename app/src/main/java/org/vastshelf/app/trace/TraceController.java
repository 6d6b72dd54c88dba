package org.vastshelf.app.trace;

import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.io.Writer;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.List;
import java.util.stream.Stream;
import org.apache.commons.csv.CSVFormat;
import org.apache.commons.csv.CSVPrinter;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.ModelAttribute;
import org.springframework.web.bind.annotation.RequestParam;
import org.vastshelf.app.kit.Page;
import org.vastshelf.app.kit.Scope;
import org.vastshelf.app.kit.SpreadsheetText;
import org.vastshelf.app.store.EstateStore;
import org.vastshelf.core.audit.AuditLine;
import org.vastshelf.core.estate.Share;

/** Who did what. */
@Page
class TraceController {

    private static final int PAGE = 100;
    private static final int EXPORT = 10_000;
    private static final List<String> OPERATIONS = Stream.concat(
                    Stream.of("READ", "WRITE", "DELETE", "LIST", "ORDER"),
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
        model.addAttribute("filter", scoped);
        model.addAttribute("lines", lines.stream().limit(PAGE).toList());
        model.addAttribute("older", lines.size() > PAGE ? lines.get(PAGE - 1).number() : 0);
        model.addAttribute("operations", OPERATIONS);
        model.addAttribute("count", audit.count());
        model.addAttribute("shares", estates.load().shares().keySet());
        return "trace";
    }

    /** Whether every line is as it was written. */
    @GetMapping("/trace/verification")
    String verify(@RequestParam(defaultValue = "") String noted, Model model) {
        model.addAttribute("noted", noted);
        try {
            model.addAttribute("report", verification.verify(AuditVerification.noted(noted)));
        } catch (IllegalArgumentException refused) {
            model.addAttribute("problem", refused.getMessage());
        }
        return "verification";
    }

    @GetMapping("/trace/lines.csv")
    void csv(@ModelAttribute Query query, HttpServletResponse response) throws IOException {
        response.setContentType("text/csv;charset=UTF-8");
        response.setHeader("Content-Disposition", "attachment; filename=audit-lines.csv");
        try (Writer out = new java.io.OutputStreamWriter(response.getOutputStream(), StandardCharsets.UTF_8);
                CSVPrinter csv = new CSVPrinter(out, CSVFormat.RFC4180)) {
            csv.printRecord(
                    "number", "at", "person", "client", "share", "operation", "path", "bytes", "verdict", "reason");
            for (AuditLine line : audit.page(query.filter(), Long.MAX_VALUE, EXPORT)) {
                csv.printRecord(
                        line.number(),
                        line.at(),
                        SpreadsheetText.written(line.person()),
                        SpreadsheetText.written(line.client()),
                        line.share(),
                        line.operation(),
                        SpreadsheetText.written(line.path()),
                        line.bytes(),
                        line.verdict(),
                        SpreadsheetText.written(line.reason()));
            }
        }
    }
}
