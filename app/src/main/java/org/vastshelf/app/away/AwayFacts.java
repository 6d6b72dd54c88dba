package org.vastshelf.app.away;

import java.util.List;
import java.util.Optional;
import org.springframework.stereotype.Component;
import org.vastshelf.app.orders.PlanFacts;
import org.vastshelf.app.store.EstateStore;
import org.vastshelf.core.change.Change;
import org.vastshelf.core.change.Check;
import org.vastshelf.core.change.ColdChange;
import org.vastshelf.core.estate.ColdStore;
import org.vastshelf.core.estate.Kinds;
import org.vastshelf.core.unit.Counted;
import org.vastshelf.core.unit.UnitSystem;

/** What lies in a cold store that is dropped or goes to another place: files read it, and it does not move along. */
@Component
class AwayFacts implements PlanFacts {

    private final AwayStore objects;
    private final EstateStore estates;

    AwayFacts(AwayStore objects, EstateStore estates) {
        this.objects = objects;
        this.estates = estates;
    }

    @Override
    public List<Check> checks(Change change, UnitSystem units) {
        return switch (change) {
            case ColdChange.DropColdStore drop -> dropped(drop.name());
            case ColdChange.SetColdStore set -> set(set.store());
            default -> List.of();
        };
    }

    private List<Check> dropped(String store) {
        long there = objects.count(store);
        return there == 0
                ? List.of()
                : List.of(Check.refuse(
                        "cold store " + store + ": objects",
                        "Files have left for " + store + ": " + Counted.of(there, "object") + " lie there",
                        "bring them back, or delete their files and wait until they are removed"));
    }

    private List<Check> set(ColdStore store) {
        Optional<ColdStore> before = estates.load().find(Kinds.COLD_STORE, store.name());
        boolean moves = before.filter(was -> !was.bucket().equals(store.bucket())
                        || !was.prefix().equals(store.prefix())
                        || !was.endpoint().equals(store.endpoint()))
                .isPresent();
        long there = moves ? objects.count(store.name()) : 0;
        return there == 0
                ? List.of()
                : List.of(new Check(
                        Check.Verdict.CONFIRM,
                        "cold store " + store.name() + ": elsewhere",
                        "The " + Counted.of(there, "object") + " of " + store.name()
                                + " have to lie at the new place under the same keys: nobody copies them",
                        ""));
    }
}
