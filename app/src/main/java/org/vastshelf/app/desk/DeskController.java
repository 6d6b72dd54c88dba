package org.vastshelf.app.desk;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.springframework.security.access.AccessDeniedException;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.multipart.MultipartFile;
import org.vastshelf.app.catalogue.CatalogueStore;
import org.vastshelf.app.catalogue.PathBytes;
import org.vastshelf.app.frame.Page;
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

    private static final int SHOWN = 500;

    private final DeskService desk;
    private final EstateStore estates;
    private final CatalogueStore catalogues;
    private final Directory directory;

    DeskController(DeskService desk, EstateStore estates, CatalogueStore catalogues, Directory directory) {
        this.desk = desk;
        this.estates = estates;
        this.catalogues = catalogues;
        this.directory = directory;
    }

    /** Who sits there, and where they look. */
    record Seat(String person, String share, String path) {}

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
        return show(me, new Seat(directory.person(who).isPresent() ? who : me.getName(), where, path), null, "", model);
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

    private String show(Someone me, Seat seat, DeskService.@Nullable Result result, String problem, Model model) {
        requireMay(me, seat.person());
        Estate estate = estates.load();
        model.addAttribute("seat", seat);
        model.addAttribute("result", result);
        model.addAttribute("problem", problem);
        model.addAttribute(
                "people",
                me.mayRun()
                        ? directory.people()
                        : List.of(directory.person(me.getName()).orElseThrow()));
        model.addAttribute("shares", estate.shares().keySet());
        Share share = estate.shares().get(seat.share());
        if (share != null) {
            browse(seat, share, model);
        }
        return "desk";
    }

    private void browse(Seat seat, Share share, Model model) {
        FilePath path = path(seat.path()).orElse(FilePath.ROOT);
        boolean mayRead = share.access().stream()
                .anyMatch(rule -> rule.appliesTo(directory.person(seat.person()).orElseThrow()));
        model.addAttribute("here", path);
        model.addAttribute("mayRead", mayRead);
        model.addAttribute("space", desk.space(share.name(), seat.person(), path));
        List<CatalogueStore.FolderRow> folders = new ArrayList<>();
        List<CatalogueStore.FileEntry> files = new ArrayList<>();
        if (mayRead) {
            catalogues
                    .find(share.name())
                    .ifPresent(c -> catalogues
                            .folder(c.no(), PathBytes.of(path.text()))
                            .ifPresent(folder -> {
                                folders.addAll(catalogues.children(c.no(), folder.no(), SHOWN));
                                files.addAll(catalogues.files(c.no(), folder, SHOWN));
                            }));
        }
        model.addAttribute("folders", folders);
        model.addAttribute("files", files);
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
        return perform(me, seat, Kind.WRITE, name, size, model);
    }

    @PostMapping("/desk/save")
    String save(@AuthenticationPrincipal Someone me, Seat seat, @RequestParam MultipartFile file, Model model) {
        String name = Optional.ofNullable(file.getOriginalFilename()).orElse("");
        return perform(me, seat, Kind.WRITE, name, String.valueOf(file.getSize()), model);
    }

    @PostMapping("/desk/delete")
    String delete(@AuthenticationPrincipal Someone me, Seat seat, @RequestParam String name, Model model) {
        return perform(me, seat, Kind.DELETE, name, "0", model);
    }

    private String perform(Someone me, Seat seat, Kind kind, String name, String size, Model model) {
        requireMay(me, seat.person());
        try {
            Share share = Optional.ofNullable(estates.load().shares().get(seat.share()))
                    .orElseThrow(() -> new DeskService.NotThere("There is no share '" + seat.share() + "'"));
            if (name.isBlank() || name.contains("/")) {
                throw new IllegalArgumentException("file name is '" + name + "', must not be empty or hold a slash");
            }
            Bytes bytes = SizeText.parse("file size", size, Bytes.ZERO, FileOperation.LARGEST_FILE);
            DeskService.Result result = desk.perform(new FileOperation(
                    kind,
                    seat.person(),
                    seat.share(),
                    new FilePath(seat.path()).child(name.strip()),
                    bytes,
                    DeskClients.of(share, seat.person())));
            return show(me, seat, result, "", model);
        } catch (IllegalArgumentException | DeskService.NotThere refused) {
            return show(me, seat, null, String.valueOf(refused.getMessage()), model);
        }
    }
}
