package org.vastshelf.app.demo;

import java.io.ByteArrayInputStream;
import java.sql.Connection;
import java.sql.SQLException;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.util.List;
import java.util.Map;
import java.util.SortedMap;
import java.util.TreeMap;
import java.util.concurrent.CompletableFuture;
import java.util.function.Consumer;
import javax.sql.DataSource;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.boot.ApplicationArguments;
import org.springframework.boot.ApplicationRunner;
import org.springframework.core.annotation.Order;
import org.springframework.stereotype.Component;
import org.vastshelf.app.clock.ShelfClock;
import org.vastshelf.app.config.Settings;
import org.vastshelf.app.content.FileBytes;
import org.vastshelf.app.content.KeptStore;
import org.vastshelf.app.store.EstateStore;
import org.vastshelf.app.store.Transactions;
import org.vastshelf.app.store.UsageStore;
import org.vastshelf.core.content.Contents;
import org.vastshelf.core.estate.Directory;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.Kinds;
import org.vastshelf.core.estate.Usage;
import org.vastshelf.core.estate.Volume;
import org.vastshelf.core.unit.Bytes;
import org.vastshelf.standins.life.Balance;
import org.vastshelf.standins.life.Crew;
import org.vastshelf.standins.life.LivingFile;
import org.vastshelf.standins.life.Month;
import org.vastshelf.standins.life.RealFile;
import org.vastshelf.standins.life.RealFiles;
import org.vastshelf.standins.life.ShareLife;
import org.vastshelf.standins.scenario.DemoEstate;
import org.vastshelf.standins.scenario.DemoFile;
import org.vastshelf.standins.scenario.DemoFolder;
import org.vastshelf.standins.scenario.DemoHistory;
import org.vastshelf.standins.scenario.Nights;

/**
 * Loads the demo into an empty database, once. The estate itself is written last: a load that was killed half-way
 * leaves none, and the next start begins again.
 */
@Component
@Order(1)
class DemoLoader implements ApplicationRunner {

    private static final double DAYS_A_YEAR = 365;
    private static final Logger LOG = LoggerFactory.getLogger(DemoLoader.class);

    private final Settings settings;
    private final EstateStore estates;
    private final UsageStore usage;
    private final ShareFiles files;
    private final DemoPasts pasts;
    private final LargeLoader large;
    private final DemoStore rows;
    private final Directory directory;
    private final DataSource source;
    private final FileBytes bytes;
    private final KeptStore kept;
    private final Transactions transactions;
    private final DemoColdStore coldStore;

    DemoLoader(
            Settings settings,
            EstateStore estates,
            UsageStore usage,
            ShareFiles files,
            DemoPasts pasts,
            LargeLoader large,
            DemoStore rows,
            Directory directory,
            DataSource source,
            FileBytes bytes,
            KeptStore kept,
            Transactions transactions,
            DemoColdStore coldStore) {
        this.settings = settings;
        this.estates = estates;
        this.usage = usage;
        this.files = files;
        this.pasts = pasts;
        this.large = large;
        this.rows = rows;
        this.directory = directory;
        this.source = source;
        this.bytes = bytes;
        this.kept = kept;
        this.transactions = transactions;
        this.coldStore = coldStore;
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
        Crew crew = Crew.of(directory.people());
        Map<String, ShareLife> lives = lives(estate, crew);
        Month month = Month.of(crew, lives, estate);
        CompletableFuture<Void> lines = CompletableFuture.runAsync(() -> audit(month));
        Map<String, SortedMap<LocalDate, Long>> days = files(estate, lives, month);
        lines.join();
        replica(days);
        loadHistory(estate, days);
        Estate whole = coldStore
                .made()
                .map(store -> estate.with(Kinds.COLD_STORE, store))
                .orElse(estate);
        estates.happen((empty, held) -> counted(whole));
        LOG.info("demo loaded in {} s", Duration.between(begin, Instant.now()).toSeconds());
    }

    /** Over a connection of its own, beside the files. */
    private void audit(Month month) {
        try (Connection connection = source.getConnection()) {
            connection.setAutoCommit(false);
            long lines = rows.audit(connection, month.deeds());
            connection.commit();
            rows.receiptsAfter(lines);
        } catch (SQLException e) {
            throw new IllegalStateException("the demo's audit lines did not load", e);
        }
    }

    /** Writes the files of all shares, and says what each volume held on which day. */
    private Map<String, SortedMap<LocalDate, Long>> files(Estate estate, Map<String, ShareLife> lives, Month month)
            throws SQLException {
        Map<String, SortedMap<LocalDate, Long>> days = new TreeMap<>();
        try (Connection connection = source.getConnection()) {
            connection.setAutoCommit(false);
            for (ShareLife life : lives.values()) {
                Volume volume = estate.volumes().get(life.share());
                Nights nights = Nights.of(volume.name());
                ShareFiles.Loaded loaded = files.load(connection, volume, to -> folders(life, nights, to));
                Bytes snapshots = pasts.write(connection, volume, nights, month.pasts(), loaded);
                usage.set(volume.name(), new Usage.Held(loaded.live(), snapshots));
                rows.snapshots(volume.name(), nights.taken().size());
                days.put(
                        volume.name(),
                        history(volume, Balance.of(life, month.ghosts(), volume::allocatedBytes), snapshots.value()));
            }
            connection.commit();
        }
        return days;
    }

    /** What is on each share; of real files the bytes are kept. */
    private Map<String, ShareLife> lives(Estate estate, Crew crew) {
        Map<String, ShareLife> lives = new TreeMap<>();
        estate.shares().keySet().parallelStream()
                .map(share -> ShareLife.of(share, crew))
                .toList()
                .forEach(life -> lives.put(life.share(), life));
        for (RealFile real : RealFiles.all()) {
            Contents contents = transactions.run(() -> kept(real));
            lives.get(real.share()).add(real, contents, crew);
        }
        return lives;
    }

    private Contents kept(RealFile real) {
        Contents contents = bytes.keep(() -> new ByteArrayInputStream(real.bytes()));
        kept.used(contents.kept(), 1);
        return contents;
    }

    private static void folders(ShareLife life, Nights nights, Consumer<DemoFolder> to) {
        life.folders()
                .forEach((path, files) -> to.accept(new DemoFolder(
                        path, files.stream().map(file -> file(file, nights)).toList())));
    }

    private static DemoFile file(LivingFile file, Nights nights) {
        return new DemoFile(
                file.name(),
                file.contents(),
                file.owner().uid(),
                file.owner().fileGroup(),
                file.modified(),
                file.accessed(),
                file.modified(),
                file.kind(),
                nights.before(file.modified()));
    }

    /** The known month, and before it the years that led there, where there were any. */
    private static SortedMap<LocalDate, Long> history(Volume volume, SortedMap<LocalDate, Long> month, long snapshots) {
        SortedMap<LocalDate, Long> days = new TreeMap<>();
        month.forEach((day, live) -> days.put(day, live + snapshots));
        long first = days.get(month.firstKey());
        if (first == 0) {
            return days;
        }
        double pace = (days.get(month.lastKey()) - first) * DAYS_A_YEAR / (month.size() - 1.0) / first;
        DemoHistory.of(volume.name(), month.firstKey(), Bytes.of(first), pace)
                .forEach(day -> days.put(day.day(), day.used().value()));
        return days;
    }

    /** The copy elsewhere holds what the original does. */
    private void replica(Map<String, SortedMap<LocalDate, Long>> days) {
        SortedMap<LocalDate, Long> original = days.get("herbarium");
        days.put("replica-herbarium", original);
        usage.set("replica-herbarium", new Usage.Held(Bytes.of(original.get(original.lastKey())), Bytes.ZERO));
        List<Instant> nights = Nights.of("herbarium").taken();
        int behind = nights.size() - NIGHTS_BEHIND;
        rows.replica("herbarium", behind, nights.get(behind - 1), ShelfClock.DEMO_START);
    }

    /** Since then the link to the annex is cut. */
    private static final int NIGHTS_BEHIND = 6;

    /** From the first moment on, its drives count. */
    private static Estate counted(Estate estate) {
        return estate.withDrives(estate.drives().values().stream()
                .map(d -> d.withHealth(d.health().counted(ShelfClock.DEMO_START)))
                .toList());
    }

    private void loadHistory(Estate estate, Map<String, SortedMap<LocalDate, Long>> byVolume) {
        DemoSums sums = new DemoSums(estate, rows);
        byVolume.forEach((volume, days) -> days.forEach((day, bytes) -> sums.add(volume, day, bytes)));
        sums.write();
    }
}
