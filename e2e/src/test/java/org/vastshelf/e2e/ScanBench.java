package org.vastshelf.e2e;

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
import org.vastshelf.app.catalogue.CatalogueStore.ScanState;

/**
 * Ratio of (scan of a tree into the catalogue) to ({@code find -printf} of the same tree, then {@code LOAD DATA} of its
 * output into one table keyed by path), in one run, alternating; run by ./shelf bench scan.
 */
@EnabledIfSystemProperty(named = "vastshelf.bench", matches = "true")
class ScanBench {

    private static final int FILES = 200_000;
    private static final int ROUNDS = 3;

    @Test
    void scan_against_find_and_load() throws Exception {
        Path tree = tree();
        List<Double> ratios = new ArrayList<>();
        for (int round = 0; round < ROUNDS; round++) {
            double baseline = findAndLoad(tree);
            double scan = scan(tree, "bench" + round);
            ratios.add(scan / baseline);
            System.out.printf(
                    Locale.ROOT,
                    "round %d: find and LOAD DATA %.2f s, scan %.2f s, ratio %.2f%n",
                    round + 1,
                    baseline,
                    scan,
                    scan / baseline);
        }
        ratios.sort(null);
        System.out.printf(
                Locale.ROOT,
                "scan : (find -printf + LOAD DATA), %,d files, median ratio %.2f%n",
                FILES,
                ratios.get(ROUNDS / 2));
    }

    private static Path tree() throws Exception {
        Path tree = Files.createDirectory(App.TREES.resolve("bench"));
        Path folder = tree;
        for (int i = 0; i < FILES; i++) {
            if (i % 50 == 0) {
                folder = Files.createDirectories(tree.resolve("f" + i / 5_000).resolve("g" + i / 50));
            }
            Files.createFile(folder.resolve("file-with-a-usual-name-" + i + ".tif"));
        }
        return tree;
    }

    private static double scan(Path tree, String name) throws Exception {
        long begin = System.nanoTime();
        App.Reply reply =
                App.post("odile", "/api/v1/catalogues", "{\"name\":\"" + name + "\",\"folder\":\"" + tree + "\"}");
        if (reply.status() != 202) {
            throw new IllegalStateException(reply.text());
        }
        CatalogueStore catalogues = App.bean(CatalogueStore.class);
        while (catalogues.find(name).orElseThrow().state() == ScanState.READING) {
            Thread.sleep(20);
        }
        double seconds = (System.nanoTime() - begin) / 1e9;
        if (catalogues.find(name).orElseThrow().files() != FILES) {
            throw new IllegalStateException("not all files were scanned");
        }
        return seconds;
    }

    private static double findAndLoad(Path tree) throws Exception {
        Path output = Files.createTempFile("found", ".tsv");
        try (Connection connection = App.bean(DataSource.class).getConnection();
                var sql = connection.createStatement()) {
            sql.execute("CREATE OR REPLACE TABLE found (path VARBINARY(700) PRIMARY KEY, bytes BIGINT, blocks BIGINT,"
                    + " owner VARCHAR(64), owner_group VARCHAR(64), modified DOUBLE, accessed DOUBLE, changed DOUBLE)");
            long begin = System.nanoTime();
            Process find = new ProcessBuilder(
                            "find",
                            tree.toString(),
                            "-type",
                            "f",
                            "-printf",
                            "%p\\t%s\\t%b\\t%u\\t%g\\t%T@\\t%A@\\t%C@\\n")
                    .redirectOutput(output.toFile())
                    .start();
            if (find.waitFor() != 0) {
                throw new IllegalStateException("find failed");
            }
            sql.execute("LOAD DATA LOCAL INFILE '" + output + "' INTO TABLE found CHARACTER SET binary");
            return (System.nanoTime() - begin) / 1e9;
        } finally {
            Files.delete(output);
        }
    }
}
