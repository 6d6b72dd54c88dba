package org.vastshelf.e2e;

import static org.assertj.core.api.Assertions.assertThat;

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
        for (int rest : new int[] {100, 700, 2_000}) {
            rig.send("POST", "/api/v1/time", "{\"hours\":24}");
            db.execute("UPDATE vastshelf_crash.forecast SET version = 0");
            db.execute("DELETE FROM vastshelf_crash.forecast_past WHERE made > '2025-06-01'");
            Thread.sleep(rest);
            rig.kill();
            rig.start();
        }
        for (int i = 0; i < 600 && count(db, "forecast WHERE version = 0") > 0; i++) {
            Thread.sleep(100);
        }
        assertThat(count(db, "forecast WHERE version = 0")).isZero();
        assertThat(db.fetch("SELECT MAX(day) FROM vastshelf_crash.forecast GROUP BY kind")
                        .intoSet(0))
                .hasSize(1);
        assertThat(db.fetch("SELECT made FROM vastshelf_crash.forecast_past GROUP BY kind, space, made"
                        + " HAVING COUNT(*) <> 3"))
                .isEmpty();
    }

    private static long count(DSLContext db, String rows) {
        return db.fetchSingle("SELECT COUNT(*) FROM vastshelf_crash." + rows).get(0, Long.class);
    }
}
