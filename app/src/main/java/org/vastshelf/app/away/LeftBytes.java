package org.vastshelf.app.away;

import com.github.benmanes.caffeine.cache.Caffeine;
import com.github.benmanes.caffeine.cache.LoadingCache;
import java.time.Duration;
import java.util.HashMap;
import java.util.Map;
import org.springframework.stereotype.Service;
import org.vastshelf.app.store.EstateStore;
import org.vastshelf.core.unit.Bytes;

/** What has left volumes for cold stores and is referred to, as of some seconds ago: all objects are counted for it. */
@Service
public class LeftBytes {

    private static final String ALL = "";
    private static final Duration FRESH = Duration.ofSeconds(5);

    private final EstateStore estates;
    private final LoadingCache<String, Map<String, Long>> byShare;

    LeftBytes(AwayStore store, EstateStore estates) {
        this.estates = estates;
        this.byShare = Caffeine.newBuilder().expireAfterWrite(FRESH).build(all -> store.heldBytes());
    }

    /** By volume. */
    public Map<String, Bytes> byVolume() {
        Map<String, Bytes> byVolume = new HashMap<>();
        Map<String, Long> held = byShare.get(ALL);
        estates.load().shares().values().forEach(share -> {
            long bytes = held.getOrDefault(share.name(), 0L);
            if (bytes > 0) {
                byVolume.merge(share.volume(), Bytes.of(bytes), Bytes::plus);
            }
        });
        return byVolume;
    }
}
