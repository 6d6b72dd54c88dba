package org.vastshelf.app.desk;

import java.nio.charset.StandardCharsets;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.function.Supplier;
import org.jspecify.annotations.Nullable;
import org.springframework.core.io.InputStreamResource;
import org.springframework.http.ContentDisposition;
import org.springframework.http.HttpHeaders;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.security.access.AccessDeniedException;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.multipart.MultipartFile;
import org.vastshelf.app.kit.AtField;
import org.vastshelf.app.kit.Figures;
import org.vastshelf.app.kit.Page;
import org.vastshelf.app.kit.Typed;
import org.vastshelf.app.road.ContentStore;
import org.vastshelf.app.road.FileRoad;
import org.vastshelf.app.road.NotThere;
import org.vastshelf.app.road.Outcome;
import org.vastshelf.app.road.Workstations;
import org.vastshelf.app.security.Someone;
import org.vastshelf.app.store.EstateStore;
import org.vastshelf.core.estate.AccessRule;
import org.vastshelf.core.estate.Directory;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.FilePath;
import org.vastshelf.core.estate.Person;
import org.vastshelf.core.estate.Share;
import org.vastshelf.core.gate.FileOperation;
import org.vastshelf.core.gate.FileOperation.Kind;
import org.vastshelf.core.unit.Bytes;
import org.vastshelf.core.unit.SizeText;

/** The stand-in workstation: act on a share as a person, and see what the gate says. */
@Page
class DeskController {

    private static final int MOST_FOUND = 20;

    private final FileRoad road;
    private final EstateStore estates;
    private final DeskListing listings;
    private final Directory directory;
    private final ContentStore contents;

    DeskController(
            FileRoad road, EstateStore estates, DeskListing listings, Directory directory, ContentStore contents) {
        this.road = road;
        this.estates = estates;
        this.listings = listings;
        this.directory = directory;
        this.contents = contents;
    }

    /** Who sits there, and where they look. */
    record Seat(String person, String share, String path) {
        Seat {
            person = person == null ? "" : person;
            share = share == null ? "" : share;
            path = path == null || path.isEmpty() ? "/" : path;
        }
    }

    @GetMapping("/desk")
    String desk(
            @AuthenticationPrincipal Someone me,
            @RequestParam(defaultValue = "") String person,
            @RequestParam(defaultValue = "") String share,
            @RequestParam(defaultValue = "/") String path,
            Model model) {
        Estate estate = estates.load();
        String who = person.isEmpty() ? (me.mayRun() ? "suki" : me.getName()) : person;
        String where = share.isEmpty() ? usual(estate, directory.person(who).orElse(me.person())) : share;
        return show(me, new Seat(directory.person(who).isPresent() ? who : me.getName(), where, path), null, model);
    }

    /** The first share on which somebody may do most. */
    private static String usual(Estate estate, Person person) {
        return estate.shares().values().stream()
                .max(Comparator.comparingInt((Share s) -> s.access().stream()
                                .filter(rule -> rule.appliesTo(person) && rule.subject() != AccessRule.Subject.EVERYONE)
                                .mapToInt(rule -> rule.level().ordinal() + 1)
                                .max()
                                .orElse(0))
                        .thenComparing(Share::name, Comparator.reverseOrder()))
                .map(Share::name)
                .orElse("");
    }

    private String show(Someone me, Seat seat, @Nullable Outcome result, Model model) {
        requireMay(me, seat.person());
        Estate estate = estates.load();
        model.addAttribute("seat", seat);
        if (result != null) {
            model.addAttribute("result", AnswerView.of(Figures.of(model), result));
        }
        List<Person> people = me.mayRun()
                ? directory.people()
                : List.of(directory.person(me.getName()).orElseThrow());
        model.addAttribute("page", Chooser.of(Typed.of(model), seat, people, within(me, estate, seat.person())));
        Share share = estate.shares().get(seat.share());
        if (share != null) {
            FilePath path = path(seat.path()).orElse(FilePath.ROOT);
            model.addAttribute("here", DeskView.of(Figures.of(model), path, listings.of(share, seat.person(), path)));
        }
        return "desk";
    }

    /** People and shares whose names hold a text, to choose from while it is typed. */
    @GetMapping("/desk/choices")
    String choices(
            @AuthenticationPrincipal Someone me,
            @RequestParam(defaultValue = "") String person,
            @RequestParam(defaultValue = "") String share,
            Model model) {
        String who = person.strip().toLowerCase(Locale.ROOT);
        String where = share.strip().toLowerCase(Locale.ROOT);
        model.addAttribute(
                "foundPeople",
                !me.mayRun() || who.isEmpty()
                        ? List.of()
                        : directory.people().stream()
                                .filter(p -> p.uid().contains(who)
                                        || p.name().toLowerCase(Locale.ROOT).contains(who))
                                .limit(MOST_FOUND)
                                .toList());
        model.addAttribute(
                "foundShares",
                where.isEmpty()
                        ? List.of()
                        : within(me, estates.load(), me.getName()).stream()
                                .filter(name -> name.toLowerCase(Locale.ROOT).contains(where))
                                .limit(MOST_FOUND)
                                .toList());
        return "desk :: choices";
    }

    /** Shares that somebody can enter; who runs the estate sees all of them, to try what others meet. */
    private List<String> within(Someone me, Estate estate, String uid) {
        Optional<Person> person = directory.person(uid);
        return estate.shares().values().stream()
                .filter(share -> me.mayRun()
                        || person.filter(p -> share.access().stream().anyMatch(rule -> rule.appliesTo(p)))
                                .isPresent())
                .map(Share::name)
                .toList();
    }

    private static Optional<FilePath> path(String text) {
        try {
            return Optional.of(new FilePath(text));
        } catch (IllegalArgumentException none) {
            return Optional.empty();
        }
    }

    private static void requireMay(Someone me, String person) {
        if (!me.actsAs(person)) {
            throw new AccessDeniedException("only administrators and operators act as somebody else");
        }
    }

    @PostMapping("/desk/make")
    String make(
            @AuthenticationPrincipal Someone me,
            Seat seat,
            @RequestParam String name,
            @RequestParam String size,
            Model model) {
        return answer(me, seat, () -> perform(me, seat, Kind.WRITE, name, size), model);
    }

    @PostMapping("/desk/save")
    String save(@AuthenticationPrincipal Someone me, Seat seat, @RequestParam MultipartFile file, Model model) {
        String name = Optional.ofNullable(file.getOriginalFilename()).orElse("");
        return answer(
                me,
                seat,
                () -> road.save(
                        operation(me, seat, Kind.WRITE, name, String.valueOf(file.getSize())), file::getInputStream),
                model);
    }

    @PostMapping("/desk/delete")
    String delete(@AuthenticationPrincipal Someone me, Seat seat, @RequestParam String name, Model model) {
        return answer(me, seat, () -> perform(me, seat, Kind.DELETE, name, "0"), model);
    }

    /** Reads a file through the gate: its contents where somebody saved them, otherwise the verdict alone. */
    @PostMapping("/desk/read")
    Object read(@AuthenticationPrincipal Someone me, Seat seat, @RequestParam String name, Model model) {
        try {
            Outcome result = perform(me, seat, Kind.READ, name, "0");
            if (result.content().isPresent()) {
                Outcome.Content content = result.content().get();
                return ResponseEntity.ok()
                        .contentType(MediaType.APPLICATION_OCTET_STREAM)
                        .contentLength(content.bytes())
                        .header(
                                HttpHeaders.CONTENT_DISPOSITION,
                                ContentDisposition.attachment()
                                        .filename(name, StandardCharsets.UTF_8)
                                        .build()
                                        .toString())
                        .body(new InputStreamResource(contents.open(content)));
            }
            return show(me, seat, result, model);
        } catch (IllegalArgumentException | NotThere refused) {
            Typed.refuse(model, refused);
            return show(me, seat, null, model);
        }
    }

    private String answer(Someone me, Seat seat, Supplier<Outcome> act, Model model) {
        try {
            return show(me, seat, act.get(), model);
        } catch (IllegalArgumentException | NotThere refused) {
            Typed.refuse(model, refused);
            return show(me, seat, null, model);
        }
    }

    private Outcome perform(Someone me, Seat seat, Kind kind, String name, String size) {
        return road.perform(operation(me, seat, kind, name, size));
    }

    private FileOperation operation(Someone me, Seat seat, Kind kind, String name, String size) {
        requireMay(me, seat.person());
        Share share = Optional.ofNullable(estates.load().shares().get(seat.share()))
                .orElseThrow(() -> new NotThere("There is no share '" + seat.share() + "'"));
        if (name.isBlank() || name.contains("/")) {
            throw new AtField("name", "file name is '" + name + "', must not be empty or hold a slash");
        }
        return new FileOperation(
                kind,
                seat.person(),
                seat.share(),
                new FilePath(seat.path()).child(name.strip()),
                AtField.read("size", () -> SizeText.parse("file size", size, Bytes.ZERO, FileOperation.LARGEST_FILE)),
                Workstations.of(share, seat.person()));
    }
}
