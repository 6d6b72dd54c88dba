package org.vastshelf.app.store;

import java.time.Instant;
import java.time.LocalDateTime;
import java.time.ZoneOffset;
import org.jspecify.annotations.Nullable;

/** The database keeps UTC without a zone. */
public final class Times {

    private Times() {}

    public static @Nullable LocalDateTime stored(@Nullable Instant instant) {
        return instant == null ? null : LocalDateTime.ofInstant(instant, ZoneOffset.UTC);
    }

    public static @Nullable Instant instant(@Nullable LocalDateTime stored) {
        return stored == null ? null : stored.toInstant(ZoneOffset.UTC);
    }
}
