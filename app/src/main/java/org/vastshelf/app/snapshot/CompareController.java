package org.vastshelf.app.snapshot;

import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.TreeMap;
import java.util.stream.Collectors;
import org.apache.commons.csv.CSVFormat;
import org.apache.commons.csv.CSVPrinter;
import org.jspecify.annotations.Nullable;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.util.UriUtils;
import org.vastshelf.app.kit.Figures;
import org.vastshelf.app.kit.Listing;
import org.vastshelf.app.kit.NotFound;
import org.vastshelf.app.kit.Page;
import org.vastshelf.app.kit.SpreadsheetText;
import org.vastshelf.app.kit.Typed;
import org.vastshelf.app.snapshot.Comparing.Answer;
import org.vastshelf.app.snapshot.Comparing.Line;
import org.vastshelf.app.snapshot.Comparing.Question;
import org.vastshelf.app.snapshot.Comparing.Sum;
import org.vastshelf.app.store.EstateStore;
import org.vastshelf.core.estate.FilePath;
import org.vastshelf.core.estate.Share;
import org.vastshelf.core.snapshot.Differences.Kind;
import org.vastshelf.core.unit.Bytes;

/** What is different between two states of a folder, and the history of one file. */
@Page
class CompareController {

    private static final int MOST_VERSIONS = 1_000;

    private final Comparing comparing;
    private final Versions versions;
    private final SnapshotStore snapshots;
    private final EstateStore estates;

    CompareController(Comparing comparing, Versions versions, SnapshotStore snapshots, EstateStore estates) {
        this.comparing = comparing;
        this.versions = versions;
        this.snapshots = snapshots;
        this.estates = estates;
    }

    /** A difference as the page shows it. */
    record Row(String kind, String path, String before, String sizeBefore, String sizeAfter) {}

    /** A folder below the one that is compared, with what differs in it. */
    record FolderRow(String name, String added, String changed, String deleted, String renamed, String href) {}

    @GetMapping("/protect/compare/{share}")
    String compare(
            @PathVariable String share,
            @RequestParam(defaultValue = "0") int from,
            @RequestParam(defaultValue = "0") int to,
            @RequestParam(defaultValue = "/") String path,
            HttpServletRequest request,
            Model model) {
        Figures fmt = Figures.of(model);
        Map<Integer, String> states = states(share);
        int first = from == 0 && states.size() > 1
                ? states.keySet().stream().skip(1).findFirst().orElseThrow()
                : from;
        model.addAttribute("share", share);
        model.addAttribute("path", path);
        Typed.Fields fields = Typed.of(model).at("/protect/compare/" + share);
        model.addAttribute(
                "fields",
                List.of(
                        fields.select("from", "From", states.keySet(), String::valueOf, states::get, first)
                                .width("w-60"),
                        fields.select("to", "To", states.keySet(), String::valueOf, states::get, to)
                                .width("w-60"),
                        fields.text("path", "Folder", path).width("w-64")));
        Answer answer = new Answer(List.of(), Map.of(), new TreeMap<>());
        try {
            answer = comparing.compare(new Question(share, first, to, new FilePath(path)));
        } catch (IllegalArgumentException refused) {
            Typed.refuse(model, refused);
        }
        String here = "/protect/compare/" + share + "?from=" + first + "&to=" + to;
        model.addAttribute("said", said(fmt, answer));
        model.addAttribute("csv", "/protect/compare/" + share + "/differences.csv");
        model.addAttribute("first", first);
        model.addAttribute("second", to);
        model.addAttribute("folders", folders(fmt, answer, new FilePath(path), here));
        model.addAttribute(
                "lines",
                Listing.of(
                                request,
                                answer.lines(),
                                line -> line.kind() + " " + line.before() + " " + line.after(),
                                new Listing.Column<>("path", Comparator.comparing(Line::path)),
                                new Listing.Column<>("kind", Comparator.comparing(Line::kind)),
                                new Listing.Column<>("size", Comparator.comparingLong(Line::bytesAfter)))
                        .map(line -> row(fmt, line)));
        return "compare";
    }

    /** By number; 0 is what is there now, the newest first. */
    private Map<Integer, String> states(String shareName) {
        Share share = estates.load().shares().get(shareName);
        if (share == null) {
            throw new NotFound("share", shareName);
        }
        Map<Integer, String> states = new LinkedHashMap<>();
        states.put(Comparing.NOW, "as it is now");
        snapshots.of(share.volume()).reversed().forEach(taken -> states.put(taken.number(), taken.name()));
        return states;
    }

    private static String word(Kind kind) {
        return kind.name().toLowerCase(Locale.ROOT);
    }

    private static String said(Figures fmt, Answer answer) {
        return answer.sums().isEmpty()
                ? "Nothing is different."
                : answer.sums().entrySet().stream()
                        .map(e -> fmt.counted(e.getValue().files(), "file") + " " + word(e.getKey()) + ", "
                                + fmt.size(Bytes.of(e.getValue().bytes())))
                        .collect(Collectors.joining("; ", "", "."));
    }

    private static List<FolderRow> folders(Figures fmt, Answer answer, FilePath path, String here) {
        List<FolderRow> rows = new ArrayList<>();
        answer.folders()
                .forEach((name, sums) -> rows.add(new FolderRow(
                        name.isEmpty() ? "in the folder itself" : name + "/",
                        sum(fmt, sums.get(Kind.ADDED)),
                        sum(fmt, sums.get(Kind.CHANGED)),
                        sum(fmt, sums.get(Kind.DELETED)),
                        sum(fmt, sums.get(Kind.RENAMED)),
                        here + "&path="
                                + UriUtils.encodeQueryParam(
                                        (name.isEmpty() ? path : path.child(name)).text(), StandardCharsets.UTF_8))));
        return rows;
    }

    private static String sum(Figures fmt, @Nullable Sum sum) {
        return sum == null ? "—" : fmt.count(sum.files()) + " · " + fmt.size(Bytes.of(sum.bytes()));
    }

    private static Row row(Figures fmt, Line line) {
        return new Row(
                word(line.kind()),
                line.path(),
                line.kind() == Kind.RENAMED ? "was " + line.before() : "",
                line.before().isEmpty() ? "—" : fmt.size(Bytes.of(line.bytesBefore())),
                line.after().isEmpty() ? "—" : fmt.size(Bytes.of(line.bytesAfter())));
    }

    /** All that differs, line by line. */
    @GetMapping("/protect/compare/{share}/differences.csv")
    void csv(
            @PathVariable String share,
            @RequestParam int from,
            @RequestParam int to,
            @RequestParam(defaultValue = "/") String path,
            HttpServletResponse response)
            throws IOException {
        Answer answer = comparing.compare(new Question(share, from, to, new FilePath(path)));
        response.setContentType("text/csv;charset=UTF-8");
        response.setHeader("Content-Disposition", "attachment; filename=\"differences.csv\"");
        try (CSVPrinter csv = new CSVPrinter(response.getWriter(), CSVFormat.RFC4180)) {
            csv.printRecord("kind", "before", "after", "bytes before", "bytes after");
            for (Line line : answer.lines()) {
                csv.printRecord(
                        word(line.kind()),
                        SpreadsheetText.written(line.before()),
                        SpreadsheetText.written(line.after()),
                        line.bytesBefore(),
                        line.bytesAfter());
            }
        }
    }

    /** A version as the page shows it. */
    record VersionRow(String changed, String size, String owner, String has, String href) {}

    @GetMapping("/protect/history/{share}")
    String history(@PathVariable String share, @RequestParam String path, Model model) {
        Figures fmt = Figures.of(model);
        Map<Integer, String> names = states(share);
        FilePath file = new FilePath(path);
        model.addAttribute("share", share);
        model.addAttribute("path", path);
        model.addAttribute(
                "versions",
                versions.of(share, file, MOST_VERSIONS).stream()
                        .map(version -> new VersionRow(
                                fmt.moment(version.changed()),
                                fmt.size(Bytes.of(version.bytes())),
                                version.owner(),
                                has(names, version),
                                version.live()
                                        ? ""
                                        : "/protect/snapshots/" + share + "/"
                                                + version.snapshots().getLast()))
                        .toList());
        model.addAttribute("folder", file.parent().text());
        return "history";
    }

    private static String has(Map<Integer, String> names, Versions.Version version) {
        List<Integer> numbers = version.snapshots();
        if (version.live()) {
            return numbers.isEmpty() ? "is there now" : "is there now, and in " + said(names, numbers);
        }
        return said(names, numbers);
    }

    private static String said(Map<Integer, String> names, List<Integer> numbers) {
        String newest = names.getOrDefault(numbers.getLast(), "");
        return numbers.size() == 1 ? newest : newest + " and " + (numbers.size() - 1) + " older";
    }
}
