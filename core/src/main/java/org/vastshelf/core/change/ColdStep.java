package org.vastshelf.core.change;

import java.time.Duration;
import java.util.Optional;
import org.vastshelf.core.estate.ColdStore;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.Kinds;
import org.vastshelf.core.estate.Usage;

/**
 * A cold store that is set up, changed or forgotten.
 *
 * @param name of the store
 * @param before empty where there was none
 * @param after empty where there is to be none
 */
public record ColdStep(String name, Optional<ColdStore> before, Optional<ColdStore> after) implements Step {

    @Override
    public String title() {
        if (after.isEmpty()) {
            return "Drop the cold store " + name;
        }
        return (before.isPresent() ? "Change the cold store " : "Set up the cold store ") + name;
    }

    @Override
    public Duration expected() {
        return Duration.ofSeconds(1);
    }

    @Override
    public Optional<String> obstacle(Estate estate) {
        return Steps.unless(
                        estate.find(Kinds.COLD_STORE, name).equals(before),
                        "the cold store " + name + " was changed meanwhile")
                .or(() -> after.flatMap(store -> store.fault(estate)));
    }

    @Override
    public Optional<String> undoObstacle(Estate estate, Usage usage) {
        return Steps.unless(
                        estate.find(Kinds.COLD_STORE, name).equals(after),
                        "the cold store " + name + " was changed since")
                .or(() -> before.flatMap(store -> store.fault(estate)));
    }

    @Override
    public Estate apply(Estate estate) {
        return Steps.with(estate, Kinds.COLD_STORE, name, after);
    }

    @Override
    public Estate undo(Estate estate) {
        return Steps.with(estate, Kinds.COLD_STORE, name, before);
    }
}
