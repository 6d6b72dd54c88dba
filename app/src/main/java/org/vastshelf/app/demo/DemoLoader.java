package org.vastshelf.app.demo;

import java.sql.Connection;
import java.sql.SQLException;
import java.sql.Statement;
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
import org.vastshelf.app.catalogue.BulkWriter;
import org.vastshelf.app.catalogue.CatalogueStore;
import org.vastshelf.app.catalogue.CatalogueStore.Catalogue;
import org.vastshelf.app.catalogue.CatalogueStore.Source;
import org.vastshelf.app.catalogue.FileRow;
import org.vastshelf.app.catalogue.PathBytes;
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
import org.vastshelf.standins.scenario.LargeEstate;

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
    private final CatalogueStore catalogues;
    private final DemoRows rows;
    private final Directory directory;
    private final DataSource source;

    DemoLoader(
            Settings settings,
            EstateStore estates,
            UsageStore usage,
            CatalogueStore catalogues,
            DemoRows rows,
            Directory directory,
            DataSource source) {
        this.settings = settings;
        this.estates = estates;
        this.usage = usage;
        this.catalogues = catalogues;
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
        try (Connection alone = source.getConnection();
                Statement lock = alone.createStatement()) {
            lock.execute("SELECT GET_LOCK('vastshelf demo', 600)");
            try {
                load();
            } finally {
                lock.execute("SELECT RELEASE_LOCK('vastshelf demo')");
            }
        }
    }

    private void load() throws SQLException {
        if (!estates.load().servers().isEmpty()) {
            return;
        }
        if (settings.large()) {
            Estate large = LargeEstate.create();
            LargeEstate.usage(large).byVolume().forEach(usage::set);
            estates.happen((empty, held) -> counted(large));
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
                    used.put(volume.name(), loadFiles(connection, volume, people));
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

    private Bytes loadFiles(Connection connection, Volume volume, List<String> people) throws SQLException {
        Catalogue catalogue = catalogues.create(volume.name(), Source.SHARE, "/");
        BulkWriter writer = new BulkWriter(connection, catalogue.no(), 0);
        Map<String, Integer> numbers = new TreeMap<>();
        long[] allocated = new long[1];
        DemoFiles.of(volume.name(), people, folder -> {
            try {
                loadFolder(writer, volume, folder, numbers, allocated);
            } catch (SQLException e) {
                throw new IllegalStateException("the demo's files did not load", e);
            }
        });
        writer.flush();
        BulkWriter.sumUp(connection, catalogue.no());
        connection.commit();
        rows.totals(catalogue.no(), writer);
        Bytes live = Bytes.of(allocated[0]);
        Bytes snapshots = Bytes.of(Math.round(live.value() * SNAPSHOT_SHARE)).roundDownTo(Bytes.of(volume.blockSize()));
        usage.set(volume.name(), new Usage.Held(live, snapshots));
        return live.plus(snapshots);
    }

    private static void loadFolder(
            BulkWriter writer,
            Volume volume,
            DemoFiles.DemoFolder folder,
            Map<String, Integer> numbers,
            long[] allocated)
            throws SQLException {
        String path = folder.path();
        int slash = path.lastIndexOf('/');
        int depth =
                path.equals("/") ? 0 : (int) path.chars().filter(c -> c == '/').count();
        int parent = depth == 0 ? 0 : numbers.get(slash == 0 ? "/" : path.substring(0, slash));
        int no = writer.folder(parent, depth, PathBytes.of(path));
        numbers.put(path, no);
        writer.inFolder(no);
        for (DemoFiles.DemoFile file : folder.files()) {
            long takes = volume.allocated(Bytes.of(file.bytes())).value();
            allocated[0] += takes;
            writer.file(
                    new FileRow(
                            PathBytes.of(file.name()),
                            file.bytes(),
                            takes,
                            file.owner(),
                            file.group(),
                            file.modified(),
                            file.accessed(),
                            file.modified(),
                            file.kind()),
                    true);
        }
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
        List<DemoRows.Day> days = new ArrayList<>();
        used.forEach((volume, today) -> {
            Map<LocalDate, Long> pool =
                    pools.computeIfAbsent(estate.volumes().get(volume).pool(), p -> new TreeMap<>());
            DemoHistory.of(volume, today).forEach(day -> {
                days.add(new DemoRows.Day(
                        HistoryStore.VOLUME, volume, day.day(), day.used().value()));
                pool.merge(day.day(), day.used().value(), Long::sum);
            });
        });
        pools.forEach((pool, sums) ->
                sums.forEach((day, bytes) -> days.add(new DemoRows.Day(HistoryStore.POOL, pool, day, bytes))));
        Map<LocalDate, Long> whole = new TreeMap<>();
        pools.values().forEach(sums -> sums.forEach((day, bytes) -> whole.merge(day, bytes, Long::sum)));
        whole.forEach((day, bytes) -> days.add(new DemoRows.Day(HistoryStore.ESTATE, HistoryStore.WHOLE, day, bytes)));
        rows.history(days);
    }
}
