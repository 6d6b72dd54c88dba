package org.vastshelf.app.away;

import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.vastshelf.app.kit.Figures;
import org.vastshelf.app.kit.Page;
import org.vastshelf.app.security.Someone;

/** Whether what has left lies in its bucket. */
@Page
class BucketController {

    private static final String HERE = "/lighten/stores/{name}/objects";
    private static final int SHOWN = 30;

    private final BucketCheck check;

    BucketController(BucketCheck check) {
        this.check = check;
    }

    @GetMapping(HERE)
    String looks(@AuthenticationPrincipal Someone me, @PathVariable String name, Model model) {
        model.addAttribute("name", name);
        model.addAttribute("runs", me.mayRun());
        model.addAttribute("looks", BucketView.of(Figures.of(model), check.of(name, SHOWN)));
        return "bucket";
    }

    @PostMapping(HERE)
    String look(@AuthenticationPrincipal Someone me, @PathVariable String name) {
        check.ask(name, me.getName());
        return "redirect:/lighten/stores/" + name + "/objects";
    }
}
