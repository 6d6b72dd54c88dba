package org.vastshelf.app.cold;

import java.util.Set;
import java.util.TreeSet;
import org.springframework.stereotype.Component;
import org.vastshelf.app.store.EstateFollower;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.Kinds;
import org.vastshelf.core.estate.Usage;

/** What was known of a cold store that is dropped goes with it, its keys first of all; a changed one has to be checked again. */
@Component
class ColdEnding implements EstateFollower {

    private final ColdKeyStore rows;

    ColdEnding(ColdKeyStore rows) {
        this.rows = rows;
    }

    @Override
    public void follow(Estate before, Estate after, Usage usage) {
        Set<String> changed = new TreeSet<>(before.all(Kinds.COLD_STORE).keySet());
        changed.removeIf(name -> before.find(Kinds.COLD_STORE, name).equals(after.find(Kinds.COLD_STORE, name)));
        changed.forEach(rows::forgetCheck);
        changed.removeAll(after.all(Kinds.COLD_STORE).keySet());
        changed.forEach(rows::forgetKeys);
    }
}
