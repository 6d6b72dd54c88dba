package org.vastshelf.app.security;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import java.time.Duration;
import java.util.concurrent.atomic.AtomicInteger;
import org.springframework.stereotype.Component;

/** After {@value #MOST_FAILURES} failed sign-ins with one name, that name waits until nobody has failed for a while. */
@Component
class Throttle {

    static final int MOST_FAILURES = 8;
    static final Duration PAUSE = Duration.ofMinutes(5);

    private final Cache<String, AtomicInteger> failures =
            Caffeine.newBuilder().maximumSize(10_000).expireAfterWrite(PAUSE).build();

    boolean isClosed(String name) {
        AtomicInteger count = failures.getIfPresent(name);
        return count != null && count.get() >= MOST_FAILURES;
    }

    void failed(String name) {
        failures.get(name, n -> new AtomicInteger()).incrementAndGet();
    }

    void succeeded(String name) {
        failures.invalidate(name);
    }
}
