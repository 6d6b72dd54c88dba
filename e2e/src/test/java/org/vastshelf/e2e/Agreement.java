package org.vastshelf.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import org.vastshelf.app.clock.ShelfClock;
import org.vastshelf.app.content.KeptCheck;
import org.vastshelf.app.limit.AccountCheck;

/** Whether everything that is kept by increments is what a count of the rows says. */
final class Agreement {

    private Agreement() {}

    static void check() {
        assertThat(App.bean(AccountCheck.class).mend(App.bean(ShelfClock.class).instant()))
                .isEmpty();
        new RollUpTest().the_demo_s_figures_agree_with_each_other();
        KeptCheck.Report kept = App.bean(KeptCheck.class).look();
        assertThat(kept.mended()).as("counts of references").isZero();
        assertThat(kept.missing()).as("bytes that are referred to and gone").isZero();
    }
}
