package org.vastshelf.app.api;

import java.util.List;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;
import org.vastshelf.app.away.BucketCheck;
import org.vastshelf.app.away.BucketReport;
import org.vastshelf.app.cold.AccessKeys;
import org.vastshelf.app.cold.ColdStores;
import org.vastshelf.app.cold.StandInMoods;
import org.vastshelf.app.security.Someone;
import org.vastshelf.core.tier.StoreMood;

/** Cold stores. They are set up and dropped by orders; what signs requests to them is never shown. */
@RestController
class ColdStoresApi {

    private static final int SHOWN = 100;

    private final ColdStores stores;
    private final StandInMoods moods;
    private final BucketCheck buckets;

    ColdStoresApi(ColdStores stores, StandInMoods moods, BucketCheck buckets) {
        this.stores = stores;
        this.moods = moods;
        this.buckets = buckets;
    }

    record Keys(String accessKey, String secretKey) {}

    record Mood(StoreMood.Manner manner, @Nullable Integer latencyMillis) {}

    @GetMapping("/api/v1/cold-stores")
    List<ColdStores.Known> list() {
        return stores.all();
    }

    @GetMapping("/api/v1/cold-stores/{name}")
    ColdStores.Known one(@PathVariable String name) {
        return stores.find(name);
    }

    /** Sets what signs requests to a store. */
    @PostMapping("/api/v1/cold-stores/{name}/keys")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void sign(@AuthenticationPrincipal Someone me, @PathVariable String name, @RequestBody Keys keys) {
        stores.sign(name, new AccessKeys(keys.accessKey, keys.secretKey), me.getName());
    }

    /** Tries all that will be asked of a store on one small object. */
    @PostMapping("/api/v1/cold-stores/{name}/check")
    ColdStores.Checked check(@AuthenticationPrincipal Someone me, @PathVariable String name) {
        return stores.check(name, me.getName());
    }

    /** What comparisons of a bucket with what is known of its objects found, the newest first. */
    @GetMapping("/api/v1/cold-stores/{name}/comparisons")
    List<BucketReport> comparisons(@PathVariable String name) {
        return buckets.of(name, SHOWN);
    }

    /** Asks for one; of several at once one is made. */
    @PostMapping("/api/v1/cold-stores/{name}/comparisons")
    @ResponseStatus(HttpStatus.ACCEPTED)
    BucketReport compare(@AuthenticationPrincipal Someone me, @PathVariable String name) {
        return buckets.ask(name, me.getName());
    }

    /** How the embedded store answers from now on. */
    @PostMapping("/api/v1/bench/store")
    StoreMood mood(@AuthenticationPrincipal Someone me, @RequestBody Mood mood) {
        return moods.set(new StoreMood(mood.manner, mood.latencyMillis == null ? 0 : mood.latencyMillis), me.getName());
    }
}
