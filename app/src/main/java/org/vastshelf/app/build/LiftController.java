package org.vastshelf.app.build;

import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.vastshelf.app.kit.Page;
import org.vastshelf.app.kit.Typed;
import org.vastshelf.app.lift.Lifts;
import org.vastshelf.app.security.Someone;

/** Runs the lift of a pool at once. */
@Page
class LiftController {

    private final Lifts lifts;
    private final PoolPage page;

    LiftController(Lifts lifts, PoolPage page) {
        this.lifts = lifts;
        this.page = page;
    }

    @PostMapping("/build/pools/{name}/lift/run")
    String run(@AuthenticationPrincipal Someone me, @PathVariable String name, Model model) {
        try {
            lifts.run(name, me.getName());
            return "redirect:/build/pools/" + name + "#lift";
        } catch (IllegalArgumentException refused) {
            Typed.refuse(model, refused);
            return page.show(name, model);
        }
    }
}
