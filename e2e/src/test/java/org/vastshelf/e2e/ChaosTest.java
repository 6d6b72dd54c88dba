package org.vastshelf.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Files;
import java.nio.file.Path;
import org.jooq.DSLContext;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.api.parallel.Execution;
import org.junit.jupiter.api.parallel.ExecutionMode;
import tools.jackson.databind.json.JsonMapper;

/** A short run of random orders, kills and restarts; {@code ./shelf bench chaos} does a long one. */
@Execution(ExecutionMode.CONCURRENT)
class ChaosTest {

    private static final int ROUNDS = Integer.getInteger("vastshelf.chaos", 2);
    /** So many rounds on one database, the first third of them compared exactly. */
    private static final int EACH = 25;

    private static final long SEED = Long.getLong("vastshelf.seed", 20_260_302L);

    @TempDir
    Path data;

    @Test
    void nothing_is_left_half_done_or_broken_by_whatever_happens_at_once() throws Exception {
        for (int from = 0; from < ROUNDS; from += EACH) {
            block(from, Math.min(EACH, ROUNDS - from));
        }
    }

    private void block(int from, int rounds) throws Exception {
        String database = "vastshelf_chaos_" + from;
        JsonMapper json = App.bean(JsonMapper.class);
        // Without people at work, so that what volumes hold stays as it was while orders are compared.
        try (CrashRig rig =
                new CrashRig(Files.createDirectory(data.resolve(database)), database, "--vastshelf.traffic=false")) {
            rig.start();
            Chaos chaos = new Chaos(rig, json, SEED + from);
            Melee melee = new Melee(rig, json, database, SEED + from);
            int exact = Math.max(1, rounds / 3);
            for (int i = 0; i < rounds; i++) {
                if (i < exact) {
                    chaos.round();
                } else {
                    melee.round();
                }
                System.out.println("chaos " + (from + i + 1) + " of " + ROUNDS + ": " + chaos.summary()
                        + "; all at once " + melee.summary());
            }
            melee.verifyAudit();
            assertThat(chaos.ended()).isEqualTo(exact);
        } finally {
            App.bean(DSLContext.class).execute("DROP DATABASE IF EXISTS " + database);
        }
    }
}
