package org.vastshelf.app.look;

import java.time.LocalDate;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Component;
import org.vastshelf.app.clock.ShelfClock;
import org.vastshelf.app.store.EstateStore;
import org.vastshelf.app.store.HistoryStore;
import org.vastshelf.app.store.UsageStore;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.Usage;
import org.vastshelf.core.unit.Bytes;

/** Writes down what every space held at the end of each day; days that a jump passed are written in order. */
@Component
public class DailyRecord {

    private final EstateStore estates;
    private final UsageStore usage;
    private final HistoryStore history;
    private final Forecasts forecasts;
    private final ShelfClock clock;
    private final DayLog log;
    private final List<DayWork> works;

    DailyRecord(
            EstateStore estates,
            UsageStore usage,
            HistoryStore history,
            Forecasts forecasts,
            ShelfClock clock,
            DayLog log,
            List<DayWork> works) {
        this.estates = estates;
        this.usage = usage;
        this.history = history;
        this.forecasts = forecasts;
        this.clock = clock;
        this.log = log;
        this.works = works;
    }

    @Scheduled(fixedDelay = 2_000)
    public synchronized void catchUp() {
        LocalDate yesterday = clock.today().minusDays(1);
        if (estates.load().volumes().isEmpty()) {
            return;
        }
        LocalDate next = history.lastDay().map(d -> d.plusDays(1)).orElse(yesterday);
        if (next.isAfter(yesterday)) {
            return;
        }
        for (; !next.isAfter(yesterday); next = next.plusDays(1)) {
            LocalDate day = next;
            works.forEach(work -> work.of(day));
            log.once(day, "history", () -> record(estates.load(), usage.load(), day));
        }
        forecasts.forget();
    }

    private void record(Estate estate, Usage held, LocalDate day) {
        Map<String, Bytes> volumes = new LinkedHashMap<>();
        Map<String, Bytes> pools = new LinkedHashMap<>();
        estate.pools().keySet().forEach(pool -> pools.put(pool, Bytes.ZERO));
        estate.volumes().values().forEach(volume -> {
            Bytes used = held.of(volume.name()).used();
            volumes.put(volume.name(), used);
            pools.merge(volume.pool(), used, Bytes::plus);
        });
        history.record(HistoryStore.VOLUME, day, volumes);
        history.record(HistoryStore.POOL, day, pools);
    }
}
