package org.vastshelf.app.demo;

import java.sql.Connection;
import java.sql.SQLException;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import javax.sql.DataSource;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.boot.ApplicationArguments;
import org.springframework.boot.ApplicationRunner;
import org.springframework.core.annotation.Order;
import org.springframework.stereotype.Component;
import org.vastshelf.app.clock.ShelfClock;
import org.vastshelf.app.config.Settings;
import org.vastshelf.app.store.EstateStore;
import org.vastshelf.app.store.HistoryStore;
import org.vastshelf.app.store.UsageStore;
import org.vastshelf.core.estate.Directory;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.Person;
import org.vastshelf.core.estate.Usage;
import org.vastshelf.core.estate.Volume;
import org.vastshelf.core.unit.Bytes;
import org.vastshelf.standins.scenario.DemoAudit;
import org.vastshelf.standins.scenario.DemoEstate;
import org.vastshelf.standins.scenario.DemoFiles;
import org.vastshelf.standins.scenario.DemoHistory;

/**
 * Loads the demo into an empty database, once. The estate itself is written last: a load that was killed half-way
 * leaves none, and the next start begins again.
 */
@Component
@Order(1)
class DemoLoader implements ApplicationRunner {

    private static final Logger LOG = LoggerFactory.getLogger(DemoLoader.class);
    private static final double SNAPSHOT_SHARE = 0.04;

    private final Settings settings;
    private final EstateStore estates;
    private final UsageStore usage;
    private final ShareFiles files;
    private final LargeLoader large;
    private final DemoStore rows;
    private final Directory directory;
    private final DataSource source;

    DemoLoader(
            Settings settings,
            EstateStore estates,
            UsageStore usage,
            ShareFiles files,
            LargeLoader large,
            DemoStore rows,
            Directory directory,
            DataSource source) {
        this.settings = settings;
        this.estates = estates;
        this.usage = usage;
        this.files = files;
        this.large = large;
        this.rows = rows;
        this.directory = directory;
        this.source = source;
    }

    @Override
    public void run(ApplicationArguments arguments) throws SQLException {
        if (!settings.demo()) {
            return;
        }
        // Several nodes may start at once on an empty database.
        rows.alone(this::load);
    }

    private void load() throws SQLException {
        if (!estates.load().servers().isEmpty()) {
            return;
        }
        if (settings.large()) {
            estates.happen((empty, held) -> counted(large.load()));
            return;
        }
        Instant begin = Instant.now();
        rows.clear();
        Estate estate = DemoEstate.create();
        List<String> people =
                directory.people().stream().map(Person::uid).sorted().toList();
        Map<String, Bytes> used = new TreeMap<>();
        try (Connection connection = source.getConnection()) {
            connection.setAutoCommit(false);
            for (Volume volume : estate.volumes().values()) {
                if (estate.shares().containsKey(volume.name())) {
                    Bytes live = files.load(connection, volume, to -> DemoFiles.of(volume.name(), people, to));
                    used.put(volume.name(), withSnapshots(volume, live));
                }
            }
            used.put("replica-herbarium", used.get("herbarium"));
            rows.audit(connection, people);
            connection.commit();
        }
        rows.receiptsAfter(DemoAudit.LINES);
        loadHistory(estate, used);
        estates.happen((empty, held) -> counted(estate));
        LOG.info("demo loaded in {} s", Duration.between(begin, Instant.now()).toSeconds());
    }

    private Bytes withSnapshots(Volume volume, Bytes live) {
        Bytes snapshots = Bytes.of(Math.round(live.value() * SNAPSHOT_SHARE)).roundDownTo(Bytes.of(volume.blockSize()));
        usage.set(volume.name(), new Usage.Held(live, snapshots));
        return live.plus(snapshots);
    }

    /** From the first moment on, its drives count. */
    private static Estate counted(Estate estate) {
        return estate.withDrives(estate.drives().values().stream()
                .map(d -> d.withHealth(d.health().counted(ShelfClock.DEMO_START)))
                .toList());
    }

    private void loadHistory(Estate estate, Map<String, Bytes> used) {
        usage.set("replica-herbarium", new Usage.Held(used.get("herbarium"), Bytes.ZERO));
        Map<String, Map<LocalDate, Long>> pools = new TreeMap<>();
        List<DemoStore.Day> days = new ArrayList<>();
        used.forEach((volume, today) -> {
            Map<LocalDate, Long> pool =
                    pools.computeIfAbsent(estate.volumes().get(volume).pool(), p -> new TreeMap<>());
            DemoHistory.of(volume, today).forEach(day -> {
                days.add(new DemoStore.Day(
                        HistoryStore.VOLUME, volume, day.day(), day.used().value()));
                pool.merge(day.day(), day.used().value(), Long::sum);
            });
        });
        pools.forEach((pool, sums) ->
                sums.forEach((day, bytes) -> days.add(new DemoStore.Day(HistoryStore.POOL, pool, day, bytes))));
        Map<LocalDate, Long> whole = new TreeMap<>();
        pools.values().forEach(sums -> sums.forEach((day, bytes) -> whole.merge(day, bytes, Long::sum)));
        whole.forEach((day, bytes) -> days.add(new DemoStore.Day(HistoryStore.ESTATE, HistoryStore.WHOLE, day, bytes)));
        rows.history(days);
    }
}
