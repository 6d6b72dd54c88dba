package org.vastshelf.app.clock;

import java.util.concurrent.atomic.AtomicInteger;
import org.springframework.stereotype.Component;

/** Says whether days pass quickly on this node now: what nobody waits for is left alone meanwhile, and gone on with afterwards. */
@Component
public class QuickDays {

    private final AtomicInteger passing = new AtomicInteger();

    public boolean arePassing() {
        return passing.get() > 0;
    }

    /** @param days lets them pass */
    public void during(Runnable days) {
        passing.incrementAndGet();
        try {
            days.run();
        } finally {
            passing.decrementAndGet();
        }
    }
}
