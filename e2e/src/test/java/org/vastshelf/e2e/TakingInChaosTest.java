package org.vastshelf.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import org.jooq.DSLContext;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.api.parallel.Execution;
import org.junit.jupiter.api.parallel.ExecutionMode;

/**
 * Kills an application again and again while equal blocks are kept once and people save, copy and delete. Afterwards each
 * file is whole, and the ledger, the units and the accounts on disk come to the same bytes. More rounds by
 * ./shelf bench taking.
 */
@Execution(ExecutionMode.CONCURRENT)
class TakingInChaosTest {

    private static final int ROUNDS = Integer.getInteger("vastshelf.taking", 2);
    private static final long SEED = Long.getLong("vastshelf.seed", 20_260_302L);
    private static final String DATABASE = "vastshelf_taking";
    private static final ShareHand SEDGES = new ShareHand("sedges");
    private static final String LIMIT = "{\"change\":\"SetLimit\",\"rule\":{\"share\":\"sedges\",\"path\":\"/\","
            + "\"eachChild\":false,\"apart\":\"NOBODY\",\"basis\":\"ON_DISK\",\"graceTime\":\"PT168H\",\"stopAt\":null}}";

    @TempDir
    Path data;

    private final Random random = new Random(SEED);
    private final ChaosFiles files = new ChaosFiles("sedges", 12, random, this::text);

    @Test
    void figures_agree_whenever_it_is_killed() throws Exception {
        try (CrashRig rig = new CrashRig(data, DATABASE, "--vastshelf.traffic=false")) {
            rig.start();
            rig.post(
                    "/api/v1/orders",
                    "{\"changes\":[" + SEDGES.made() + "," + LIMIT + "," + SEDGES.keepsEqualBlocksOnce() + "]}");
            rig.post("/api/v1/orders/1/carry-out", "");
            rig.post("/api/v1/time", "{\"hours\":1}");
            assertThat(rig.order(1, "DONE")).contains("\"state\":\"DONE\"");
            for (int round = 0; round < ROUNDS; round++) {
                round(rig);
                System.out.println("taking in " + (round + 1) + " of " + ROUNDS);
            }
            assertThat(sum("SELECT SUM(common_bytes) FROM {0}.volume_usage WHERE volume = 'sedges'"))
                    .as("something is kept once")
                    .isPositive();
        } finally {
            App.bean(DSLContext.class).execute("DROP DATABASE IF EXISTS " + DATABASE);
        }
    }

    /** Blocks of 4,096 characters of which there are few, so that files share most of them. */
    private String text() {
        StringBuilder text = new StringBuilder();
        for (int i = random.nextInt(20); i >= 0; i--) {
            text.append(String.valueOf((char) ('a' + random.nextInt(5))).repeat(4_096));
        }
        return text.append("x".repeat(random.nextInt(4_096))).toString();
    }

    private void round(CrashRig rig) throws Exception {
        files.saveSome(rig);
        List<ChaosFiles.Request> requests = new ArrayList<>();
        requests.add(() -> rig.post("/api/v1/volumes/sedges/saving/begin", ""));
        requests.add(() -> rig.post("/api/v1/time", "{\"hours\":1}"));
        for (int i = 0; i < 10; i++) {
            requests.add(request(rig, files.any(), "/copy-" + random.nextInt(6) + ".txt", random.nextInt(4)));
        }
        files.killAmong(rig, requests);
        rig.start();
        check(rig);
    }

    private ChaosFiles.Request request(CrashRig rig, String name, String copy, int what) {
        return switch (what) {
            case 0 -> files.save(rig, name);
            case 1 -> () -> rig.post("/api/v1/desk/operations", operation("DELETE", copy));
            default ->
                () -> rig.post(
                        "/api/v1/desk/operations", operation("COPY", name).replace("}", ",\"to\":\"" + copy + "\"}"));
        };
    }

    private static String operation(String what, String path) {
        return "{\"person\":\"suki\",\"share\":\"sedges\",\"operation\":\"" + what + "\",\"path\":\"" + path + "\"}";
    }

    private void check(CrashRig rig) throws Exception {
        for (int i = 0; i < 60 && rig.get("/api/v1/volumes/sedges/saving").contains("\"RUNNING\""); i++) {
            rig.post("/api/v1/time", "{\"hours\":1}");
        }
        assertThat(rig.get("/api/v1/volumes/sedges/saving")).doesNotContain("\"RUNNING\"");
        files.areWhole(rig);
        // Counting is behind by a second, or by as long as whoever was killed has its turn.
        for (int i = 0; i < 900 && ledger() != account(); i++) {
            Thread.sleep(100);
        }
        assertThat(account()).as("what is held on disk").isEqualTo(ledger());
        rig.post("/api/v1/time", "{\"hours\":26}");
        assertThat(rig.get("/api/v1/notices?limit=1000")).doesNotContain(" said to ");
        assertThat(account()).as("after the nightly checks").isEqualTo(ledger());
    }

    private static long ledger() {
        return sum("SELECT live_bytes + common_bytes FROM {0}.volume_usage WHERE volume = 'sedges'");
    }

    private static long account() {
        return sum("SELECT SUM(used_bytes) FROM {0}.account WHERE share = 'sedges'");
    }

    private static long sum(String question) {
        return App.bean(DSLContext.class)
                .fetchSingle(question.replace("{0}", DATABASE))
                .get(0, Long.class);
    }
}
