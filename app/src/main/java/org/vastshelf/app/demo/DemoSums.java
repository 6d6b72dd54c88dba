package org.vastshelf.app.demo;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import org.vastshelf.app.store.HistoryStore;
import org.vastshelf.core.estate.Estate;

/** The past of all spaces by that of volumes: what pools, file servers and the estate held is what theirs did. */
final class DemoSums {

    /** Hardly 100 MB of rows. */
    private static final int MOST_DAYS_AT_ONCE = 200_000;

    private final Estate estate;
    private final DemoStore rows;
    private final Map<String, Map<LocalDate, Long>> pools = new TreeMap<>();
    private final Map<String, Map<LocalDate, Long>> servers = new TreeMap<>();
    private final Map<LocalDate, Long> whole = new TreeMap<>();
    private final List<DemoStore.Day> days = new ArrayList<>();

    DemoSums(Estate estate, DemoStore rows) {
        this.estate = estate;
        this.rows = rows;
    }

    void add(String volume, LocalDate day, long bytes) {
        String pool = estate.volumes().get(volume).pool();
        String server = estate.pools().get(pool).server();
        days.add(new DemoStore.Day(HistoryStore.VOLUME, volume, day, bytes));
        pools.computeIfAbsent(pool, none -> new TreeMap<>()).merge(day, bytes, Long::sum);
        servers.computeIfAbsent(server, none -> new TreeMap<>()).merge(day, bytes, Long::sum);
        whole.merge(day, bytes, Long::sum);
        if (days.size() > MOST_DAYS_AT_ONCE) {
            flush();
        }
    }

    void write() {
        pools.forEach((pool, sums) -> add(HistoryStore.POOL, pool, sums));
        servers.forEach((server, sums) -> add(HistoryStore.SERVER, server, sums));
        add(HistoryStore.ESTATE, HistoryStore.WHOLE, whole);
        flush();
    }

    private void add(String kind, String name, Map<LocalDate, Long> sums) {
        sums.forEach((day, bytes) -> days.add(new DemoStore.Day(kind, name, day, bytes)));
    }

    private void flush() {
        rows.history(days);
        days.clear();
    }
}
