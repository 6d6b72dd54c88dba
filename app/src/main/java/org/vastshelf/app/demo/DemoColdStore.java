package org.vastshelf.app.demo;

import java.io.IOException;
import java.math.BigDecimal;
import java.util.Optional;
import org.springframework.stereotype.Component;
import org.vastshelf.app.cold.AccessKeys;
import org.vastshelf.app.cold.ColdStores;
import org.vastshelf.app.config.Settings;
import org.vastshelf.app.store.Transactions;
import org.vastshelf.core.estate.ColdPrices;
import org.vastshelf.core.estate.ColdStore;
import org.vastshelf.core.tier.StoreBench;
import org.vastshelf.standins.store.EmbeddedStore;

/** The cold store of the demo: a bucket in the embedded object store. */
@Component
class DemoColdStore {

    private static final String NAME = "peat";

    private final ColdStores stores;
    private final StoreBench bench;
    private final Transactions transactions;
    private final Settings settings;

    DemoColdStore(ColdStores stores, StoreBench bench, Transactions transactions, Settings settings) {
        this.stores = stores;
        this.bench = bench;
        this.transactions = transactions;
        this.settings = settings;
    }

    /** Keeps its keys, and says what it is; empty where the embedded one could not be started. */
    Optional<ColdStore> made() {
        return bench.endpoint().map(endpoint -> {
            EmbeddedStore.Keys keys = keys();
            transactions.run(() -> stores.keep(NAME, new AccessKeys(keys.accessKey(), keys.secretKey()), "demo"));
            return new ColdStore(
                    NAME,
                    endpoint,
                    EmbeddedStore.REGION,
                    EmbeddedStore.BUCKET,
                    "shelf/",
                    true,
                    "",
                    false,
                    new ColdPrices(new BigDecimal("3.7"), new BigDecimal("0.009"), new BigDecimal("8.2")));
        });
    }

    private EmbeddedStore.Keys keys() {
        try {
            return EmbeddedStore.keys(settings.storeFolder());
        } catch (IOException unreadable) {
            throw new IllegalStateException("the keys of the embedded object store can't be read", unreadable);
        }
    }
}
