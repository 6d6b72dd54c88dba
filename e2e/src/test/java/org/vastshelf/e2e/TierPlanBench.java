package org.vastshelf.e2e;

import java.io.BufferedWriter;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.util.Locale;
import java.util.SplittableRandom;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.condition.EnabledIfSystemProperty;
import org.vastshelf.app.folder.CatalogueCsv;

/** How long plans over a large catalogue take; run by ./shelf bench plan. */
@EnabledIfSystemProperty(named = "vastshelf.bench", matches = "true")
class TierPlanBench {

    private static final int FILES = 1_000_000 * Integer.getInteger("vastshelf.millions", 10);
    private static final int IN_A_FOLDER = 200;
    private static final int ROUNDS = 5;
    private static final Instant AT = Instant.parse("2026-03-02T08:00:00Z");
    private static final int DAY = 86_400;

    @Test
    void plans_over_many_files() throws Exception {
        Path csv = written();
        long begin = System.nanoTime();
        try (var reader = Files.newBufferedReader(csv)) {
            App.bean(CatalogueCsv.class).read("many", reader);
        }
        System.out.printf(Locale.ROOT, "%,d files brought in within %.0f s%n", FILES, seconds(begin));
        Files.delete(csv);
        time("by age", "");
        time("larger than 1 MiB", ",\"largerThanBytes\":1048576");
        time("larger than 700,000 bytes", ",\"largerThanBytes\":700000");
        time("without a folder of the first level", ",\"excludeFolders\":[\"/area3\"]");
        time("without a folder of the second level", ",\"excludeFolders\":[\"/area3/project600\"]");
        time("until 40 % are used", ",\"keepWhileBelowPercent\":40,\"capacityBytes\":" + (long) FILES * 3_000_000);
    }

    private static void time(String what, String more) {
        double best = Double.MAX_VALUE;
        String leaving = "";
        for (int i = 0; i < ROUNDS; i++) {
            String body = "{\"catalogue\":\"many\",\"by\":\"LAST_USE\",\"at\":\"" + AT + "\",\"olderThanDays\":"
                    + (400 + i) + more + "}";
            long begin = System.nanoTime();
            App.Reply reply = App.post("odile", "/api/v1/tiering/plan", body);
            best = Math.min(best, seconds(begin));
            if (reply.status() != 200) {
                throw new IllegalStateException(reply.text());
            }
            leaving = reply.json().path("leaving").toString();
        }
        System.out.printf(Locale.ROOT, "%s: %.2f s, %s%n", what, best, leaving);
    }

    private static double seconds(long begin) {
        return (System.nanoTime() - begin) / 1e9;
    }

    /** Sizes spread over powers of two, times over six years, folders of two levels. */
    private static Path written() throws Exception {
        Path csv = Files.createTempFile("files", ".csv");
        SplittableRandom random = new SplittableRandom(1);
        try (BufferedWriter out = Files.newBufferedWriter(csv, StandardCharsets.UTF_8)) {
            out.write("path,bytes,allocated,owner,group,modified,accessed,changed,kind,counted\r\n");
            long time = 0;
            for (int i = 0; i < FILES; i++) {
                int folder = i / IN_A_FOLDER;
                if (i % IN_A_FOLDER == 0) {
                    // What lies together was made together, mostly within a quarter of a year.
                    time = AT.getEpochSecond() - random.nextLong(6 * 365L * DAY);
                }
                Instant made = Instant.ofEpochSecond(time - random.nextLong(90L * DAY));
                long bytes = (long) Math.pow(2, 10 + 14 * random.nextDouble());
                out.write("/area" + folder / 2_500 + "/project" + folder % 2_500 + "/file-with-a-name-" + i + ".tif,"
                        + bytes + "," + bytes + ",suki,herbarium-imaging," + made + "," + made + "," + made
                        + ",IMAGE,1\r\n");
            }
        }
        return csv;
    }
}
