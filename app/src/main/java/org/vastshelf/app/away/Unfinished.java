package org.vastshelf.app.away;

import java.util.List;
import org.springframework.stereotype.Component;

/** What a run had begun to write when it was cut off. */
@Component
public class Unfinished {

    private final AwayStore objects;

    Unfinished(AwayStore objects) {
        this.objects = objects;
    }

    /** Runs that had begun to write something of which nobody knows what became. */
    public List<Long> runs() {
        return objects.runsCopying();
    }

    /** Lets it be removed; called by whoever has the run, while nothing is written for it. */
    public void giveUp(long run) {
        objects.giveUp(run);
    }
}
