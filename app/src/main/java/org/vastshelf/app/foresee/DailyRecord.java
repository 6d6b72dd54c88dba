package org.vastshelf.app.foresee;

import java.time.Instant;
import java.time.LocalDate;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.springframework.stereotype.Component;
import org.vastshelf.app.agenda.DueWork;
import org.vastshelf.app.clock.ShelfClock;
import org.vastshelf.app.store.EstateStore;
import org.vastshelf.app.store.HistoryStore;
import org.vastshelf.app.store.UsageStore;
import org.vastshelf.core.agenda.DueKind;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.Usage;
import org.vastshelf.core.unit.Bytes;

/** Writes down what every space, and every account of a limit, held at the end of a day. */
@Component
class DailyRecord implements DueWork {

    private final EstateStore estates;
    private final UsageStore usage;
    private final HistoryStore history;
    private final AccountHistoryStore accounts;

    DailyRecord(EstateStore estates, UsageStore usage, HistoryStore history, AccountHistoryStore accounts) {
        this.estates = estates;
        this.usage = usage;
        this.history = history;
        this.accounts = accounts;
    }

    @Override
    public DueKind kind() {
        return DueKind.HISTORY;
    }

    @Override
    public boolean isQuick() {
        return true;
    }

    @Override
    public void act(String everything, Instant midnight) {
        LocalDate day = LocalDate.ofInstant(midnight, ShelfClock.ZONE).minusDays(1);
        record(estates.load(), usage.load(), day);
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
        Map<String, Bytes> servers = new LinkedHashMap<>();
        pools.forEach((pool, used) -> servers.merge(estate.pools().get(pool).server(), used, Bytes::plus));
        Bytes whole = Bytes.sum(List.copyOf(pools.values()));
        history.record(
                day,
                Map.of(
                        HistoryStore.VOLUME,
                        volumes,
                        HistoryStore.POOL,
                        pools,
                        HistoryStore.SERVER,
                        servers,
                        HistoryStore.ESTATE,
                        Map.of(HistoryStore.WHOLE, whole)));
        accounts.record(day);
    }
}
