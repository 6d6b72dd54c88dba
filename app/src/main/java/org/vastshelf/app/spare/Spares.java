package org.vastshelf.app.spare;

import java.math.BigDecimal;
import java.time.LocalDate;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.NavigableMap;
import java.util.Optional;
import org.springframework.stereotype.Service;
import org.vastshelf.app.catalogue.CatalogueStore;
import org.vastshelf.app.catalogue.CatalogueStore.Catalogue;
import org.vastshelf.app.catalogue.CatalogueStore.Source;
import org.vastshelf.app.clock.ShelfClock;
import org.vastshelf.app.kit.NotFound;
import org.vastshelf.app.saving.SavingRun;
import org.vastshelf.app.saving.SavingService;
import org.vastshelf.app.store.EstateStore;
import org.vastshelf.app.store.UsageStore;
import org.vastshelf.core.estate.ColdPrices;
import org.vastshelf.core.estate.ColdStore;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.Kinds;
import org.vastshelf.core.estate.PoolPrice;
import org.vastshelf.core.estate.Share;
import org.vastshelf.core.estate.TieringRule;
import org.vastshelf.core.estate.Usage;
import org.vastshelf.core.saving.Breakdown;
import org.vastshelf.core.spare.Ages;
import org.vastshelf.core.spare.ShareCost;

/** What shares cost, and what they would cost otherwise, from what was measured, recorded and priced. */
@Service
public class Spares {

    static final int MONTHS = 24;

    private final EstateStore estates;
    private final UsageStore usage;
    private final CatalogueStore catalogues;
    private final SavingService savings;
    private final AgeHistoryStore history;
    private final AgeFolderStore folders;
    private final ShelfClock clock;

    Spares(
            EstateStore estates,
            UsageStore usage,
            CatalogueStore catalogues,
            SavingService savings,
            AgeHistoryStore history,
            AgeFolderStore folders,
            ShelfClock clock) {
        this.estates = estates;
        this.usage = usage;
        this.catalogues = catalogues;
        this.savings = savings;
        this.history = history;
        this.folders = folders;
        this.clock = clock;
    }

    /**
     * A share or a folder, and what is known of it.
     *
     * @param run the last measurement
     * @param saved bytes that a rule of its volume saves there; empty without one
     * @param cost of a share
     */
    public record Spare(Catalogue catalogue, Optional<SavingRun> run, Optional<Long> saved, Optional<ShareCost> cost) {}

    /**
     * An outermost folder of a share.
     *
     * @param folder its path; empty for all others together
     * @param cost named by the folder
     */
    public record Part(String folder, Optional<ShareCost.Equal> equal, ShareCost cost) {}

    /** The outermost folders of a share by the last night. */
    public List<Part> parts(Share share) {
        Estate estate = estates.load();
        Catalogue catalogue = catalogues.find(share.name()).orElseThrow(() -> new NotFound("share", share.name()));
        boolean saves = estate.find(Kinds.SAVING, share.volume()).isPresent();
        Map<String, ShareCost.Equal> equal = new HashMap<>();
        savings.latestOf(share.name())
                .ifPresent(run -> savings.found(run)
                        .groups()
                        .get(Breakdown.By.FOLDER)
                        .forEach(group ->
                                equal.put(group.name(), new ShareCost.Equal(group.bytes(), group.repeated()))));
        Optional<BigDecimal> perTib = estate.find(
                        Kinds.POOL_PRICE, estate.volumes().get(share.volume()).pool())
                .map(PoolPrice::perTibMonth);
        Optional<ColdPrices> cold =
                store(estate).filter(any -> !leaves(estate, share.name())).map(ColdStore::prices);
        return folders.of(catalogue.no()).entrySet().stream()
                .map(of -> {
                    Optional<ShareCost.Equal> there = Optional.ofNullable(equal.get(of.getKey()));
                    return new Part(
                            of.getKey(),
                            there,
                            new ShareCost(of.getKey(), of.getValue(), perTib, there.filter(any -> !saves), cold));
                })
                .toList();
    }

    /**
     * What is known of one catalogue for its departure.
     *
     * @param perTib price of a TiB and month where it lies; empty where nobody set one, and for what is no share
     */
    public record Standing(Optional<BigDecimal> perTib, Ages ages) {}

    public Standing standing(Catalogue catalogue) {
        Estate estate = estates.load();
        return new Standing(
                Optional.ofNullable(estate.shares().get(catalogue.name()))
                        .filter(any -> catalogue.source() == Source.SHARE)
                        .flatMap(share -> estate.find(
                                Kinds.POOL_PRICE,
                                estate.volumes().get(share.volume()).pool()))
                        .map(PoolPrice::perTibMonth),
                history.latest(catalogue.no()));
    }

    /** All shares and folders, in the order of their names. */
    public List<Spare> all() {
        Estate estate = estates.load();
        Usage held = usage.load();
        Map<Integer, SavingRun> runs = savings.latest();
        Map<Integer, Ages> ages = history.latest();
        Optional<ColdStore> cold = store(estate);
        Map<String, BigDecimal> prices = new HashMap<>();
        estate.all(Kinds.POOL_PRICE).values().forEach(price -> prices.put(price.pool(), price.perTibMonth()));
        return catalogues.all().stream()
                .map(catalogue -> {
                    Optional<SavingRun> run = Optional.ofNullable(runs.get(catalogue.no()));
                    Optional<Share> share = Optional.ofNullable(estate.shares().get(catalogue.name()))
                            .filter(any -> catalogue.source() == Source.SHARE);
                    return new Spare(
                            catalogue,
                            run,
                            share.flatMap(s -> saved(estate, held, s)),
                            share.map(s -> new ShareCost(
                                    s.name(),
                                    ages.getOrDefault(catalogue.no(), Ages.NONE),
                                    Optional.ofNullable(prices.get(
                                            estate.volumes().get(s.volume()).pool())),
                                    run.filter(r -> estate.find(Kinds.SAVING, s.volume())
                                                    .isEmpty())
                                            .map(Spares::equal),
                                    cold.filter(any -> !leaves(estate, s.name()))
                                            .map(ColdStore::prices))));
                })
                .toList();
    }

    private static ShareCost.Equal equal(SavingRun run) {
        return new ShareCost.Equal(run.savings().bytes(), run.savings().savedBytes());
    }

    private static Optional<Long> saved(Estate estate, Usage held, Share share) {
        return estate.find(Kinds.SAVING, share.volume())
                .map(rule -> held.of(share.volume()).common().saved().value());
    }

    /** Whether files of a share leave by a rule already. */
    private static boolean leaves(Estate estate, String share) {
        return estate.all(Kinds.TIERING).values().stream()
                .map(TieringRule::places)
                .flatMap(List::stream)
                .anyMatch(place -> place.share().equals(share) && place.folder().isRoot());
    }

    /** The cold store by whose prices is counted: the first one. */
    static Optional<ColdStore> store(Estate estate) {
        return estate.all(Kinds.COLD_STORE).values().stream().findFirst();
    }

    /** How old what shares hold together was at the end of each of the last months. */
    NavigableMap<LocalDate, Ages> months() {
        return history.since(clock.today().minusMonths(MONTHS).withDayOfMonth(1));
    }
}
