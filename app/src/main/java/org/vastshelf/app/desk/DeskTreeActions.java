package org.vastshelf.app.desk;

import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.vastshelf.app.kit.AtField;
import org.vastshelf.app.kit.Page;
import org.vastshelf.app.road.TreeRoad;
import org.vastshelf.app.security.Someone;
import org.vastshelf.core.estate.FilePath;

/** What a person does to folders at the desk, and where files go. */
@Page
class DeskTreeActions {

    private final DeskPage page;
    private final TreeRoad road;

    DeskTreeActions(DeskPage page, TreeRoad road) {
        this.page = page;
        this.road = road;
    }

    /** Gives the chosen file or folder another path on its share. */
    @PostMapping("/desk/move")
    String move(@AuthenticationPrincipal Someone me, Seat seat, @RequestParam String to, Model model) {
        return page.answer(me, seat, () -> road.move(seat.person(), chosen(seat), path(to)), model);
    }

    /** Copies the chosen file or folder. */
    @PostMapping("/desk/copy")
    String copy(
            @AuthenticationPrincipal Someone me,
            Seat seat,
            @RequestParam String onto,
            @RequestParam String to,
            Model model) {
        return page.answer(
                me, seat, () -> road.copy(seat.person(), chosen(seat), new TreeRoad.At(onto, path(to))), model);
    }

    @PostMapping("/desk/folder")
    String make(@AuthenticationPrincipal Someone me, Seat seat, @RequestParam String folder, Model model) {
        return page.answer(
                me,
                seat,
                () -> road.makeFolder(seat.person(), new TreeRoad.At(seat.share(), seat.inside("folder", folder))),
                model);
    }

    /** Removes the chosen folder with all that is in it. */
    @PostMapping("/desk/remove")
    String remove(@AuthenticationPrincipal Someone me, Seat seat, Model model) {
        return page.answer(me, seat, () -> road.removeFolder(seat.person(), chosen(seat)), model);
    }

    private static TreeRoad.At chosen(Seat seat) {
        return new TreeRoad.At(seat.share(), seat.inside("chosen", seat.chosen()));
    }

    private static FilePath path(String to) {
        return AtField.read("to", () -> new FilePath(to.strip()));
    }
}
