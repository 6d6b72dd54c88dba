package org.vastshelf.app.orders;

import org.springframework.stereotype.Component;
import org.vastshelf.app.clock.ShelfClock;
import org.vastshelf.app.config.Settings;
import org.vastshelf.core.estate.Usage;

/** How long this installation lets files be retained, from today on. */
@Component
public class RetentionBound {

    private final Settings settings;
    private final ShelfClock clock;

    RetentionBound(Settings settings, ShelfClock clock) {
        this.settings = settings;
        this.clock = clock;
    }

    public Usage.Bound of() {
        return new Usage.Bound(clock.today(), settings.retentionYears());
    }
}
