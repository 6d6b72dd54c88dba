package org.vastshelf.app.hardware;

import java.time.Instant;
import org.springframework.stereotype.Component;
import org.vastshelf.app.agenda.DueWork;
import org.vastshelf.core.agenda.DueKind;
import org.vastshelf.core.estate.Kinds;

/** Scrubs that rules want. */
@Component
class ScrubDue implements DueWork {

    private final HardwareService hardware;

    ScrubDue(HardwareService hardware) {
        this.hardware = hardware;
    }

    @Override
    public DueKind kind() {
        return DueKind.of(Kinds.SCRUBBING);
    }

    @Override
    public void act(String pool, Instant at) {
        hardware.scrubDue(pool, at);
    }
}
