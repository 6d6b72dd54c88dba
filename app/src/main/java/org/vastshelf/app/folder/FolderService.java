package org.vastshelf.app.folder;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.InvalidPathException;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.SQLException;
import java.util.List;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.atomic.AtomicBoolean;
import javax.sql.DataSource;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.boot.context.event.ApplicationReadyEvent;
import org.springframework.context.event.EventListener;
import org.springframework.stereotype.Service;
import org.vastshelf.app.catalogue.CatalogueStore;
import org.vastshelf.app.catalogue.CatalogueStore.Catalogue;
import org.vastshelf.app.catalogue.CatalogueStore.ScanState;
import org.vastshelf.app.catalogue.CatalogueStore.Source;
import org.vastshelf.app.config.Settings;
import org.vastshelf.app.kit.NotFound;
import org.vastshelf.app.store.EstateStore;
import org.vastshelf.core.estate.Names;

/** Brings real folders in, in the background, one scan for each. */
@Service
public class FolderService {

    private static final Logger LOG = LoggerFactory.getLogger(FolderService.class);

    private final CatalogueStore catalogues;
    private final EstateStore estates;
    private final DataSource source;
    private final Settings settings;
    private final Map<Integer, AtomicBoolean> running = new ConcurrentHashMap<>();

    FolderService(CatalogueStore catalogues, EstateStore estates, DataSource source, Settings settings) {
        this.catalogues = catalogues;
        this.estates = estates;
        this.source = source;
        this.settings = settings;
    }

    public List<String> roots() {
        return settings.scanRoots();
    }

    /** A scan that the end of the application interrupted can be gone on with. */
    @EventListener(ApplicationReadyEvent.class)
    void interrupted() {
        catalogues.all().stream()
                .filter(c -> c.state() == ScanState.SCANNING)
                .forEach(c -> catalogues.state(c.no(), ScanState.STOPPED));
    }

    /** Begins to read a folder under a new name. */
    public Catalogue bringIn(String name, String folder) {
        Names.require("name", name);
        requireFree(name);
        Catalogue catalogue = catalogues.create(name, Source.FOLDER, allowed(folder));
        goOn(name);
        return catalogue;
    }

    void requireFree(String name) {
        if (catalogues.find(name).isPresent() || estates.load().shares().containsKey(name)) {
            throw new IllegalArgumentException("The name '" + name + "' is taken");
        }
    }

    /** The real path, if it lies below an allowed root. */
    private String allowed(String folder) {
        try {
            Path real = Path.of(folder).toRealPath();
            if (!Files.isDirectory(real)) {
                throw new IllegalArgumentException("folder is '" + folder + "', must be a folder");
            }
            for (String root : settings.scanRoots()) {
                if (real.startsWith(Path.of(root).toRealPath())) {
                    return real.toString();
                }
            }
        } catch (IOException | InvalidPathException e) {
            throw new IllegalArgumentException("There is no folder '" + folder + "' on this host");
        }
        throw new IllegalArgumentException(
                "folder is '" + folder + "', must lie below one of " + String.join(", ", settings.scanRoots()));
    }

    public void goOn(String name) {
        Catalogue catalogue = find(name);
        if (catalogue.source() != Source.FOLDER) {
            throw new IllegalArgumentException("'" + name + "' was not brought in from a folder");
        }
        AtomicBoolean stop = new AtomicBoolean();
        if (running.putIfAbsent(catalogue.no(), stop) == null) {
            catalogues.state(catalogue.no(), ScanState.SCANNING);
            Thread.ofVirtual().name("scan " + name).start(() -> scan(catalogue.no(), name, stop));
        }
    }

    public void stop(String name) {
        AtomicBoolean stop = running.get(find(name).no());
        if (stop != null) {
            stop.set(true);
        }
    }

    public void remove(String name) {
        Catalogue catalogue = find(name);
        if (catalogue.source() == Source.SHARE) {
            throw new IllegalArgumentException("'" + name + "' is a share, its catalogue stays");
        }
        if (running.containsKey(catalogue.no())) {
            throw new IllegalArgumentException("'" + name + "' is being read, stop it first");
        }
        catalogues.remove(catalogue.no());
    }

    public Catalogue find(String name) {
        return catalogues.find(name).orElseThrow(() -> new NotFound("catalogue", name));
    }

    private void scan(int no, String name, AtomicBoolean stop) {
        ScanState after = ScanState.STOPPED;
        try (Connection connection = source.getConnection()) {
            connection.setAutoCommit(false);
            if (new FolderScan(connection, find(name), stop::get).run()) {
                after = ScanState.READY;
            }
        } catch (SQLException | RuntimeException e) {
            LOG.error("scan of {} stopped", name, e);
        } finally {
            catalogues.state(no, after);
            running.remove(no);
        }
    }
}
