package org.vastshelf.app.common;

import org.springframework.stereotype.Component;
import org.vastshelf.app.store.EstateFollower;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.Usage;

/** Common units go with their volume, in the same transaction. */
@Component
class CommonEnding implements EstateFollower {

    private final CommonStore store;
    private final CommonChangeStore changes;
    private final CommonShiftStore shifts;

    CommonEnding(CommonStore store, CommonChangeStore changes, CommonShiftStore shifts) {
        this.store = store;
        this.changes = changes;
        this.shifts = shifts;
    }

    @Override
    public void follow(Estate before, Estate after, Usage usage) {
        before.volumes().keySet().stream()
                .filter(name -> !after.volumes().containsKey(name))
                .forEach(name -> {
                    store.forget(name);
                    changes.forget(name);
                    shifts.take(name);
                });
    }
}
