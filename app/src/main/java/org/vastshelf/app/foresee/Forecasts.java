package org.vastshelf.app.foresee;

import java.time.LocalDate;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.springframework.stereotype.Component;
import org.vastshelf.app.store.EstateStore;
import org.vastshelf.app.store.HistoryStore;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.forecast.FillForecast;
import org.vastshelf.core.unit.Bytes;

/** Fill dates of all volumes and pools, as they were computed from their histories; see {@link ForecastKeeping}. */
@Component
public class Forecasts {

    private final EstateStore estates;
    private final ForecastStore store;

    Forecasts(EstateStore estates, ForecastStore store) {
        this.estates = estates;
        this.store = store;
    }

    /**
     * A volume or a pool with what is expected of it.
     *
     * @param capacity for which it is expected
     * @param day last day of the history that it is expected from
     * @param used what it held at the end of that day
     */
    public record Space(String kind, String name, Bytes capacity, LocalDate day, Bytes used, FillForecast forecast) {

        Space with(FillForecast other) {
            return new Space(kind, name, capacity, day, used, other);
        }

        /** For another capacity. */
        Space with(Bytes other) {
            return new Space(kind, name, other, day, used, forecast.with(forecast.course(), other));
        }
    }

    /** All volumes that have been watched for a week, by name; without what is expected day by day. */
    public Map<String, Space> volumes() {
        return known(HistoryStore.VOLUME, estates.load().volumes());
    }

    /** The same for pools. */
    public Map<String, Space> pools() {
        return known(HistoryStore.POOL, estates.load().pools());
    }

    /** The same for file servers. */
    public Map<String, Space> servers() {
        return known(HistoryStore.SERVER, estates.load().servers());
    }

    /** The estate as a whole. */
    public Optional<Space> whole() {
        return Optional.ofNullable(store.all(HistoryStore.ESTATE).get(HistoryStore.WHOLE));
    }

    private Map<String, Space> known(String kind, Map<String, ?> there) {
        Map<String, Space> spaces = new LinkedHashMap<>(store.all(kind));
        spaces.keySet().retainAll(there.keySet());
        return spaces;
    }

    /** One of them, with what is expected day by day. */
    public Optional<Space> of(String kind, String name) {
        return store.find(new ForecastStore.Key(kind, name)).filter(space -> isThere(kind, name));
    }

    private boolean isThere(String kind, String name) {
        Estate estate = estates.load();
        return switch (kind) {
            case HistoryStore.VOLUME -> estate.volumes().containsKey(name);
            case HistoryStore.POOL -> estate.pools().containsKey(name);
            case HistoryStore.SERVER -> estate.servers().containsKey(name);
            default -> true;
        };
    }

    /** All pools with what is expected of them day by day. */
    public List<Space> poolsByDay() {
        Estate estate = estates.load();
        return store.withCourses(HistoryStore.POOL).stream()
                .filter(space -> estate.pools().containsKey(space.name()))
                .toList();
    }

    /** The likely day on which each pool is full, for those that will be. */
    public Map<String, LocalDate> poolsFull() {
        Map<String, LocalDate> days = new HashMap<>();
        pools().forEach((name, space) -> space.forecast().likely().ifPresent(day -> days.put(name, day)));
        return days;
    }
}
