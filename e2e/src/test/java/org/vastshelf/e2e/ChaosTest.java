package org.vastshelf.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.api.parallel.Execution;
import org.junit.jupiter.api.parallel.ExecutionMode;
import tools.jackson.databind.json.JsonMapper;

/** A short run of random orders, kills and restarts; {@code ./shelf bench chaos} does a long one. */
@Execution(ExecutionMode.CONCURRENT)
class ChaosTest {

    private static final int ROUNDS = Integer.getInteger("vastshelf.chaos", 3);
    private static final long SEED = Long.getLong("vastshelf.seed", 20_260_302L);

    @TempDir
    Path data;

    @Test
    void no_order_is_left_half_done_by_a_kill() throws Exception {
        // Without people at work, so that what volumes hold stays as it was.
        try (CrashRig rig = new CrashRig(data, "vastshelf_chaos", "--vastshelf.traffic=false")) {
            rig.start();
            Chaos chaos = new Chaos(rig, App.bean(JsonMapper.class), SEED);
            for (int i = 0; i < ROUNDS; i++) {
                chaos.round();
                System.out.println("chaos " + (i + 1) + " of " + ROUNDS + ": " + chaos.summary());
            }
            assertThat(chaos.ended()).isEqualTo(ROUNDS);
        }
    }
}
