package org.vastshelf.app.build;

import java.util.List;
import java.util.Optional;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.vastshelf.app.kit.AtField;
import org.vastshelf.app.kit.Field;
import org.vastshelf.app.kit.Figures;
import org.vastshelf.app.kit.NotFound;
import org.vastshelf.app.kit.Page;
import org.vastshelf.app.kit.Typed;
import org.vastshelf.app.kit.WholeNumbers;
import org.vastshelf.app.orders.OrderService;
import org.vastshelf.app.security.Someone;
import org.vastshelf.app.store.EstateStore;
import org.vastshelf.app.store.UsageStore;
import org.vastshelf.core.change.VolumeChange;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.Usage;
import org.vastshelf.core.estate.Volume;
import org.vastshelf.core.ledger.Ledgers;
import org.vastshelf.core.unit.Bytes;
import org.vastshelf.core.volume.MoveCandidates;

/** Moving a volume to another pool. */
@Page
class MoveController {

    private final EstateStore estates;
    private final UsageStore usage;
    private final OrderService orders;

    MoveController(EstateStore estates, UsageStore usage, OrderService orders) {
        this.estates = estates;
        this.usage = usage;
        this.orders = orders;
    }

    /**
     * What moving it would take and leave.
     *
     * @param somewhere whether it can be moved at all
     */
    record View(String name, String action, String lead, List<Row> pools, boolean somewhere, Field limit) {}

    /**
     * A pool and what it would be like after.
     *
     * @param problem why it can't be moved there; empty where it can
     */
    record Row(
            String pool,
            String server,
            boolean possible,
            String freeBefore,
            String freeAfter,
            String used,
            String problem) {}

    @GetMapping("/build/volumes/{name}/move")
    String move(@PathVariable String name, Model model) {
        Estate estate = estates.load();
        Usage all = usage.load();
        Volume volume = Optional.ofNullable(estate.volumes().get(name)).orElseThrow(() -> new NotFound("volume", name));
        Figures fmt = Figures.of(model);
        String action = "/build/volumes/" + name + "/move";
        List<Row> rows = MoveCandidates.of(estate, all, volume, fmt.units()).stream()
                .map(c -> row(fmt, c))
                .toList();
        model.addAttribute(
                "page",
                new View(
                        name,
                        action,
                        lead(fmt, estate, all, volume),
                        rows,
                        rows.stream().anyMatch(Row::possible),
                        Typed.of(model)
                                .at(action)
                                .text("limit", "Bandwidth, MiB/s", "600")
                                .width("w-40")));
        return "move";
    }

    private static String lead(Figures fmt, Estate estate, Usage all, Volume volume) {
        Bytes free =
                Ledgers.ofPool(estate, all, estate.pools().get(volume.pool())).free();
        Bytes needs = Ledgers.taken(all, volume);
        return "It takes " + fmt.size(needs) + " of its pool, " + volume.pool() + ", which has " + fmt.size(free)
                + " free and would have " + fmt.size(free.plus(needs)) + " after the move. Clients go on meanwhile.";
    }

    private static Row row(Figures fmt, MoveCandidates.Candidate candidate) {
        return new Row(
                candidate.pool().name(),
                candidate.pool().server(),
                candidate.isPossible(),
                fmt.large(candidate.freeBefore()),
                candidate.isPossible() ? fmt.large(candidate.freeAfter()) : "—",
                candidate.isPossible() ? fmt.percent(candidate.usedAfter()) : "—",
                candidate.problem());
    }

    @PostMapping("/build/volumes/{name}/move")
    String addMove(
            @AuthenticationPrincipal Someone me,
            @PathVariable String name,
            @RequestParam(defaultValue = "") String pool,
            @RequestParam(defaultValue = "600") String limit,
            Model model) {
        try {
            if (pool.isEmpty()) {
                throw new IllegalArgumentException("No pool is chosen");
            }
            orders.add(
                    me.getName(),
                    new VolumeChange.MoveVolume(
                            name, pool, AtField.read("limit", () -> WholeNumbers.whole("bandwidth", limit))));
            return "redirect:/build/volumes/" + name;
        } catch (IllegalArgumentException refused) {
            Typed.refuse(model, refused);
            return move(name, model);
        }
    }
}
