package org.vastshelf.app.saving;

import org.springframework.stereotype.Component;
import org.vastshelf.app.clock.ShelfClock;
import org.vastshelf.app.store.EstateFollower;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.Kinds;
import org.vastshelf.core.estate.Usage;

/** What a saving rule was at ends with it. */
@Component
class CommonRunEnding implements EstateFollower {

    private final CommonRunStore runs;
    private final ShelfClock clock;

    CommonRunEnding(CommonRunStore runs, ShelfClock clock) {
        this.runs = runs;
        this.clock = clock;
    }

    @Override
    public void follow(Estate before, Estate after, Usage usage) {
        before.all(Kinds.SAVING).keySet().stream()
                .filter(volume -> after.find(Kinds.SAVING, volume).isEmpty())
                .forEach(volume -> runs.end(volume, CommonRun.State.STOPPED, "the rule is no more", clock.instant()));
    }
}
