package org.vastshelf.app.cold;

import java.util.Optional;
import org.springframework.stereotype.Component;
import org.vastshelf.app.kit.NotFound;
import org.vastshelf.app.trace.Deeds;
import org.vastshelf.core.estate.ColdStore;
import org.vastshelf.core.tier.StoreBench;
import org.vastshelf.core.tier.StoreMood;

/** Sets how the embedded object store answers. */
@Component
public class StandInMoods {

    private final StoreBench bench;
    private final Deeds deeds;

    StandInMoods(StoreBench bench, Deeds deeds) {
        this.bench = bench;
        this.deeds = deeds;
    }

    /** Empty for a store that is not the embedded one. */
    Optional<StoreMood> of(ColdStore store) {
        return bench.endpoint().filter(store.endpoint()::equals).map(endpoint -> bench.mood());
    }

    /** @throws NotFound when no object store is embedded */
    public StoreMood set(StoreMood mood, String who) {
        String endpoint = bench.endpoint().orElseThrow(() -> new NotFound("embedded store", "object store"));
        bench.set(mood);
        deeds.done(
                who,
                Deeds.Kind.BENCH,
                endpoint,
                "the embedded object store " + mood.manner().title() + ", after " + mood.latencyMillis() + " ms");
        return mood;
    }
}
