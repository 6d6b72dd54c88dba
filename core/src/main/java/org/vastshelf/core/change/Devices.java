package org.vastshelf.core.change;

import java.time.Duration;
import java.time.Instant;
import java.util.Optional;

/** Port to the file servers that carry out steps. Calls with the same key are the same piece of work. */
public interface Devices {

    /** Begins a step at the given time, or finds it begun, and says when it will be done. */
    Instant begin(String key, Step step, Instant at);

    /** When the work with this key is or was done; empty when the devices never heard of it. */
    Optional<Instant> endOf(String key);

    /** Moves the end of the work with this key, after a rest; unknown work stays unknown. */
    void delay(String key, Duration by);

    /** Gives up the work with this key, begun or done. */
    void takeBack(String key);
}
