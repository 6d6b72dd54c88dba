package org.vastshelf.standins.life;

import java.time.LocalDate;

/** How one share of the trust is used. */
interface ShareMaker {

    /** Saves what belongs together, on one day. */
    void save(Filing filing, LocalDate day);

    /** What is there besides what the days brought. */
    default void found(Filing filing) {}

    /** Share of the files, the newest first, that people still open. */
    default double opened() {
        return 1;
    }
}
