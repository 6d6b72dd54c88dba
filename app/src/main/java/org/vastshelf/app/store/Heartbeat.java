package org.vastshelf.app.store;

import java.time.Duration;
import org.springframework.context.event.ContextClosedEvent;
import org.springframework.context.event.EventListener;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Component;

/** Tells other nodes that this one lives. */
@Component
public class Heartbeat {

    private static final String NODE = "node ";
    /** After so long a node that was killed is known to be gone. */
    public static final Duration LIFE = Duration.ofSeconds(6);

    private final LeaseStore leases;

    Heartbeat(LeaseStore leases) {
        this.leases = leases;
    }

    @Scheduled(fixedDelay = 2_000)
    void beat() {
        leases.take(NODE + leases.node(), LIFE);
    }

    @EventListener(ContextClosedEvent.class)
    void end() {
        leases.giveBack(NODE + leases.node());
    }

    /** Whether this is the only node. */
    public boolean isAlone() {
        return !leases.othersHave(NODE);
    }
}
