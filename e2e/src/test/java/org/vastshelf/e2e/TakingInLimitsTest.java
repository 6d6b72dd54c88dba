package org.vastshelf.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Random;
import java.util.concurrent.Callable;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import java.util.stream.IntStream;
import org.jooq.DSLContext;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.vastshelf.app.clock.ShelfClock;
import org.vastshelf.app.common.CommonSweep;
import org.vastshelf.app.limit.AccountCheck;
import org.vastshelf.app.limit.DiskAccounts;
import org.vastshelf.app.road.FileRoad;
import org.vastshelf.app.road.TreeRoad;
import org.vastshelf.app.store.UsageStore;
import org.vastshelf.core.estate.FilePath;
import org.vastshelf.core.estate.Usage;
import org.vastshelf.core.gate.FileOperation.Kind;

/** Limits that go by what files take on disk agree with the ledger, whatever shares units with what. */
class TakingInLimitsTest {

    private static final DSLContext DB = App.bean(DSLContext.class);
    private static final ShareHand MERE = new ShareHand("mere");
    private static final long BLOCK = 4_096;

    @BeforeAll
    static void share() {
        Drafts.discardAll();
        Drafts.carryOut(MERE.made() + "," + limit("/", false, "NOBODY", 0) + "," + limit("/each", true, "NOBODY", 0)
                + "," + limit("/", false, "PERSON", 0) + "," + limit("/crowd", false, "NOBODY", 5 * BLOCK) + ","
                + RULE);
    }

    @AfterAll
    static void drop() {
        Drafts.carryOut("{\"change\":\"DropRule\",\"kind\":\"saving rule\",\"governs\":\"mere\"}");
    }

    private static final String RULE = MERE.keepsEqualBlocksOnce();

    private static String limit(String path, boolean each, String apart, long stop) {
        return "{\"change\":\"SetLimit\",\"rule\":{\"share\":\"mere\",\"path\":\"" + path + "\",\"eachChild\":" + each
                + ",\"apart\":\"" + apart + "\",\"basis\":\"ON_DISK\",\"graceTime\":\"PT168H\",\"stopAt\":"
                + (stop == 0 ? "null" : stop) + "}}";
    }

    private static void count() {
        App.bean(CommonSweep.class).sweep();
        App.bean(DiskAccounts.class).count();
    }

    private static long account(String rule, String holder) {
        return DB.fetchSingle(
                        "SELECT COALESCE(SUM(used_bytes), 0) FROM account WHERE rule_key = {0} AND holder = {1}",
                        "mere:" + rule, holder)
                .get(0, Long.class);
    }

    private static long ledger() {
        Usage.Held held = App.bean(UsageStore.class).load().of("mere");
        return held.live().value() + held.common().kept().value();
    }

    /** All figures by themselves, and together. */
    private static void agrees() {
        count();
        assertThat(account("/", "/")).as("the share, and the ledger").isEqualTo(ledger());
        assertThat(account("//person", "suki")).as("all files are suki's").isEqualTo(ledger());
        assertThat(App.bean(AccountCheck.class).mend(App.bean(ShelfClock.class).instant()))
                .isEmpty();
    }

    @Test
    void each_account_pays_once_for_what_its_files_share_until_the_last_of_them_is_gone() {
        byte[] talk = ShareHand.random(10 * (int) BLOCK, 1);
        MERE.save("/each/ada/talk.bin", talk);
        MERE.save("/each/bo/note.bin", ShareHand.random(1, 2));
        MERE.copy("/each/ada/talk.bin", "/each/ada/again.bin");
        MERE.copy("/each/ada/talk.bin", "/each/bo/talk.bin");
        assertThat(account("/each/*", "/each/ada")).isEqualTo(20 * BLOCK);
        assertThat(account("/each/*", "/each/bo")).isEqualTo(11 * BLOCK);
        agrees();

        MERE.spare();
        agrees();
        long note = account("/each/*", "/each/bo") - 10 * BLOCK;
        assertThat(account("/each/*", "/each/ada")).isEqualTo(10 * BLOCK);
        assertThat(note).as("one byte takes a block at most").isBetween(1L, BLOCK);

        MERE.remove("/each/ada/talk.bin");
        assertThat(App.bean(AccountCheck.class).mend(App.bean(ShelfClock.class).instant()))
                .as("what is still to be counted is no fault")
                .isEmpty();
        agrees();
        assertThat(account("/each/*", "/each/ada"))
                .as("its copy needs the units still")
                .isEqualTo(10 * BLOCK);
        MERE.remove("/each/ada/again.bin");
        agrees();
        assertThat(account("/each/*", "/each/ada")).isZero();
        assertThat(account("/each/*", "/each/bo")).isEqualTo(10 * BLOCK + note);

        assertThat(App.bean(FileRoad.class)
                        .perform(MERE.operation(Kind.DELETE, "/each/bo/note.bin", 0))
                        .allowed())
                .isTrue();
        MERE.edit("/each/bo/talk.bin", 3, (byte) 7);
        agrees();
        assertThat(account("/each/*", "/each/bo"))
                .as("blocks of its own, all of them")
                .isEqualTo(10 * BLOCK);
    }

    @Test
    void figures_agree_whatever_people_do_and_when_units_are_given_back() {
        Random random = new Random(4);
        for (int i = 0; i < 6; i++) {
            MERE.save(
                    "/each/k" + i % 3 + "/f" + i + ".bin", ShareHand.random((1 + i % 4) * (int) BLOCK + i % 2, i % 2));
        }
        MERE.spare();
        for (int i = 0; i < 60; i++) {
            String path = "/each/k" + random.nextInt(4) + "/f" + random.nextInt(6) + ".bin";
            String other = "/each/k" + random.nextInt(4) + "/f" + random.nextInt(6) + ".bin";
            try {
                switch (random.nextInt(6)) {
                    case 0 -> MERE.save(path, ShareHand.random(1 + random.nextInt(20_000), random.nextInt(3)));
                    case 1 -> MERE.copy(path, other);
                    case 2 -> App.bean(TreeRoad.class).move("suki", MERE.at(path), new FilePath(other));
                    case 3 -> MERE.edit(path, random.nextInt(500), (byte) i);
                    case 4 -> MERE.remove(path);
                    default -> agrees();
                }
            } catch (RuntimeException notThereOrTaken) {
                assertThat(notThereOrTaken.getClass().getSimpleName()).isIn("NotThere", "Taken");
            }
            if (i % 20 == 19) {
                agrees();
                MERE.spare();
            }
        }
        agrees();
        Drafts.carryOut(RULE.replace("ONCE", "NOTHING"));
        MERE.spare();
        agrees();
        assertThat(App.bean(UsageStore.class).load().of("mere").common()).isEqualTo(Usage.Common.NOTHING);
        Drafts.carryOut(RULE);
    }

    @Test
    void many_at_once_never_pass_a_stop_that_counts_blocks() throws Exception {
        try (var people = Executors.newFixedThreadPool(12)) {
            List<Callable<Boolean>> saves = IntStream.range(0, 24)
                    .mapToObj(i -> (Callable<Boolean>) () -> App.bean(FileRoad.class)
                            .perform(MERE.operation(Kind.WRITE, "/crowd/" + i + ".bin", 1 + i % 7))
                            .allowed())
                    .toList();
            int saved = 0;
            for (Future<Boolean> save : people.invokeAll(saves)) {
                saved += save.get() ? 1 : 0;
            }
            assertThat(saved).as("five blocks, five files of some bytes").isEqualTo(5);
        }
        assertThat(account("/crowd", "/crowd")).isEqualTo(5 * BLOCK);
        agrees();
    }

    @Test
    void another_basis_counts_the_same_files_anew() {
        MERE.save("/basis/a.bin", ShareHand.random(100, 3));
        Drafts.carryOut(limit("/basis", false, "NOBODY", 0));
        assertThat(account("/basis", "/basis")).isEqualTo(BLOCK);
        Drafts.carryOut(limit("/basis", false, "NOBODY", 0).replace("ON_DISK", "AS_SEEN"));
        assertThat(account("/basis", "/basis")).isEqualTo(100);
    }
}
