package org.vastshelf.app.lift;

import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import java.util.function.Supplier;
import org.springframework.stereotype.Service;
import org.vastshelf.app.agenda.DueWork;
import org.vastshelf.app.catalogue.CatalogueStore;
import org.vastshelf.app.catalogue.SurveyStore;
import org.vastshelf.app.clock.ShelfClock;
import org.vastshelf.app.store.EstateStore;
import org.vastshelf.app.store.Transactions;
import org.vastshelf.app.store.UsageStore;
import org.vastshelf.app.trace.Deeds;
import org.vastshelf.core.agenda.DueKind;
import org.vastshelf.core.estate.DriveGroup;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.Kinds;
import org.vastshelf.core.estate.LiftRule;
import org.vastshelf.core.estate.Pool;
import org.vastshelf.core.estate.Share;
import org.vastshelf.core.ledger.Ledgers;
import org.vastshelf.core.unit.Bytes;
import org.vastshelf.core.volume.FastPart;
import org.vastshelf.core.volume.LiftPlan;

/** Lifts: busy files rise to the fast part of their pool and quiet ones sink, by the pool's rule or on request. */
@Service
public class Lifts implements DueWork {

    private static final int RUNS = 30;

    private final EstateStore estates;
    private final UsageStore usage;
    private final CatalogueStore catalogues;
    private final SurveyStore surveys;
    private final LiftStore store;
    private final ShelfClock clock;
    private final Transactions transactions;
    private final Deeds deeds;

    Lifts(
            EstateStore estates,
            UsageStore usage,
            CatalogueStore catalogues,
            SurveyStore surveys,
            LiftStore store,
            ShelfClock clock,
            Transactions transactions,
            Deeds deeds) {
        this.transactions = transactions;
        this.deeds = deeds;
        this.estates = estates;
        this.usage = usage;
        this.catalogues = catalogues;
        this.surveys = surveys;
        this.store = store;
        this.clock = clock;
    }

    /**
     * One run as people read it.
     *
     * @param lasted copying, at the limit that the pool's rule had then
     * @param waiting bytes that are wanted in the fast part and have to wait for the next run
     * @param served share of the accesses that the fast part serves after it, 0 to 1
     * @param possible share that it would serve with the busiest files on it, as many as fit
     */
    public record Ride(
            Instant at,
            Duration lasted,
            long risenFiles,
            Bytes risen,
            long sunkFiles,
            Bytes sunk,
            Bytes waiting,
            double served,
            double possible) {}

    /**
     * How a fast part is used.
     *
     * @param size its data bytes
     * @param room what files may take of it
     * @param held bytes of the files that lie on it
     * @param expected share of the accesses that so much room could serve, from the curve
     * @param rides runs of its lift, newest first
     */
    public record Standing(Bytes size, Bytes room, Bytes held, double expected, List<Ride> rides) {}

    @Override
    public DueKind kind() {
        return DueKind.of(Kinds.LIFT);
    }

    /** Runs a lift that its rule wants; where there is no fast part any more, files lie on none. */
    @Override
    public void act(String pool, Instant at) {
        if (Optional.ofNullable(estates.load().pools().get(pool))
                .filter(Pool::isTiered)
                .isPresent()) {
            run(pool, at);
        } else {
            store.forget(pool);
        }
    }

    /**
     * Runs the lift of a pool now.
     *
     * @throws IllegalArgumentException when it has no fast part that adds space, or nothing can be copied on it
     */
    public Ride run(String name, String who) {
        Pool pool = tiered(name);
        String why = pool.isLost()
                ? "Pool " + name + " has lost data"
                : "File server " + pool.server() + " is without power";
        return transactions.run(() -> {
            Ride ride = run(name, clock.instant()).orElseThrow(() -> new IllegalArgumentException(why));
            deeds.done(who, Deeds.Kind.LIFT, "/pools/" + name, "lift run by hand");
            return ride;
        });
    }

    private Pool tiered(String name) {
        Pool pool = estates.load().pools().get(name);
        if (pool == null || !pool.isTiered()) {
            throw new IllegalArgumentException("There is no pool '" + name + "' with a fast part that adds space");
        }
        return pool;
    }

    private Optional<Ride> run(String name, Instant at) {
        Estate estate = estates.load();
        Pool pool = estate.pools().get(name);
        if (pool.isLost() || estate.servers().get(pool.server()).dark()) {
            return Optional.empty();
        }
        LiftStore.Files files = store.files(name, catalogues(estate, name), at);
        Bytes room = LiftPlan.room(estate, usage.load(), pool);
        LiftPlan plan =
                LiftPlan.of(files.items(), room, LiftRule.of(estate, name).budget());
        store.carry(files, plan);
        Bytes risen = bytes(plan.rising());
        Bytes sunk = bytes(plan.sinking());
        Ride ride = new Ride(
                at,
                Duration.ofSeconds(
                        risen.plus(sunk).value() / (LiftRule.of(estate, name).limitMibps() * Bytes.MIB)),
                plan.rising().size(),
                risen,
                plan.sinking().size(),
                sunk,
                plan.waiting(),
                plan.served(),
                LiftPlan.possible(files.items(), room));
        store.add(name, ride);
        return Optional.of(ride);
    }

    private List<Integer> catalogues(Estate estate, String pool) {
        List<String> shares = estate.volumesOn(pool)
                .flatMap(v -> estate.sharesOn(v.name()))
                .map(Share::name)
                .toList();
        return catalogues.named(shares).values().stream()
                .map(CatalogueStore.Catalogue::no)
                .toList();
    }

    private static Bytes bytes(List<LiftPlan.Item> items) {
        return Bytes.sum(items.stream().map(LiftPlan.Item::allocated).toList());
    }

    /** How the fast part of a pool is used; empty when it has none that adds space. */
    public Optional<Standing> standing(Estate estate, Pool pool, Supplier<List<FastPart.Point>> curve) {
        if (!pool.isTiered()) {
            return Optional.empty();
        }
        Bytes room = LiftPlan.room(estate, usage.load(), pool);
        List<Ride> rides = rides(pool.name());
        return Optional.of(new Standing(
                Ledgers.data(estate, pool, DriveGroup.Part.FAST),
                room,
                surveys.onFast(catalogues(estate, pool.name()), pool.name()),
                rides.isEmpty() ? FastPart.served(curve.get(), room) : 0,
                rides));
    }

    /** The last runs of a pool's lift, newest first. */
    public List<Ride> rides(String name) {
        return store.rides(tiered(name).name(), RUNS);
    }
}
