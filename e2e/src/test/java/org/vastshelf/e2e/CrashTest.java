package org.vastshelf.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Path;
import org.jooq.DSLContext;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.api.parallel.Execution;
import org.junit.jupiter.api.parallel.ExecutionMode;

/** Kills an application of its own, in the middle of an order, and starts it again. */
@Execution(ExecutionMode.CONCURRENT)
class CrashTest {

    private static final String ORDER =
            "{\"changes\":[{\"change\":\"ComposePool\",\"name\":\"alder\",\"server\":\"dewpond\","
                    + "\"drives\":[\"dewpond/1/1\",\"dewpond/1/2\",\"dewpond/1/3\"],\"layout\":\"RAID_5\",\"spares\":0,"
                    + "\"surfaceCheck\":true}]}";

    @TempDir
    Path data;

    @Test
    void an_order_that_was_killed_half_way_is_finished_or_taken_back_by_the_next_start() throws Exception {
        try (CrashRig rig = new CrashRig(data, "vastshelf_crash")) {
            rig.start();
            demoBeginsWithSnapshots();
            rig.post("/api/v1/orders", ORDER);
            assertThat(rig.post("/api/v1/orders/1/carry-out", "")).contains("RUNNING");
            Thread.sleep(700);
            rig.kill();
            rig.start();
            // It starts sooner than the other one is known to be gone.
            for (int i = 0; i < 150 && !rig.get("/api/v1/orders/1").contains("Interrupted"); i++) {
                Thread.sleep(100);
            }
            assertThat(rig.get("/api/v1/orders/1"))
                    .contains("RUNNING")
                    .contains("Interrupted after 0 of 3 steps, went on at");
            rig.post("/api/v1/time", "{\"hours\":24}");
            assertThat(rig.order(1, "DONE")).contains("DONE").contains("Finished.");
            assertThat(rig.get("/api/v1/pools")).contains("alder");

            rig.post("/api/v1/orders", ORDER.replace("alder", "other"));
            assertThat(rig.post("/api/v1/orders/2/carry-out", "")).contains("must be unclaimed");
            rig.post(
                    "/api/v1/orders",
                    "{\"changes\":[{\"change\":\"RestartNode\",\"server\":\"fernhill\",\"node\":1},"
                            + "{\"change\":\"DissolvePool\",\"pool\":\"alder\"}]}");
            rig.post("/api/v1/orders/3/carry-out", "");
            Thread.sleep(600);
            rig.post("/api/v1/orders/3/take-back", "");
            rig.kill();
            rig.start();
            rig.post("/api/v1/time", "{\"hours\":1}");
            assertThat(rig.order(3, "TAKEN_BACK")).contains("TAKEN_BACK").contains("Taken back whole.");
            assertThat(rig.get("/api/v1/pools")).contains("alder");
            killWhileForecasting(rig);
            killWhilePlacesChange(rig);
            killWhileSaving(rig);
        }
    }

    /** They hold what the month before overwrote and deleted. */
    private static void demoBeginsWithSnapshots() {
        DSLContext db = App.bean(DSLContext.class);
        assertThat(count(db, "snapshot")).isEqualTo(5 * 19);
        assertThat(count(db, "file_past")).isGreaterThan(2_000);
        assertThat(db.fetch("SELECT u.volume FROM vastshelf_crash.volume_usage u LEFT JOIN"
                        + " (SELECT volume, SUM(bytes) held FROM vastshelf_crash.held_block GROUP BY volume) h"
                        + " ON h.volume = u.volume WHERE u.snapshot_bytes <> COALESCE(h.held, 0)"))
                .isEmpty();
        assertThat(count(db, "volume_usage WHERE snapshot_bytes > 100000000000"))
                .isEqualTo(4);
    }

    /** Each start finds a day of which nothing was forecast yet, and is killed while it is at it. */
    private static void killWhileForecasting(CrashRig rig) throws Exception {
        DSLContext db = App.bean(DSLContext.class);
        for (int rest : new int[] {100, 2_000}) {
            rig.send("POST", "/api/v1/time", "{\"hours\":24}");
            db.execute("UPDATE vastshelf_crash.forecast SET version = 0");
            db.execute("DELETE FROM vastshelf_crash.forecast_past WHERE made > '2025-06-01'");
            Thread.sleep(rest);
            rig.kill();
            rig.start();
        }
        for (int i = 0; i < 900 && !forecastOfOneDay(db); i++) {
            Thread.sleep(100);
        }
        assertThat(count(db, "forecast WHERE version = 0")).isZero();
        assertThat(forecastOfOneDay(db)).isTrue();
        assertThat(db.fetch("SELECT made FROM vastshelf_crash.forecast_past GROUP BY kind, space, made"
                        + " HAVING COUNT(*) <> 3"))
                .isEmpty();
    }

    /** Spaces and accounts are each gone through in a turn of their own. */
    private static boolean forecastOfOneDay(DSLContext db) {
        return count(db, "forecast WHERE version = 0") == 0
                && db.fetch("SELECT MAX(day) FROM vastshelf_crash.forecast GROUP BY kind")
                                .intoSet(0)
                                .size()
                        == 1;
    }

    private static final String VALE =
            "{\"change\":\"ComposeVolume\",\"volume\":{\"name\":\"vale\",\"pool\":\"elm\",\"size\":4294967296,\"thin\":true,"
                    + "\"blockSize\":4096,\"alarmPercent\":85,\"kind\":\"GUARDED\",\"encrypted\":false,\"pace\":{\"byHand\":false,"
                    + "\"mibps\":0}}},{\"change\":\"OpenShare\",\"share\":{\"name\":\"vale\",\"volume\":\"vale\",\"smb\":true,"
                    + "\"nfs\":false,\"hiddenEntries\":true,\"access\":[{\"subject\":\"EVERYONE\",\"name\":\"\",\"level\":"
                    + "\"WRITE\"}],\"exports\":[]}},{\"change\":\"MakePair\",\"pool\":\"reed\",\"pair\":{\"volume\":\"vale\","
                    + "\"copy\":\"copy-vale\",\"mode\":\"BY_INTERVAL\",\"intervalMinutes\":60,\"refuses\":false,\"host\":"
                    + "\"vale.larkmoor.example\",\"address\":\"10.20.9.80\",\"paused\":false,\"over\":false}}";

    /** A seeding, failovers, ways back and a restore, each killed somewhere in the middle: whole afterwards. */
    private static void killWhilePlacesChange(CrashRig rig) throws Exception {
        rig.post(
                "/api/v1/bench",
                "{\"mishap\":\"LinkChanges\",\"one\":\"glasshouse-hill\",\"other\":\"saltmarsh-annex\",\"mibps\":30,"
                        + "\"roundTripMillis\":4,\"lossPermille\":0,\"cut\":false}");
        killed(rig, VALE, 400);
        for (int i = 0; i < 40; i++) {
            save(rig, "/a" + i + ".odt", 9_000 + i);
        }
        rig.post("/api/v1/volumes/vale/snapshots", "{\"name\":\"kept\"}");
        int[] rests = {150, 350};
        for (int i = 0; i < rests.length; i++) {
            save(rig, "/a" + i + ".odt", 20_000);
            boolean inNeed = i % 2 == 1;
            killed(rig, "{\"change\":\"FailOver\",\"volume\":\"vale\",\"inNeed\":" + inNeed + "}", rests[i]);
            assertThat(poolOfVale()).isEqualTo("reed");
            save(rig, "/b" + i + ".odt", 5_000);
            killed(rig, "{\"change\":\"GoBack\",\"volume\":\"vale\"}", rests[rests.length - 1 - i]);
            assertThat(poolOfVale()).isEqualTo("elm");
            assertThat(rig.get("/api/v1/desk/listing?person=suki&share=vale&path=/"))
                    .contains("b" + i + ".odt");
        }
        int number = Integer.parseInt(rig.get("/api/v1/volumes/vale/snapshots")
                .replaceAll("(?s).*\"number\":(\\d+),\"name\":\"kept\".*", "$1"));
        killed(
                rig,
                "{\"change\":\"BringBack\",\"share\":\"vale\",\"snapshot\":" + number
                        + ",\"from\":\"/\",\"names\":[],\"to\":\"/\",\"onto\":\"EXACT\",\"bytes\":0}",
                300);
        assertThat(rig.get("/api/v1/shares/vale/compare?from=" + number)).contains("\"lines\":[]");
        assertThat(rig.post("/api/v1/snapshots/looks", "")).isEqualTo("[]");
        assertThat(rig.post("/api/v1/kept-bytes/looks", "")).contains("\"mended\":0", "\"missing\":0");
    }

    private static String saving(String aim) {
        return "{\"change\":\"SetRule\",\"rule\":{\"rule\":\"SavingRule\",\"volume\":\"office\",\"aim\":\"" + aim
                + "\",\"cut\":\"CONTENTS\",\"unitBytes\":65536,\"leastDays\":0,\"exceptKinds\":[],\"exceptNames\":[],"
                + "\"exceptPlaces\":[],\"when\":{\"from\":\"2030-01-01T00:00:00\",\"rule\":\"FREQ=DAILY\"},"
                + "\"hours\":168,\"mibps\":100000}}";
    }

    /** Taking files in and giving them back, killed in the middle of each: nothing is half done, and all sums agree. */
    private static void killWhileSaving(CrashRig rig) throws Exception {
        killed(rig, saving("BOTH"), 0);
        savedWithKills(rig, new int[] {200, 1_500});
        DSLContext db = App.bean(DSLContext.class);
        assertThat(count(db, "file WHERE common <> 0")).isGreaterThan(10_000);
        assertThat(rig.get("/api/v1/volumes/office/saving")).doesNotContain("\"savedBytes\":0,");
        killed(rig, saving("NOTHING"), 0);
        savedWithKills(rig, new int[] {700});
        assertThat(count(db, "file WHERE common <> 0")).isZero();
        rig.post("/api/v1/time", "{\"hours\":24}");
        assertThat(count(db, "notice WHERE subject LIKE 'Common units are not%'"))
                .as("what the night found")
                .isZero();
        assertThat(count(db, "agenda WHERE problem <> ''")).isZero();
        assertThat(rig.post("/api/v1/snapshots/looks", "")).isEqualTo("[]");
    }

    private static void savedWithKills(CrashRig rig, int[] rests) throws Exception {
        assertThat(rig.send("POST", "/api/v1/volumes/office/saving/begin", "").statusCode())
                .isEqualTo(202);
        for (int rest : rests) {
            Thread later = Thread.ofPlatform().start(() -> jumped(rig));
            Thread.sleep(rest);
            rig.kill();
            later.join();
            rig.start();
        }
        for (int i = 0; i < 60 && rig.get("/api/v1/volumes/office/saving").contains("\"RUNNING\""); i++) {
            rig.post("/api/v1/time", "{\"hours\":3}");
        }
        assertThat(rig.get("/api/v1/volumes/office/saving")).doesNotContain("\"RUNNING\"");
        rig.post("/api/v1/time", "{\"hours\":24}");
    }

    /** Whoever jumps is killed on the way. */
    private static void jumped(CrashRig rig) {
        try {
            rig.send("POST", "/api/v1/time", "{\"hours\":1}");
        } catch (IOException killed) {
            assertThat(rig.isKilled()).isTrue();
        } catch (InterruptedException interrupted) {
            Thread.currentThread().interrupt();
        }
    }

    private static String poolOfVale() {
        return App.bean(DSLContext.class)
                .fetchSingle("SELECT JSON_VALUE(body, '$.pool') FROM vastshelf_crash.estate_object"
                        + " WHERE kind = 'volume' AND name = 'vale'")
                .get(0, String.class);
    }

    private static void save(CrashRig rig, String path, long bytes) throws Exception {
        assertThat(rig.post(
                        "/api/v1/desk/operations",
                        "{\"person\":\"suki\",\"share\":\"vale\",\"operation\":\"WRITE\",\"path\":\"" + path
                                + "\",\"bytes\":" + bytes + "}"))
                .contains("\"allowed\":true");
    }

    /** Carries an order out, kills in the middle of it, and goes on until it is done. */
    private static void killed(CrashRig rig, String changes, int rest) throws Exception {
        String draft = rig.post("/api/v1/orders", "{\"changes\":[" + changes + "]}");
        long id = Long.parseLong(draft.replaceAll("(?s).*?\"id\":(\\d+).*", "$1"));
        for (String check : draft.split("\"verdict\":")) {
            if (check.startsWith("\"CONFIRM\"")) {
                rig.post(
                        "/api/v1/orders/" + id + "/confirm",
                        "{\"key\":\"" + check.replaceAll("(?s).*?\"key\":\"([^\"]*)\".*", "$1") + "\"}");
            }
        }
        // What takes a second may be through before the answer is written.
        assertThat(rig.post("/api/v1/orders/" + id + "/carry-out", ""))
                .containsAnyOf("\"state\":\"RUNNING\"", "\"state\":\"DONE\"");
        rig.post("/api/v1/time", "{\"hours\":1}");
        Thread.sleep(rest);
        rig.kill();
        rig.start();
        for (int i = 0; i < 20 && !rig.get("/api/v1/orders/" + id).contains("\"state\":\"DONE\""); i++) {
            rig.post("/api/v1/time", "{\"hours\":1}");
            Thread.sleep(300);
        }
        assertThat(rig.get("/api/v1/orders/" + id)).contains("\"state\":\"DONE\"");
    }

    private static long count(DSLContext db, String rows) {
        return db.fetchSingle("SELECT COUNT(*) FROM vastshelf_crash." + rows).get(0, Long.class);
    }
}
