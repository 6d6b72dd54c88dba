package org.vastshelf.app.tier;

import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.springframework.stereotype.Service;
import org.vastshelf.app.catalogue.CatalogueStore;
import org.vastshelf.app.catalogue.CatalogueStore.Catalogue;
import org.vastshelf.app.clock.ShelfClock;
import org.vastshelf.app.kit.NotFound;
import org.vastshelf.app.spare.Spares;
import org.vastshelf.app.store.EstateStore;
import org.vastshelf.core.estate.Kinds;
import org.vastshelf.core.estate.TieringRule;
import org.vastshelf.core.tier.AgeCurve;
import org.vastshelf.core.tier.CountedFiles;
import org.vastshelf.core.tier.Scope;
import org.vastshelf.core.tier.TierPlan;
import org.vastshelf.core.tier.TierRule;

/** Says what rules of tiering would do, before anything moves. */
@Service
public class TierPlanning {

    private static final int DAY = 86_400;

    private final CatalogueStore catalogues;
    private final TierStore store;
    private final TierCounts counts;
    private final Spares spares;
    private final EstateStore estates;
    private final ShelfClock clock;

    TierPlanning(
            CatalogueStore catalogues,
            TierStore store,
            TierCounts counts,
            Spares spares,
            EstateStore estates,
            ShelfClock clock) {
        this.estates = estates;
        this.spares = spares;
        this.clock = clock;
        this.catalogues = catalogues;
        this.store = store;
        this.counts = counts;
    }

    /** A plan, beside how old what may ever leave is, what is known of the price where it lies, and of which moment it is. */
    record Answer(TierPlan plan, AgeCurve curve, Spares.Standing standing, Instant at) {}

    Answer answer(String catalogue, Leaving asked, long capacity) {
        Instant now = clock.instant();
        Catalogue of = found(catalogue);
        List<Scope> earlier = before(asked.rule(), catalogue);
        TierRule rule = asked.rule(capacity, earlier);
        if (counts.counts(of, rule)) {
            CountedFiles counted = counts.of(of, asked.ofAnyAge(earlier), now);
            return new Answer(
                    TierPlan.of(rule, store.files(of, counted, rule)),
                    counted.curve(),
                    spares.standing(of),
                    counted.at());
        }
        return new Answer(
                plan(catalogue, rule, now),
                AgeCurve.of(store.byDay(of, asked.ofAnyAge(earlier), now), Math.floorDiv(now.getEpochSecond(), DAY)),
                spares.standing(of),
                now);
    }

    /** What rules of a share that come before one are about; nothing where there is no such rule. */
    private List<Scope> before(String rule, String share) {
        Map<String, TieringRule> rules = estates.load().all(Kinds.TIERING);
        return Optional.ofNullable(rules.get(rule)).stream()
                .flatMap(asked -> rules.values().stream().filter(other -> other.rank() < asked.rank()))
                .flatMap(other -> Scope.of(other, share).stream())
                .toList();
    }

    private Catalogue found(String catalogue) {
        return catalogues.find(catalogue).orElseThrow(() -> new NotFound("catalogue", catalogue));
    }

    /** @throws NotFound when there is no such catalogue */
    public TierPlan plan(String catalogue, TierRule rule, Instant at) {
        return TierPlan.of(rule, store.files(found(catalogue), rule, at));
    }
}
