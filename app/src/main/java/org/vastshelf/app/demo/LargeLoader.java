package org.vastshelf.app.demo;

import java.sql.Connection;
import java.sql.SQLException;
import java.time.Duration;
import java.time.Instant;
import java.util.Map;
import java.util.TreeMap;
import javax.sql.DataSource;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.stereotype.Component;
import org.vastshelf.app.store.UsageStore;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.Usage;
import org.vastshelf.core.estate.Volume;
import org.vastshelf.core.unit.Bytes;
import org.vastshelf.standins.scenario.LargeEstate;
import org.vastshelf.standins.scenario.LargeFiles;
import org.vastshelf.standins.scenario.LargeHistory;

/** Loads files and history of the large estate, on which every page can be tried. */
@Component
class LargeLoader {

    private static final Logger LOG = LoggerFactory.getLogger(LargeLoader.class);

    private final UsageStore usage;
    private final ShareFiles files;
    private final DemoStore rows;
    private final DataSource source;

    LargeLoader(UsageStore usage, ShareFiles files, DemoStore rows, DataSource source) {
        this.usage = usage;
        this.files = files;
        this.rows = rows;
        this.source = source;
    }

    /** Loads all that is not the estate itself, and returns that. */
    Estate load() {
        Instant begin = Instant.now();
        rows.clear();
        Estate estate = LargeEstate.create();
        Map<String, Bytes> used = new TreeMap<>();
        try (Connection connection = source.getConnection()) {
            connection.setAutoCommit(false);
            for (Volume volume : estate.volumes().values()) {
                Bytes live = files.load(connection, volume, to -> LargeFiles.of(volume, to))
                        .live();
                usage.set(volume.name(), new Usage.Held(live, Bytes.ZERO));
                used.put(volume.name(), live);
            }
            connection.commit();
        } catch (SQLException e) {
            throw new IllegalStateException("the large estate did not load", e);
        }
        history(estate, used);
        LOG.info(
                "large estate loaded in {} s",
                Duration.between(begin, Instant.now()).toSeconds());
        return estate;
    }

    private void history(Estate estate, Map<String, Bytes> used) {
        DemoSums sums = new DemoSums(estate, rows);
        used.forEach((volume, today) -> LargeHistory.of(volume, today)
                .forEach(day -> sums.add(volume, day.day(), day.used().value())));
        sums.write();
    }
}
