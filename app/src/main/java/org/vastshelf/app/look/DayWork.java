package org.vastshelf.app.look;

import java.time.LocalDate;

/** Something to be done for a day that has passed, before what its spaces hold is written down. */
public interface DayWork {

    /** Does it, once however often it is called for the same day, and throws nothing: what fails is written down. */
    void of(LocalDate day);
}
