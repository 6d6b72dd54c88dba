package org.vastshelf.app.cold;

import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import org.springframework.stereotype.Component;
import org.vastshelf.core.estate.ColdStore;
import software.amazon.awssdk.services.s3.S3Client;

/** Opens the buckets of cold stores, and keeps what leads there open. */
@Component
public class Buckets {

    private final ColdStores stores;
    private final Map<String, Open> open = new ConcurrentHashMap<>();

    Buckets(ColdStores stores) {
        this.stores = stores;
    }

    private record Open(ColdStore store, AccessKeys keys, S3Client client) {
        boolean leadsTo(ColdStores.Signed signed) {
            return store.equals(signed.store()) && keys.equals(signed.keys());
        }
    }

    /**
     * The bucket of a store as it is by now.
     *
     * @throws IllegalArgumentException when there is no such store, or it has no keys that can be read
     */
    public Bucket of(String name) {
        ColdStores.Signed signed = stores.signed(name);
        Open used = open.compute(name, (key, before) -> {
            if (before != null && before.leadsTo(signed)) {
                return before;
            }
            if (before != null) {
                before.client.close();
            }
            return new Open(signed.store(), signed.keys(), S3Clients.asking(signed.store(), signed.keys()));
        });
        return new Bucket(used.client, used.store);
    }

    /** Seals the key of an object, so that it can lie beside it; it can't be opened for another object. */
    public String seal(String object, String key) {
        return stores.seal(object, key);
    }

    /** @throws IllegalArgumentException when this installation has not what it takes to open it */
    public String open(String object, String sealed) {
        return stores.open(object, sealed);
    }
}
