package org.vastshelf.app.desk;

import java.io.ByteArrayInputStream;
import java.nio.charset.StandardCharsets;
import java.util.Optional;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.multipart.MultipartFile;
import org.vastshelf.app.content.FileBytes;
import org.vastshelf.app.kit.AtField;
import org.vastshelf.app.kit.Page;
import org.vastshelf.app.road.FileRoad;
import org.vastshelf.app.road.Workstations;
import org.vastshelf.app.security.Someone;
import org.vastshelf.app.store.EstateStore;
import org.vastshelf.core.gate.FileOperation;
import org.vastshelf.core.gate.FileOperation.Kind;
import org.vastshelf.core.unit.Bytes;
import org.vastshelf.core.unit.SizeText;

/** What a person does to single files at the desk. */
@Page
class DeskFileActions {

    private final DeskPage page;
    private final FileRoad road;
    private final EstateStore estates;

    DeskFileActions(DeskPage page, FileRoad road, EstateStore estates) {
        this.page = page;
        this.road = road;
        this.estates = estates;
    }

    /** The stand-in client makes a file of which name and size are given. */
    @PostMapping("/desk/make")
    String make(
            @AuthenticationPrincipal Someone me,
            Seat seat,
            @RequestParam String name,
            @RequestParam String size,
            Model model) {
        return page.answer(
                me, seat, () -> road.perform(operation(Kind.WRITE, seat, name).of(size(size))), model);
    }

    private static Bytes size(String size) {
        return AtField.read("size", () -> SizeText.parse("file size", size, Bytes.ZERO, FileOperation.LARGEST_FILE));
    }

    @PostMapping("/desk/save")
    String save(@AuthenticationPrincipal Someone me, Seat seat, @RequestParam MultipartFile file, Model model) {
        String name = Optional.ofNullable(file.getOriginalFilename()).orElse("");
        return page.answer(me, seat, () -> road.save(operation(Kind.WRITE, seat, name), file::getInputStream), model);
    }

    /** Writes text into the chosen file: from a place on, or at its end. */
    @PostMapping("/desk/edit")
    String edit(
            @AuthenticationPrincipal Someone me,
            Seat seat,
            @RequestParam(defaultValue = "") String at,
            @RequestParam(defaultValue = "") String text,
            Model model) {
        byte[] bytes = text.getBytes(StandardCharsets.UTF_8);
        return page.answer(
                me,
                seat,
                () -> {
                    if (bytes.length == 0) {
                        throw new AtField("text", "text is empty, must hold what is to be written");
                    }
                    FileOperation edit = operation(Kind.EDIT, seat, seat.chosen());
                    FileBytes.Source source = () -> new ByteArrayInputStream(bytes);
                    return at.isBlank() ? road.append(edit, source) : road.edit(edit, offset(at), source);
                },
                model);
    }

    private static long offset(String at) {
        try {
            long offset = Long.parseLong(at.strip());
            if (offset >= 0 && offset <= FileOperation.LARGEST_FILE.value()) {
                return offset;
            }
        } catch (NumberFormatException noNumber) {
            // Told below, with the bound.
        }
        throw new AtField(
                "at",
                "offset is '" + at + "', must be a whole number of bytes from 0 to "
                        + FileOperation.LARGEST_FILE.value() + ", or empty for the end");
    }

    @PostMapping("/desk/delete")
    String delete(@AuthenticationPrincipal Someone me, Seat seat, @RequestParam String name, Model model) {
        return page.answer(me, seat, () -> road.perform(operation(Kind.DELETE, seat, name)), model);
    }

    private FileOperation operation(Kind kind, Seat seat, String name) {
        return new FileOperation(
                kind,
                seat.person(),
                seat.share(),
                seat.inside("name", name),
                Bytes.ZERO,
                Workstations.of(DeskController.share(estates.load(), seat), seat.person()));
    }
}
