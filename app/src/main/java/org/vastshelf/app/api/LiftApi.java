package org.vastshelf.app.api;

import java.util.List;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RestController;
import org.vastshelf.app.lift.Lifts;
import org.vastshelf.app.security.Someone;

/** Runs of lifts, which carry busy files up to fast parts and quiet ones down. */
@RestController
class LiftApi {

    private final Lifts lifts;

    LiftApi(Lifts lifts) {
        this.lifts = lifts;
    }

    /** The last runs, newest first. */
    @GetMapping("/api/v1/pools/{name}/lifts")
    List<Lifts.Ride> rides(@PathVariable String name) {
        return lifts.rides(name);
    }

    /** Runs the lift now. */
    @PostMapping("/api/v1/pools/{name}/lifts")
    Lifts.Ride run(@AuthenticationPrincipal Someone me, @PathVariable String name) {
        return lifts.run(name, me.getName());
    }
}
