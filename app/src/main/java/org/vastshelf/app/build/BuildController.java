package org.vastshelf.app.build;

import java.util.Comparator;
import java.util.List;
import java.util.stream.IntStream;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.ModelAttribute;
import org.springframework.web.bind.annotation.RequestParam;
import org.vastshelf.app.hardware.HardwareService;
import org.vastshelf.app.kit.Figure;
import org.vastshelf.app.kit.Figures;
import org.vastshelf.app.kit.LedgerTable;
import org.vastshelf.app.kit.Mark;
import org.vastshelf.app.kit.NotFound;
import org.vastshelf.app.kit.Page;
import org.vastshelf.app.kit.Scope;
import org.vastshelf.app.kit.Standings;
import org.vastshelf.app.orders.OrderService;
import org.vastshelf.app.store.EstateStore;
import org.vastshelf.app.store.UsageStore;
import org.vastshelf.core.estate.Arrival;
import org.vastshelf.core.estate.Drive;
import org.vastshelf.core.estate.DriveState;
import org.vastshelf.core.estate.Enclosure;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.FileServer;
import org.vastshelf.core.estate.Pool;
import org.vastshelf.core.estate.Usage;
import org.vastshelf.core.estate.Volume;
import org.vastshelf.core.failure.PoolState;
import org.vastshelf.core.ledger.ByteLedger;
import org.vastshelf.core.ledger.Ledgers;
import org.vastshelf.core.unit.Counted;

/** Bays, pools and volumes of the part of the estate in scope. */
@Page
class BuildController {

    private static final int MOST_FRONTS = 3;
    private static final int MOST_VOLUMES = 100;

    private final EstateStore estates;
    private final UsageStore usage;
    private final OrderService orders;
    private final HardwareService hardware;

    BuildController(EstateStore estates, UsageStore usage, OrderService orders, HardwareService hardware) {
        this.hardware = hardware;
        this.estates = estates;
        this.usage = usage;
        this.orders = orders;
    }

    /**
     * A file server with its fronts and pools.
     *
     * @param folded whether its fronts are only fetched when somebody opens them, since there are many
     * @param nodes that can be restarted
     */
    record ServerView(
            String name,
            String said,
            boolean folded,
            String count,
            List<Folded> enclosures,
            List<BayPicture> fronts,
            List<Arriving> arrivals,
            List<Integer> nodes,
            List<PoolRow> pools) {}

    /** An enclosure whose front is not drawn yet. */
    record Folded(int number, String said) {}

    /** An enclosure that was racked and is not part of the estate yet. */
    record Arriving(int number, boolean ready, Mark mark, String said) {}

    record PoolRow(
            String name,
            Mark standing,
            String layout,
            String drives,
            long volumes,
            Figure usable,
            Figure free,
            Figure beyond) {}

    @GetMapping("/build")
    String build(@ModelAttribute("scope") Scope scope, Model model) {
        Estate estate = hardware.seenNow();
        Usage held = usage.load();
        model.addAttribute(
                "servers",
                estate.servers().values().stream()
                        .filter(s -> scope.server().isEmpty() || scope.server().equals(s.name()))
                        .map(s -> server(Figures.of(model), estate, held, s, scope))
                        .toList());
        model.addAttribute(
                "ledger",
                LedgerTable.of(
                        Figures.of(model),
                        ledger(estate, held, scope),
                        "",
                        "on the labels",
                        "sum over all drives in scope, and what managed services keep"));
        model.addAttribute("managed", estate.servers().values().stream().anyMatch(FileServer::managed));
        volumes(estate, held, scope, "", model);
        return "build";
    }

    /** The front of one enclosure, for whoever unfolds it. */
    @GetMapping("/build/fronts")
    String fronts(@RequestParam String server, @RequestParam int number, Model model) {
        Estate estate = hardware.seenNow();
        if (!estate.servers().containsKey(server)) {
            throw new NotFound("file server", server);
        }
        model.addAttribute("server", server);
        model.addAttribute(
                "fronts",
                BayPicture.of(estate, server).stream()
                        .filter(front -> front.enclosure().number() == number)
                        .toList());
        return "build :: fronts";
    }

    /** Volumes whose name or pool holds a text. */
    @GetMapping("/build/volumes")
    String find(@ModelAttribute("scope") Scope scope, @RequestParam(defaultValue = "") String q, Model model) {
        volumes(estates.load(), usage.load(), scope, q.strip(), model);
        return "build :: volumes";
    }

    private static void volumes(Estate estate, Usage held, Scope scope, String text, Model model) {
        List<Volume> found = estate.volumes().values().stream()
                .filter(v -> scope.covers(estate, v))
                .filter(v -> v.name().contains(text) || v.pool().contains(text))
                .toList();
        model.addAttribute(
                "volumes",
                found.stream()
                        .limit(MOST_VOLUMES)
                        .map(v -> VolumeRow.of(Figures.of(model), held, v))
                        .toList());
        int more = found.size() - MOST_VOLUMES;
        model.addAttribute("whole", more <= 0);
        model.addAttribute(
                "more",
                more <= 0
                        ? ""
                        : "and " + Figures.of(model).count(more)
                                + " more; narrow the scope on the plank, or find by a part of the name or pool");
    }

    private static ByteLedger ledger(Estate estate, Usage held, Scope scope) {
        if (!scope.pool().isEmpty()) {
            return Ledgers.ofPool(estate, held, estate.pools().get(scope.pool()));
        }
        return scope.server().isEmpty()
                ? Ledgers.ofEstate(estate, held)
                : Ledgers.ofServer(estate, held, scope.server());
    }

    private static ServerView server(Figures fmt, Estate estate, Usage held, FileServer server, Scope scope) {
        List<Enclosure> enclosures = estate.enclosures().values().stream()
                .filter(e -> e.server().equals(server.name()))
                .sorted(Comparator.comparingInt(Enclosure::number))
                .toList();
        boolean folded = enclosures.size() > MOST_FRONTS;
        return new ServerView(
                server.name(),
                server.managed()
                        ? "a managed service, no drives to see"
                        : Counted.of(unclaimed(estate, server.name()).size(), "drive") + " unclaimed",
                folded,
                Counted.of(enclosures.size(), "enclosure"),
                enclosures.stream()
                        .map(e -> new Folded(e.number(), BayPicture.said(e)))
                        .toList(),
                folded ? List.of() : BayPicture.of(estate, server.name()),
                estate.arrivals().values().stream()
                        .filter(a -> a.enclosure().server().equals(server.name()))
                        .map(a -> arriving(fmt, a))
                        .toList(),
                server.managed()
                        ? List.of()
                        : IntStream.rangeClosed(1, server.nodes()).boxed().toList(),
                estate.pools().values().stream()
                        .filter(p -> p.server().equals(server.name()) && scope.covers(p))
                        .map(p -> pool(fmt, estate, held, p))
                        .toList());
    }

    private static Arriving arriving(Figures fmt, Arrival arrival) {
        Drive first = arrival.drives().getFirst();
        return new Arriving(
                arrival.enclosure().number(),
                arrival.isReady(),
                arrival.isReady() ? Mark.waiting("seen") : Mark.watch("not usable yet"),
                "with " + Counted.of(arrival.drives().size(), "drive") + " of " + fmt.size(first.label()) + ", "
                        + first.kind().title()
                        + (arrival.isReady() ? "; not part of the estate yet" : ": " + arrival.missing()));
    }

    private static PoolRow pool(Figures fmt, Estate estate, Usage held, Pool pool) {
        ByteLedger ledger = Ledgers.ofPool(estate, held, pool);
        int spares = pool.spares().size();
        return new PoolRow(
                pool.name(),
                Standings.mark(PoolState.of(estate, pool).standing()),
                pool.isReservation() ? "reservation, " + pool.pace().title() : pool.layoutTitle(),
                pool.members().size() + (spares == 0 ? "" : " + " + spares + " spare"),
                estate.volumesOn(pool.name()).count(),
                fmt.largeFigure(fmt.key("pool", pool.name(), "usable"), Ledgers.usable(estate, pool)),
                fmt.largeFigure(fmt.key("pool", pool.name(), "free"), ledger.free()),
                fmt.largeFigure(fmt.key("pool", pool.name(), "beyond"), ledger.beyond()));
    }

    static List<Drive> unclaimed(Estate estate, String server) {
        return estate.drivesOf(server)
                .filter(d -> d.state() == DriveState.UNCLAIMED)
                .sorted(Comparator.comparing(Drive::enclosure).thenComparing(Drive::bay))
                .toList();
    }
}
