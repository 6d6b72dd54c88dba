package org.vastshelf.standins.life;

import java.time.LocalDate;
import java.util.List;

/** How one share of the trust is used. */
interface ShareMaker {

    /** Saves what belongs together, on one day. */
    void save(Filing filing, LocalDate day);

    /** What instruments save on any day. */
    default void daily(Filing filing, LocalDate day) {
        save(filing, day);
    }

    /** Name of the account under which instruments save. */
    default String instrument() {
        return "";
    }

    /** Folders that instruments remove on a day. */
    default List<String> removed(LocalDate day) {
        return List.of();
    }

    /** Files that instruments delete on a day. */
    default List<String> deleted(LocalDate day) {
        return List.of();
    }

    /** What is there besides what the days brought. */
    default void found(Filing filing) {}

    /** Share of the files, the newest first, that people still open. */
    default double opened() {
        return 1;
    }
}
