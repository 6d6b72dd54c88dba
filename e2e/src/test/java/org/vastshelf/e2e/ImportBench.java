package org.vastshelf.e2e;

import java.io.BufferedWriter;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import javax.sql.DataSource;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.condition.EnabledIfSystemProperty;
import org.vastshelf.app.catalogue.CatalogueStore;
import org.vastshelf.app.folder.CatalogueCsv;

/**
 * Ratio of (import of a CSV into a catalogue, with its folders, sums and tallies) to ({@code LOAD DATA} of the same file
 * into one table keyed by path), in one run, alternating; run by ./shelf bench import.
 */
@EnabledIfSystemProperty(named = "vastshelf.bench", matches = "true")
class ImportBench {

    private static final int FILES = 2_000_000;
    private static final int IN_A_FOLDER = 50;
    private static final int ROUNDS = 3;

    @Test
    void import_against_load() throws Exception {
        Path csv = written();
        CatalogueStore catalogues = App.bean(CatalogueStore.class);
        List<Double> ratios = new ArrayList<>();
        for (int round = 0; round < ROUNDS; round++) {
            double baseline = load(csv);
            String name = "import" + round;
            long begin = System.nanoTime();
            try (var reader = Files.newBufferedReader(csv)) {
                App.bean(CatalogueCsv.class).read(name, reader);
            }
            double taken = (System.nanoTime() - begin) / 1e9;
            CatalogueStore.Catalogue kept = catalogues.find(name).orElseThrow();
            if (kept.files() != FILES) {
                throw new IllegalStateException("not all files were taken in");
            }
            catalogues.remove(kept.no());
            ratios.add(taken / baseline);
            System.out.printf(
                    Locale.ROOT,
                    "round %d: LOAD DATA %.2f s, import %.2f s, ratio %.2f%n",
                    round + 1,
                    baseline,
                    taken,
                    taken / baseline);
        }
        ratios.sort(null);
        System.out.printf(
                Locale.ROOT, "import : LOAD DATA, %,d files, median ratio %.2f%n", FILES, ratios.get(ROUNDS / 2));
        Files.delete(csv);
    }

    private static Path written() throws Exception {
        Path csv = Files.createTempFile("files", ".csv");
        try (BufferedWriter out = Files.newBufferedWriter(csv, StandardCharsets.UTF_8)) {
            out.write("path,bytes,allocated,owner,group,modified,accessed,changed,kind,counted\r\n");
            for (int i = 0; i < FILES; i++) {
                int folder = i / IN_A_FOLDER;
                long bytes = 1_000 + i * 7_919L % 50_000_000;
                // What lies together was made together, mostly within a quarter of a year.
                String day = String.format(
                        Locale.ROOT,
                        "20%02d-%02d-%02dT08:00:00Z",
                        18 + folder % 8,
                        1 + folder % 10 + i % 3,
                        1 + i % 28);
                out.write("/area" + folder / 1_000 + "/project" + folder + "/file-with-a-usual-name-" + i + ".tif,"
                        + bytes + "," + (bytes + 65_535) / 65_536 * 65_536 + ",suki,herbarium-imaging," + day + ","
                        + day + "," + day + ",IMAGE,1\r\n");
            }
        }
        return csv;
    }

    private static double load(Path csv) throws Exception {
        try (Connection connection = App.bean(DataSource.class).getConnection();
                var sql = connection.createStatement()) {
            sql.execute("CREATE OR REPLACE TABLE found (path VARBINARY(700) PRIMARY KEY, bytes BIGINT,"
                    + " allocated BIGINT, owner VARCHAR(64), owner_group VARCHAR(64), modified VARCHAR(24),"
                    + " accessed VARCHAR(24), changed VARCHAR(24), kind VARCHAR(16), counted INT)");
            long begin = System.nanoTime();
            sql.execute(
                    "LOAD DATA LOCAL INFILE '" + csv + "' INTO TABLE found CHARACTER SET binary"
                            + " FIELDS TERMINATED BY ',' OPTIONALLY ENCLOSED BY '\"' LINES TERMINATED BY '\\r\\n' IGNORE 1 LINES");
            double taken = (System.nanoTime() - begin) / 1e9;
            sql.execute("DROP TABLE found");
            return taken;
        }
    }
}
