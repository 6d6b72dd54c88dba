package org.vastshelf.app.tier;

import java.time.Instant;
import org.springframework.stereotype.Service;
import org.vastshelf.app.catalogue.CatalogueStore;
import org.vastshelf.app.catalogue.CatalogueStore.Catalogue;
import org.vastshelf.app.kit.NotFound;
import org.vastshelf.core.tier.TierPlan;
import org.vastshelf.core.tier.TierRule;

/** Says what rules of tiering would do, before anything moves. */
@Service
public class TierPlanning {

    private final CatalogueStore catalogues;
    private final TierStore store;

    TierPlanning(CatalogueStore catalogues, TierStore store) {
        this.catalogues = catalogues;
        this.store = store;
    }

    /** @throws NotFound when there is no such catalogue */
    public TierPlan plan(String catalogue, TierRule rule, Instant at) {
        Catalogue found = catalogues.find(catalogue).orElseThrow(() -> new NotFound("catalogue", catalogue));
        return TierPlan.of(rule, store.files(found, rule, at));
    }
}
