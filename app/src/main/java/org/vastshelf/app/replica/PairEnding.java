package org.vastshelf.app.replica;

import org.springframework.beans.factory.ObjectProvider;
import org.springframework.stereotype.Component;
import org.vastshelf.app.store.EstateFollower;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.Kinds;
import org.vastshelf.core.estate.Usage;

/** Forgets a pair that is ended, with the snapshots that it needed. */
@Component
class PairEnding implements EstateFollower {

    /** Asked for late: it changes the estate, which is what this follows. */
    private final ObjectProvider<Replication> replication;

    PairEnding(ObjectProvider<Replication> replication) {
        this.replication = replication;
    }

    @Override
    public void follow(Estate before, Estate after, Usage usage) {
        before.all(Kinds.PAIR).keySet().stream()
                .filter(volume -> !after.all(Kinds.PAIR).containsKey(volume))
                .forEach(volume -> replication.getObject().forget(volume));
    }
}
