package org.vastshelf.app.away;

import org.springframework.stereotype.Component;
import org.vastshelf.app.store.EstateFollower;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.Kinds;
import org.vastshelf.core.estate.Usage;
import org.vastshelf.core.unit.Counted;

/** A cold store stays known as long as something lies in it, even what has come there in this moment. */
@Component
class AwayEnding implements EstateFollower {

    private final AwayStore objects;
    private final BucketCheckStore checks;

    AwayEnding(AwayStore objects, BucketCheckStore checks) {
        this.objects = objects;
        this.checks = checks;
    }

    @Override
    public void follow(Estate before, Estate after, Usage usage) {
        before.all(Kinds.COLD_STORE).keySet().stream()
                .filter(store -> after.find(Kinds.COLD_STORE, store).isEmpty())
                .forEach(store -> {
                    requireEmpty(store);
                    checks.forget(store);
                });
    }

    private void requireEmpty(String store) {
        long there = objects.count(store);
        if (there > 0) {
            throw new IllegalStateException(
                    Counted.of(there, "object") + " lie in the cold store " + store + ", which can't be dropped");
        }
    }
}
