package org.vastshelf.app.tier;

import java.time.Instant;
import org.springframework.stereotype.Component;
import org.vastshelf.app.agenda.DueWork;
import org.vastshelf.core.agenda.DueKind;

/** Begins a run when a rule's schedule wants one. One that is under way already is enough. */
@Component
class TierDue implements DueWork {

    private final TierRuns runs;

    TierDue(TierRuns runs) {
        this.runs = runs;
    }

    @Override
    public DueKind kind() {
        return DueKind.TIERING;
    }

    @Override
    public void act(String rule, Instant at) {
        runs.begin(rule, TierRun.BY_RULE);
    }
}
