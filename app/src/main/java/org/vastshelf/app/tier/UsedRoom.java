package org.vastshelf.app.tier;

import org.springframework.stereotype.Component;
import org.vastshelf.app.common.CommonSweep;
import org.vastshelf.app.store.UsageStore;
import org.vastshelf.core.estate.Usage;
import org.vastshelf.core.unit.Bytes;

/** What living files take of a volume, with the units that they have in common. */
@Component
class UsedRoom {

    private final UsageStore usage;
    private final CommonSweep commons;

    UsedRoom(UsageStore usage, CommonSweep commons) {
        this.usage = usage;
        this.commons = commons;
    }

    /** What was let go of common units is counted off first: it may be why more need not leave. */
    Bytes of(String volume) {
        if (!usage.load().of(volume).common().kept().isZero()) {
            commons.sweep(volume);
        }
        Usage.Held held = usage.load().of(volume);
        return held.live().plus(held.common().kept());
    }
}
