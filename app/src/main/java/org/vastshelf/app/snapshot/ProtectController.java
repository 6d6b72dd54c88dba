package org.vastshelf.app.snapshot;

import jakarta.servlet.http.HttpServletRequest;
import java.time.Duration;
import java.time.Instant;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.ModelAttribute;
import org.vastshelf.app.clock.ShelfClock;
import org.vastshelf.app.kit.Figures;
import org.vastshelf.app.kit.Listing;
import org.vastshelf.app.kit.Mark;
import org.vastshelf.app.kit.Page;
import org.vastshelf.app.kit.Scope;
import org.vastshelf.app.snapshot.SnapshotStore.Taken;
import org.vastshelf.app.store.EstateStore;
import org.vastshelf.app.store.UsageStore;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.Share;
import org.vastshelf.core.estate.Usage;

/** What would be lost, by share and mishap. */
@Page
class ProtectController {

    private final SnapshotStore store;
    private final EstateStore estates;
    private final UsageStore usage;
    private final ShelfClock clock;

    ProtectController(SnapshotStore store, EstateStore estates, UsageStore usage, ShelfClock clock) {
        this.store = store;
        this.estates = estates;
        this.usage = usage;
        this.clock = clock;
    }

    /**
     * A share, with what is left of it after each mishap.
     *
     * @param mistake what a file changed or deleted by mistake could be brought back from
     * @param disaster what the volume could be brought back from when it is lost, with its file server or its site
     */
    record Row(String share, String volume, String page, Mark mistake, Mark disaster, int count, String held) {}

    @GetMapping("/protect")
    String protect(@ModelAttribute("scope") Scope scope, HttpServletRequest request, Model model) {
        Figures fmt = Figures.of(model);
        Estate estate = estates.load();
        Usage held = usage.load();
        Map<String, List<Taken>> taken = store.all();
        List<Share> shares = estate.shares().values().stream()
                .filter(share -> scope.covers(estate, estate.volumes().get(share.volume())))
                .sorted(Comparator.comparing(Share::name))
                .toList();
        model.addAttribute(
                "shares",
                Listing.of(
                                request,
                                shares,
                                share -> share.name() + " " + share.volume(),
                                new Listing.Column<>("share", Comparator.comparing(Share::name)),
                                new Listing.Column<>(
                                        "held",
                                        Comparator.comparing(
                                                share -> held.of(share.volume()).snapshots())))
                        .map(share -> row(fmt, share, taken.getOrDefault(share.volume(), List.of()), held)));
        return "protect";
    }

    private Row row(Figures fmt, Share share, List<Taken> taken, Usage held) {
        return new Row(
                share.name(),
                share.volume(),
                "/protect/volumes/" + share.volume(),
                taken.isEmpty()
                        ? Mark.act("nothing")
                        : newest(fmt, taken.getLast().at()),
                Mark.act("nothing"),
                taken.size(),
                fmt.size(held.of(share.volume()).snapshots()));
    }

    private Mark newest(Figures fmt, Instant at) {
        Duration age = Duration.between(at, clock.instant());
        String text = fmt.duration(age) + " old";
        return age.compareTo(Duration.ofDays(1)) > 0 ? Mark.watch(text) : Mark.fine(text);
    }
}
