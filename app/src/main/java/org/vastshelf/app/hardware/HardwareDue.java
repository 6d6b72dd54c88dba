package org.vastshelf.app.hardware;

import java.time.Instant;
import org.springframework.stereotype.Component;
import org.vastshelf.app.agenda.DueWork;
import org.vastshelf.core.agenda.DueKind;

/** Rebuilds and scrubs that end, and hot spares that take over. */
@Component
class HardwareDue implements DueWork {

    private final HardwareService hardware;

    HardwareDue(HardwareService hardware) {
        this.hardware = hardware;
    }

    @Override
    public DueKind kind() {
        return DueKind.HARDWARE;
    }

    @Override
    public void act(String pool, Instant at) {
        hardware.catchUp(at);
    }
}
