package org.vastshelf.app.lift;

import org.springframework.stereotype.Component;
import org.vastshelf.app.agenda.AgendaStore;
import org.vastshelf.app.clock.ShelfClock;
import org.vastshelf.app.store.EstateFollower;
import org.vastshelf.core.agenda.Agenda;
import org.vastshelf.core.agenda.DueKind;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.Kinds;
import org.vastshelf.core.estate.Pool;
import org.vastshelf.core.estate.Usage;

/** Lets the lift of a pool that has lost its fast part fall due once more, so that files lie on none any more. */
@Component
class LiftEnding implements EstateFollower {

    private final AgendaStore agenda;
    private final ShelfClock clock;

    LiftEnding(AgendaStore agenda, ShelfClock clock) {
        this.agenda = agenda;
        this.clock = clock;
    }

    @Override
    public void follow(Estate before, Estate after, Usage usage) {
        before.pools().forEach((name, pool) -> {
            Pool now = after.pools().get(name);
            if (pool != now && pool.isTiered() && (now == null || !now.isTiered())) {
                agenda.enter(new Agenda.Entry(DueKind.of(Kinds.LIFT), name), clock.instant());
            }
        });
    }
}
