package org.vastshelf.app.folder;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.InvalidPathException;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.SQLException;
import java.time.Duration;
import java.util.List;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import javax.sql.DataSource;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Service;
import org.vastshelf.app.catalogue.CatalogueStore;
import org.vastshelf.app.catalogue.CatalogueStore.Catalogue;
import org.vastshelf.app.catalogue.CatalogueStore.ScanState;
import org.vastshelf.app.catalogue.CatalogueStore.Source;
import org.vastshelf.app.config.Settings;
import org.vastshelf.app.kit.NotFound;
import org.vastshelf.app.store.EstateStore;
import org.vastshelf.app.store.LeaseStore;
import org.vastshelf.core.estate.Names;

/** Brings real folders in, in the background, one scan for each. */
@Service
public class FolderService {

    private static final Duration LEASE = Duration.ofSeconds(15);
    private static final Logger LOG = LoggerFactory.getLogger(FolderService.class);

    private final CatalogueStore catalogues;
    private final EstateStore estates;
    private final DataSource source;
    private final Settings settings;
    private final LeaseStore leases;
    private final Set<Integer> running = ConcurrentHashMap.newKeySet();

    FolderService(
            CatalogueStore catalogues, EstateStore estates, DataSource source, Settings settings, LeaseStore leases) {
        this.leases = leases;
        this.catalogues = catalogues;
        this.estates = estates;
        this.source = source;
        this.settings = settings;
    }

    public List<String> roots() {
        return settings.scanRoots();
    }

    /** Renews what this node is at, and takes over what a node that is gone was at. */
    @Scheduled(fixedDelay = 3_000)
    void watch() {
        running.forEach(no -> leases.take(lease(no), LEASE));
        catalogues.scanning().stream().filter(c -> !running.contains(c.no())).forEach(this::begin);
    }

    private static String lease(int no) {
        return "scan " + no;
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
        catalogues.state(catalogue.no(), ScanState.READING);
        begin(catalogue);
    }

    /** Begins or goes on with a scan, unless another node is at it. */
    private void begin(Catalogue catalogue) {
        int no = catalogue.no();
        if (leases.take(lease(no), LEASE) && running.add(no)) {
            Thread.ofVirtual().name("scan " + catalogue.name()).start(() -> scan(no, catalogue.name()));
        }
    }

    /** Whichever node is at it sees it at its next commit. */
    public void stop(String name) {
        Catalogue catalogue = find(name);
        if (catalogue.state() == ScanState.READING) {
            catalogues.state(catalogue.no(), ScanState.STOPPED);
        }
    }

    public void remove(String name) {
        Catalogue catalogue = find(name);
        if (catalogue.source() == Source.SHARE) {
            throw new IllegalArgumentException("'" + name + "' is a share, its catalogue stays");
        }
        boolean isRead = running.contains(catalogue.no()) || leases.othersHave(lease(catalogue.no()));
        if (isRead || catalogue.state() == ScanState.READING) {
            throw new IllegalArgumentException("'" + name + "' is being read, stop it first");
        }
        catalogues.remove(catalogue.no());
    }

    public Catalogue find(String name) {
        return catalogues.find(name).orElseThrow(() -> new NotFound("catalogue", name));
    }

    private void scan(int no, String name) {
        try (Connection connection = source.getConnection()) {
            connection.setAutoCommit(false);
            boolean complete = new FolderScan(
                            connection, find(name), lease(no), leases.node(), () -> !catalogues.isScanning(no))
                    .run();
            catalogues.state(no, complete ? ScanState.COMPLETE : ScanState.STOPPED);
        } catch (FolderScan.Overtaken another) {
            LOG.info("another node goes on with the scan of {}", name);
        } catch (SQLException | RuntimeException e) {
            LOG.error("scan of {} failed", name, e);
            catalogues.state(no, ScanState.FAILED);
        } finally {
            leases.giveBack(lease(no));
            running.remove(no);
        }
    }
}
