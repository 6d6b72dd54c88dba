package org.vastshelf.app.demo;

import java.sql.Connection;
import java.sql.SQLException;
import java.util.HashMap;
import java.util.Map;
import java.util.function.Consumer;
import org.springframework.stereotype.Component;
import org.vastshelf.app.catalogue.BulkStore;
import org.vastshelf.app.catalogue.CatalogueStore;
import org.vastshelf.app.catalogue.CatalogueStore.Catalogue;
import org.vastshelf.app.catalogue.CatalogueStore.Source;
import org.vastshelf.app.catalogue.FileRow;
import org.vastshelf.app.catalogue.PathBytes;
import org.vastshelf.core.estate.Volume;
import org.vastshelf.core.unit.Bytes;
import org.vastshelf.standins.scenario.DemoFile;
import org.vastshelf.standins.scenario.DemoFolder;

/** Writes the catalogue of a share of a generated estate. */
@Component
class ShareFiles {

    private final CatalogueStore catalogues;
    private final DemoStore rows;

    ShareFiles(CatalogueStore catalogues, DemoStore rows) {
        this.catalogues = catalogues;
        this.rows = rows;
    }

    /**
     * What was loaded.
     *
     * @param live what the files take on the volume
     * @param folders numbers of folders by their paths
     */
    record Loaded(int catalogue, Bytes live, Map<String, Integer> folders) {}

    /** Loads all folders of the share on a volume. */
    Loaded load(Connection connection, Volume volume, Consumer<Consumer<DemoFolder>> folders) throws SQLException {
        Catalogue catalogue = catalogues.create(volume.name(), Source.SHARE, "/");
        Map<String, Integer> numbers = new HashMap<>();
        long[] allocated = new long[1];
        try (BulkStore writer = BulkStore.beside(catalogue.no(), connection)) {
            folders.accept(folder -> {
                try {
                    load(writer, volume, folder, numbers, allocated);
                } catch (SQLException e) {
                    throw new IllegalStateException("the files of " + volume.name() + " did not load", e);
                }
            });
            writer.flush();
            BulkStore.sumUp(connection, catalogue.no());
            connection.commit();
            rows.totals(catalogue.no(), writer);
        }
        return new Loaded(catalogue.no(), Bytes.of(allocated[0]), numbers);
    }

    private static void load(
            BulkStore writer, Volume volume, DemoFolder folder, Map<String, Integer> numbers, long[] allocated)
            throws SQLException {
        String path = folder.path();
        int slash = path.lastIndexOf('/');
        int depth =
                path.equals("/") ? 0 : (int) path.chars().filter(c -> c == '/').count();
        int parent = depth == 0 ? 0 : numbers.get(slash == 0 ? "/" : path.substring(0, slash));
        int no = writer.folder(parent, depth, PathBytes.of(path));
        numbers.put(path, no);
        writer.inFolder(no);
        for (DemoFile file : folder.files()) {
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
                            file.changed(),
                            file.kind()),
                    file.contents(),
                    file.born());
        }
    }
}
