package org.vastshelf.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import org.jooq.DSLContext;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.vastshelf.app.away.AwaySweep;
import org.vastshelf.app.common.CommonCheck;
import org.vastshelf.app.common.CommonSweep;
import org.vastshelf.app.content.KeptCheck;
import org.vastshelf.app.snapshot.HoldCheck;
import org.vastshelf.app.store.UsageStore;
import org.vastshelf.core.estate.Usage;
import tools.jackson.databind.JsonNode;

/** What has left meets all that is promised about files: limits, retention, legal hold, replicas, common units. */
class TieringTogetherTest {

    private static final DSLContext DB = App.bean(DSLContext.class);
    private static final ShareHand SLOUGH = new ShareHand("slough");
    private static final int BLOCK = 4_096;

    @BeforeAll
    static void share() {
        assertThat(App.post("odile", "/api/v1/bench/store", "{\"manner\":\"ANSWERS\"}")
                        .status())
                .isEqualTo(200);
        bench("{\"mishap\":\"LinkChanges\",\"one\":\"glasshouse-hill\",\"other\":\"saltmarsh-annex\","
                + "\"mibps\":38,\"roundTripMillis\":4,\"lossPermille\":0,\"cut\":false}");
        Drafts.discardAll();
        Drafts.carryOut(SLOUGH.made()
                + ",{\"change\":\"SetTiering\",\"rule\":{\"name\":\"slough-old\",\"rank\":61,\"store\":\"peat\",\"places\":[{"
                + "\"share\":\"slough\",\"folder\":\"/\"}],\"by\":\"LAST_CHANGE\",\"olderThanDays\":1,"
                + "\"largerThanBytes\":1000,\"kinds\":[],\"exceptPlaces\":[],\"exceptPeople\":[],\"keepBelow\":null,"
                + "\"back\":{\"manner\":\"ON_WRITE\",\"reads\":0,\"withinDays\":0},\"when\":null,\"hours\":0,"
                + "\"mibps\":0,\"mostBytes\":0,\"keepDays\":0}}");
    }

    private static void bench(String mishap) {
        App.Reply reply = App.post("odile", "/api/v1/bench", mishap);
        assertThat(reply.status()).as(reply.text()).isEqualTo(200);
    }

    @AfterAll
    static void drop() {
        Drafts.carryOut("{\"change\":\"DropTiering\",\"name\":\"slough-old\"}");
    }

    @AfterEach
    void whole() {
        App.bean(CommonSweep.class).sweep();
        KeptCheck.Report kept = App.bean(KeptCheck.class).look();
        assertThat(kept.mended() + kept.missing()).isZero();
        assertThat(App.bean(HoldCheck.class).look()).isEmpty();
        assertThat(App.bean(CommonCheck.class).look()).isEmpty();
    }

    private static void later(int hours) {
        assertThat(App.post("odile", "/api/v1/time", "{\"hours\":" + hours + "}")
                        .status())
                .isLessThan(300);
    }

    /** Two days pass, and what is old enough leaves. */
    private static JsonNode leave() throws InterruptedException {
        later(48);
        App.Reply begun = App.post("odile", "/api/v1/tiering/rules/slough-old/runs", "");
        assertThat(begun.status()).as(begun.text()).isEqualTo(202);
        String run = "/api/v1/tiering/rules/slough-old/runs/"
                + begun.json().path("id").asLong();
        for (int i = 0; i < 300; i++) {
            JsonNode now = App.get("odile", run).json();
            if (!now.path("state").asString().equals("RUNNING")) {
                assertThat(now.path("state").asString()).as(now.toString()).isEqualTo("DONE");
                return now;
            }
            Thread.sleep(100);
        }
        throw new AssertionError("the run does not end");
    }

    private static boolean isAway(String path) {
        return SLOUGH.contents(path).isCold();
    }

    private static JsonNode operate(String kind, String path, String more) {
        App.Reply reply = App.post(
                "odile",
                "/api/v1/desk/operations",
                "{\"person\":\"suki\",\"share\":\"slough\",\"operation\":\"" + kind + "\",\"path\":\"" + path + "\""
                        + more + "}");
        assertThat(reply.status()).as(reply.text()).isEqualTo(200);
        return reply.json();
    }

    private static void isRefused(String kind, String path, String because) {
        JsonNode answer = operate(kind, path, ",\"bytes\":10");
        assertThat(answer.path("allowed").asBoolean(true)).as(kind).isFalse();
        assertThat(answer.path("reason").asString()).contains(because);
    }

    private static JsonNode objects(String text) {
        return App.get("odile", "/api/v1/tiering/objects?share=slough&text=" + text)
                .json()
                .path("items");
    }

    private static long account(String folder) {
        return DB.fetchSingle(
                        "SELECT used_bytes FROM account WHERE share = 'slough' AND rule_key = {0}", "slough:" + folder)
                .get(0, Long.class);
    }

    private static Usage.Held held() {
        return App.bean(UsageStore.class).load().of("slough");
    }

    @Test
    void retention_and_legal_hold_keep_what_has_left_with_its_object() throws Exception {
        byte[] bytes = ShareHand.random(50_000, 1);
        SLOUGH.save("/sworn/a.bin", bytes);
        SLOUGH.save("/matter/b.bin", bytes);
        leave();
        Drafts.carryOut("{\"change\":\"SetRetention\",\"rule\":{\"share\":\"slough\",\"folder\":\"/sworn\","
                + "\"basis\":\"CHANGED\",\"length\":\"P1Y\",\"quiet\":\"PT0S\"}}");
        App.Reply tag = App.post(
                "odile",
                "/api/v1/legal-holds",
                "{\"share\":\"slough\",\"path\":\"/matter\",\"tag\":\"slough-1\",\"why\":\"asked for\"}");
        assertThat(tag.status()).as(tag.text()).isLessThan(300);

        for (String kind : new String[] {"WRITE", "EDIT", "DELETE"}) {
            isRefused(kind, "/sworn/a.bin", "Retention rule");
            isRefused(kind, "/matter/b.bin", "Legal hold 'slough-1'");
        }
        App.bean(AwaySweep.class).sweep();
        assertThat(isAway("/sworn/a.bin"))
                .as("a write that is refused brings nothing back")
                .isTrue();
        assertThat(isAway("/matter/b.bin")).isTrue();
        assertThat(SLOUGH.read("/sworn/a.bin")).isEqualTo(bytes);
        assertThat(SLOUGH.read("/matter/b.bin")).isEqualTo(bytes);

        Drafts.carryOut("{\"change\":\"LiftRetention\",\"rule\":\"slough:/sworn\"}");
        assertThat(operate("DELETE", "/sworn/a.bin", "").path("allowed").asBoolean())
                .isTrue();
    }

    @Test
    void what_is_retained_may_leave_and_counts_as_it_was() throws Exception {
        SLOUGH.save("/yearly/a.bin", ShareHand.random(30_000, 2));
        Drafts.carryOut("{\"change\":\"SetRetention\",\"rule\":{\"share\":\"slough\",\"folder\":\"/yearly\","
                + "\"basis\":\"CHANGED\",\"length\":\"P1Y\",\"quiet\":\"PT0S\"}}");
        String holding = "/api/v1/retention/holding?rule=slough:/yearly";
        JsonNode before = App.get("odile", holding).json().path("held");

        leave();

        assertThat(isAway("/yearly/a.bin")).isTrue();
        assertThat(App.get("odile", holding).json().path("held")).isEqualTo(before);
        Drafts.carryOut("{\"change\":\"LiftRetention\",\"rule\":\"slough:/yearly\"}");
    }

    @Test
    void a_limit_counts_it_as_people_see_it() throws Exception {
        SLOUGH.save("/capped/a.bin", ShareHand.random(40_000, 3));
        Drafts.carryOut(
                "{\"change\":\"SetLimit\",\"rule\":{\"share\":\"slough\",\"path\":\"/capped\",\"eachChild\":false,"
                        + "\"graceTime\":\"PT168H\",\"stopAt\":50000}}");
        assertThat(account("/capped")).isEqualTo(40_000);

        leave();

        assertThat(isAway("/capped/a.bin")).isTrue();
        assertThat(account("/capped")).isEqualTo(40_000);
        JsonNode more = operate("WRITE", "/capped/b.bin", ",\"bytes\":10001");
        assertThat(more.path("allowed").asBoolean())
                .as("40,000 and 10,001 pass the Stop")
                .isFalse();
        App.Reply back =
                App.post("odile", "/api/v1/tiering/recalls", "{\"share\":\"slough\",\"path\":\"/capped/a.bin\"}");
        assertThat(back.status()).as(back.text()).isLessThan(300);
        assertThat(isAway("/capped/a.bin")).isFalse();
        assertThat(account("/capped")).isEqualTo(40_000);
    }

    @Test
    void a_limit_by_blocks_counts_nothing_of_it_and_is_asked_before_it_comes_back() throws Exception {
        SLOUGH.save("/blocks/a.bin", ShareHand.random(40_000, 6));
        Drafts.carryOut(
                "{\"change\":\"SetLimit\",\"rule\":{\"share\":\"slough\",\"path\":\"/blocks\",\"eachChild\":false,"
                        + "\"basis\":\"ON_DISK\",\"graceTime\":\"PT168H\",\"stopAt\":49152}}");
        assertThat(account("/blocks")).isEqualTo(10L * BLOCK);

        leave();

        assertThat(isAway("/blocks/a.bin")).isTrue();
        assertThat(account("/blocks")).isZero();
        SLOUGH.save("/blocks/b.bin", ShareHand.random(3 * BLOCK, 7));
        App.Reply full =
                App.post("odile", "/api/v1/tiering/recalls", "{\"share\":\"slough\",\"path\":\"/blocks/a.bin\"}");
        assertThat(isAway("/blocks/a.bin")).as(full.text()).isTrue();
        assertThat(operate("EDIT", "/blocks/a.bin", ",\"bytes\":10")
                        .path("allowed")
                        .asBoolean())
                .as("a write needs all of it here")
                .isFalse();
        SLOUGH.remove("/blocks/b.bin");
        App.post("odile", "/api/v1/tiering/recalls", "{\"share\":\"slough\",\"path\":\"/blocks/a.bin\"}");
        assertThat(isAway("/blocks/a.bin")).isFalse();
        assertThat(account("/blocks")).isEqualTo(10L * BLOCK);
    }

    @Test
    void what_leaves_is_no_user_of_common_units_any_more_and_is_not_taken_in() throws Exception {
        byte[] bytes = ShareHand.random(10 * BLOCK, 4);
        SLOUGH.save("/alike/a.bin", bytes);
        SLOUGH.copy("/alike/a.bin", "/alike/b.bin");
        Drafts.carryOut(SLOUGH.keepsEqualBlocksOnce());
        SLOUGH.spare();
        long kept = held().common().kept().value();
        assertThat(kept).isGreaterThanOrEqualTo(10L * BLOCK);

        leave();
        App.bean(CommonSweep.class).sweep();

        assertThat(isAway("/alike/a.bin")).isTrue();
        assertThat(isAway("/alike/b.bin")).isTrue();
        assertThat(held().common()).as("nobody uses them").isEqualTo(Usage.Common.NOTHING);
        assertThat(SLOUGH.spare().path("files").asInt())
                .as("stubs are not taken in")
                .isZero();
        assertThat(SLOUGH.read("/alike/b.bin")).isEqualTo(bytes);
        SLOUGH.edit("/alike/a.bin", 7, (byte) 1);
        assertThat(SLOUGH.read("/alike/b.bin")).isEqualTo(bytes);
        Drafts.carryOut("{\"change\":\"DropRule\",\"kind\":\"saving rule\",\"governs\":\"slough\"}");
    }

    @Test
    void a_copy_elsewhere_has_the_stub_and_its_object_stays_as_long_as_one_of_both_needs_it() throws Exception {
        byte[] bytes = ShareHand.random(60_000, 5);
        SLOUGH.save("/paired/a.bin", bytes);
        leave();
        int before = objects("paired").size();
        Drafts.carryOut(
                "{\"change\":\"MakePair\",\"pool\":\"reed\",\"pair\":{\"volume\":\"slough\",\"copy\":\"copy-slough\","
                        + "\"mode\":\"BY_INTERVAL\",\"intervalMinutes\":60,\"refuses\":false,\"host\":\"slough.larkmoor.example\","
                        + "\"address\":\"10.20.9.91\",\"paused\":false,\"over\":false}}");
        awaitInStep();

        SLOUGH.remove("/paired/a.bin");
        bench("{\"mishap\":\"PowerCut\",\"server\":\"fernhill\"}");
        try {
            App.bean(AwaySweep.class).sweep();
            App.bean(AwaySweep.class).sweep();
            assertThat(objects("paired")).as("the copy still shows it").hasSize(before);
            Drafts.carryOut("{\"change\":\"FailOver\",\"volume\":\"slough\",\"inNeed\":true}");
        } finally {
            bench("{\"mishap\":\"PowerBack\",\"server\":\"fernhill\"}");
        }

        assertThat(isAway("/paired/a.bin")).isTrue();
        assertThat(SLOUGH.read("/paired/a.bin")).isEqualTo(bytes);
        SLOUGH.edit("/paired/a.bin", 0, (byte) 9);
        assertThat(isAway("/paired/a.bin")).isFalse();
        Drafts.carryOut("{\"change\":\"GoBack\",\"volume\":\"slough\"}");
        awaitInStep();
        assertThat(SLOUGH.read("/paired/a.bin")[0]).as("what was written there").isEqualTo((byte) 9);
        Drafts.carryOut("{\"change\":\"EndPair\",\"volume\":\"slough\"}");
    }

    private static void awaitInStep() throws InterruptedException {
        for (int i = 0; i < 100; i++) {
            if (App.get("odile", "/api/v1/pairs/slough")
                    .json()
                    .path("state")
                    .asString()
                    .equals("in step")) {
                return;
            }
            Thread.sleep(200);
        }
        throw new AssertionError(App.get("odile", "/api/v1/pairs/slough").text());
    }
}
