package org.vastshelf.app.api;

import java.util.List;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RestController;
import org.vastshelf.app.kit.NotFound;
import org.vastshelf.app.replica.Copies;
import org.vastshelf.app.store.EstateStore;
import org.vastshelf.core.estate.Kinds;
import org.vastshelf.core.estate.Link;
import org.vastshelf.core.estate.ReplicaPair;

/** Replica pairs, and the links between sites. They are made and changed by orders. */
@RestController
class PairsApi {

    private final EstateStore estates;
    private final Copies copies;

    PairsApi(EstateStore estates, Copies copies) {
        this.estates = estates;
        this.copies = copies;
    }

    @GetMapping("/api/v1/pairs")
    List<ReplicaPair> pairs() {
        return List.copyOf(estates.load().all(Kinds.PAIR).values());
    }

    /** How the copy of a volume stands. */
    @GetMapping("/api/v1/pairs/{volume}")
    Copies.Standing standing(@PathVariable String volume) {
        return copies.of(volume).orElseThrow(() -> new NotFound("replica pair", volume));
    }

    @GetMapping("/api/v1/links")
    List<Link> links() {
        return List.copyOf(estates.load().all(Kinds.LINK).values());
    }
}
