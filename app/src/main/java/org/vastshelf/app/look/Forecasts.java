package org.vastshelf.app.look;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import java.time.LocalDate;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Optional;
import org.springframework.stereotype.Component;
import org.vastshelf.app.store.EstateStore;
import org.vastshelf.app.store.HistoryStore;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.forecast.FillDates;
import org.vastshelf.core.forecast.FillForecast;
import org.vastshelf.core.forecast.History;
import org.vastshelf.core.ledger.Ledgers;
import org.vastshelf.core.unit.Bytes;

/** Fill dates of all volumes and pools; each is computed once for a history and a capacity. */
@Component
public class Forecasts {

    private final EstateStore estates;
    private final HistoryStore histories;
    private final Cache<Key, FillForecast> computed =
            Caffeine.newBuilder().maximumSize(2_000).build();
    private final Cache<String, Map<String, History>> loaded = Caffeine.newBuilder()
            .expireAfterWrite(java.time.Duration.ofSeconds(20))
            .build();

    Forecasts(EstateStore estates, HistoryStore histories) {
        this.estates = estates;
        this.histories = histories;
    }

    private record Key(String kind, String space, Bytes capacity, History history) {}

    /** A volume or a pool with its past and what is to come. */
    public record Space(String kind, String name, Bytes capacity, History history, FillForecast forecast) {}

    public Map<String, Space> volumes() {
        Estate estate = estates.load();
        Map<String, Space> spaces = new LinkedHashMap<>();
        histories(HistoryStore.VOLUME)
                .forEach((name, history) -> Optional.ofNullable(estate.volumes().get(name))
                        .ifPresent(v -> spaces.put(name, space(HistoryStore.VOLUME, name, v.size(), history))));
        return spaces;
    }

    public Map<String, Space> pools() {
        Estate estate = estates.load();
        Map<String, Space> spaces = new LinkedHashMap<>();
        histories(HistoryStore.POOL)
                .forEach((name, history) -> Optional.ofNullable(estate.pools().get(name))
                        .ifPresent(p ->
                                spaces.put(name, space(HistoryStore.POOL, name, Ledgers.usable(estate, p), history))));
        return spaces;
    }

    /** The likely day on which each pool is full, for those that will be. */
    public Map<String, LocalDate> poolsFull() {
        Map<String, LocalDate> days = new HashMap<>();
        pools().forEach((name, space) -> space.forecast().likely().ifPresent(day -> days.put(name, day)));
        return days;
    }

    private Map<String, History> histories(String kind) {
        return loaded.get(kind, histories::all);
    }

    /** A day was added. */
    public void forget() {
        loaded.invalidateAll();
    }

    private Space space(String kind, String name, Bytes capacity, History history) {
        FillForecast forecast =
                computed.get(new Key(kind, name, capacity, history), key -> FillDates.forecast(capacity, history));
        return new Space(kind, name, capacity, history, forecast);
    }
}
