package org.vastshelf.app.look;

import java.time.LocalDate;

/** Something to be done for a day that has passed, before what its spaces hold is written down. */
public interface DayWork {

    void of(LocalDate day);
}
