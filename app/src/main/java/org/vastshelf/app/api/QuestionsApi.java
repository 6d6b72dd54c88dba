package org.vastshelf.app.api;

import java.time.Duration;
import java.util.List;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import org.vastshelf.app.catalogue.CatalogueStore;
import org.vastshelf.app.catalogue.SurveyStore;
import org.vastshelf.app.clock.ShelfClock;
import org.vastshelf.app.store.EstateStore;
import org.vastshelf.app.store.HistoryStore;
import org.vastshelf.app.store.UsageStore;
import org.vastshelf.core.change.PoolChange;
import org.vastshelf.core.change.Replacements;
import org.vastshelf.core.definition.WhatIf;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.FileServer;
import org.vastshelf.core.estate.FileSystemKind;
import org.vastshelf.core.estate.GrowthRule;
import org.vastshelf.core.estate.Paces;
import org.vastshelf.core.estate.Pool;
import org.vastshelf.core.estate.Share;
import org.vastshelf.core.estate.Usage;
import org.vastshelf.core.estate.Volume;
import org.vastshelf.core.forecast.History;
import org.vastshelf.core.layout.Layout;
import org.vastshelf.core.layout.Replacement;
import org.vastshelf.core.ledger.ByteLedger;
import org.vastshelf.core.ledger.Ledgers;
import org.vastshelf.core.unit.Bytes;
import org.vastshelf.core.unit.UnitSystem;
import org.vastshelf.core.volume.BlockFit;
import org.vastshelf.core.volume.FastPart;
import org.vastshelf.core.volume.GrowthSimulation;
import org.vastshelf.core.volume.MoveCandidates;
import org.vastshelf.core.volume.PaceBudget;

/** What would be if: answers that change nothing. */
@RestController
class QuestionsApi {

    private static final int MOST_MIBPS = 1_000_000;

    private final EstateStore estates;
    private final UsageStore usage;
    private final HistoryStore history;
    private final CatalogueStore catalogues;
    private final SurveyStore surveys;
    private final ShelfClock clock;

    QuestionsApi(
            EstateStore estates,
            UsageStore usage,
            HistoryStore history,
            CatalogueStore catalogues,
            SurveyStore surveys,
            ShelfClock clock) {
        this.estates = estates;
        this.usage = usage;
        this.history = history;
        this.catalogues = catalogues;
        this.surveys = surveys;
        this.clock = clock;
    }

    record Supposition(
            @Nullable String pool,
            @Nullable Integer drives,
            @Nullable Bytes driveBytes,
            @Nullable Layout layout,
            @Nullable List<String> drop,
            @Nullable List<String> thin) {}

    record Supposed(Bytes usableBefore, Bytes usableAfter, ByteLedger before, ByteLedger after) {}

    /** A pool as it is, and as it would be. */
    @PostMapping("/api/v1/what-if")
    Supposed whatIf(@RequestBody Supposition asked) {
        Estate estate = estates.load();
        Pool pool = pool(estate, asked.pool == null ? "" : asked.pool);
        Estate supposed = new WhatIf(
                        pool.name(),
                        asked.drives == null ? 0 : asked.drives,
                        asked.driveBytes == null ? Bytes.of(12_000_000_000_000L) : asked.driveBytes,
                        Optional.ofNullable(asked.layout),
                        asked.drop == null ? List.of() : asked.drop,
                        asked.thin == null ? List.of() : asked.thin)
                .applyTo(estate);
        Pool after = supposed.pools().get(pool.name());
        Usage held = usage.load();
        return new Supposed(
                Ledgers.usable(estate, pool),
                Ledgers.usable(supposed, after),
                Ledgers.ofPool(estate, held, pool),
                Ledgers.ofPool(supposed, held, after));
    }

    record Target(String pool, Bytes freeBefore, Bytes freeAfter, double usedAfter, String problem) {}

    /** Every pool to which a volume could move, and why one does not do. */
    @GetMapping("/api/v1/volumes/{name}/targets")
    List<Target> targets(@PathVariable String name) {
        Estate estate = estates.load();
        return MoveCandidates.of(estate, usage.load(), volume(estate, name), UnitSystem.BINARY).stream()
                .map(c -> new Target(c.pool().name(), c.freeBefore(), c.freeAfter(), c.usedAfter(), c.problem()))
                .toList();
    }

    record Swaps(@Nullable List<PoolChange.Swap> swaps) {}

    /** What a pool has after each drive that is replaced. */
    @PostMapping("/api/v1/pools/{name}/replacement")
    List<Replacement.Stage> replacement(@PathVariable String name, @RequestBody Swaps asked) {
        Estate estate = estates.load();
        return Replacements.stages(
                estate,
                usage.load(),
                new PoolChange.ReplaceDrives(
                        pool(estate, name).name(), asked.swaps == null ? List.of() : asked.swaps, true));
    }

    /** A rule of growth that is only tried: when it looks does not matter by the day. */
    record TriedRule(int triggerPercent, Bytes triggerBytes, int stepPercent, Bytes ceiling, Duration pause) {
        GrowthRule rule(String volume) {
            return new GrowthRule(volume, GrowthRule.OFTEN, triggerPercent, triggerBytes, stepPercent, ceiling, pause);
        }
    }

    /** What a rule of automatic growth would have done over the last year. */
    @PostMapping("/api/v1/volumes/{name}/growth-simulation")
    List<GrowthSimulation.Day> growth(@PathVariable String name, @RequestBody TriedRule tried) {
        GrowthRule rule = tried.rule(name);
        Volume volume = volume(estates.load(), name);
        List<History.DayUse> year = history.of(HistoryStore.VOLUME, volume.name())
                .map(found -> found.lastDays(GrowthSimulation.YEAR))
                .orElse(List.of());
        return GrowthSimulation.run(rule, year);
    }

    /** Slack and metadata of a catalogue's files at each block size. */
    @GetMapping("/api/v1/catalogues/{name}/block-fit")
    BlockFit.Result blockFit(@PathVariable String name, @RequestParam(defaultValue = "GUARDED") FileSystemKind kind) {
        BlockFit fit = new BlockFit();
        int no = catalogues
                .find(name)
                .orElseThrow(() -> new IllegalArgumentException("There is no catalogue '" + name + "'"))
                .no();
        surveys.eachSize(no, fit::add);
        return fit.result(kind);
    }

    /** Share of the accesses that a fast part of each size would serve, by the last use of the files on a pool. */
    @GetMapping("/api/v1/pools/{name}/fast-part")
    List<FastPart.Point> fastPart(@PathVariable String name) {
        Estate estate = estates.load();
        List<String> shares = estate.volumesOn(pool(estate, name).name())
                .flatMap(v -> estate.sharesOn(v.name()))
                .map(Share::name)
                .toList();
        List<Integer> numbers = catalogues.named(shares).values().stream()
                .map(CatalogueStore.Catalogue::no)
                .toList();
        return FastPart.curve(surveys.heaps(numbers, clock.instant()));
    }

    record Wanted(
            @Nullable Bytes bytes,
            @Nullable Integer mibps,
            @Nullable String server) {}

    /** What a reservation of a size and a throughput takes in each pace class, the cheapest first. */
    @PostMapping("/api/v1/reservations/offers")
    List<PaceBudget.Offer> offers(@RequestBody Wanted wanted) {
        if (wanted.bytes == null || wanted.bytes.isZero()) {
            throw new IllegalArgumentException("bytes is missing or 0, must be at least 1");
        }
        int mibps = wanted.mibps == null ? 0 : wanted.mibps;
        if (mibps < 0 || mibps > MOST_MIBPS) {
            throw new IllegalArgumentException("mibps is " + mibps + ", must be 0 to " + MOST_MIBPS);
        }
        return PaceBudget.offers(paces(wanted.server), wanted.bytes, mibps);
    }

    /** Those of a service that is named, or of the first that there is. */
    private Paces paces(@Nullable String name) {
        Estate estate = estates.load();
        if (name != null && !estate.servers().containsKey(name)) {
            throw new IllegalArgumentException("server is '" + name + "', which is not there");
        }
        return estate.servers().values().stream()
                .filter(server ->
                        name == null ? server.managed() : server.name().equals(name))
                .findFirst()
                .map(FileServer::paces)
                .orElse(Paces.USUAL);
    }

    private static Pool pool(Estate estate, String name) {
        return Optional.ofNullable(estate.pools().get(name))
                .orElseThrow(() -> new IllegalArgumentException("There is no pool '" + name + "'"));
    }

    private static Volume volume(Estate estate, String name) {
        return Optional.ofNullable(estate.volumes().get(name))
                .orElseThrow(() -> new IllegalArgumentException("There is no volume '" + name + "'"));
    }
}
