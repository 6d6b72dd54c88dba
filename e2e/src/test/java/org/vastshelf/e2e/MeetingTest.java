package org.vastshelf.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import java.util.concurrent.Callable;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import org.jooq.DSLContext;
import org.jooq.impl.DSL;
import org.junit.jupiter.api.Test;
import org.vastshelf.app.agenda.AgendaRunner;
import org.vastshelf.app.clock.ShelfClock;
import org.vastshelf.app.notify.NoticeStore;
import org.vastshelf.app.store.EstateStore;
import org.vastshelf.core.estate.Drive;
import tools.jackson.databind.JsonNode;

/** Orders, drafts, rules and notices that meet: each gets on or says why, and none stops another. */
class MeetingTest {

    private static long draft(String changes) {
        return App.post("odile", "/api/v1/orders", "{\"changes\":[" + changes + "]}")
                .json()
                .path("order")
                .path("id")
                .asLong();
    }

    private static App.Reply carryOut(long id) {
        return App.post("odile", "/api/v1/orders/" + id + "/carry-out", "");
    }

    private static <T> List<T> atOnce(List<Callable<T>> works) throws Exception {
        try (var threads = Executors.newFixedThreadPool(works.size())) {
            List<T> results = new ArrayList<>();
            for (Future<T> future : threads.invokeAll(works)) {
                results.add(future.get());
            }
            return results;
        }
    }

    private static String alarm(int percent) {
        return "{\"change\":\"SetAlarm\",\"volume\":\"sequences\",\"percent\":" + percent + "}";
    }

    @Test
    void two_orders_for_one_volume_both_end_and_a_third_is_not_held_up() throws Exception {
        long first = draft(alarm(71));
        long second = draft(alarm(72));
        long third = draft("{\"change\":\"SetAlarm\",\"volume\":\"plans\",\"percent\":84}");
        List<Integer> begun = atOnce(List.of(
                () -> carryOut(first).status(),
                () -> carryOut(second).status(),
                () -> carryOut(third).status()));
        assertThat(begun).containsOnly(200);
        App.post("odile", "/api/v1/time", "{\"hours\":1}");
        Set<String> ends = new HashSet<>(List.of(Drafts.awaited(first, "DONE"), Drafts.awaited(second, "DONE")));
        assertThat(ends).isSubsetOf("DONE", "TAKEN_BACK").contains("DONE");
        assertThat(Drafts.awaited(third, "DONE")).isEqualTo("DONE");
        for (long id : List.of(first, second)) {
            if (Drafts.state(id).equals("TAKEN_BACK")) {
                assertThat(App.get("odile", "/api/v1/orders/" + id).text())
                        .contains("volume sequences was changed meanwhile");
            }
        }
    }

    @Test
    void an_order_holds_its_drives_from_the_moment_it_is_carried_out() {
        var estate = App.bean(EstateStore.class).load();
        List<Drive> free = estate.drives().values().stream()
                .filter(d -> d.isFree()
                        && d.heldData().isEmpty()
                        && estate.poolOf(d).isEmpty()
                        && estate.holdOf(d.key()).isEmpty())
                .toList();
        String server = free.getLast().server();
        List<String> drives = free.stream()
                .filter(d -> d.server().equals(server))
                .map(Drive::key)
                .limit(2)
                .toList();
        String pool = "{\"change\":\"ComposePool\",\"name\":\"NAME\",\"server\":\"" + server + "\",\"drives\":[\""
                + String.join("\",\"", drives) + "\"],\"layout\":\"RAID_1\",\"spares\":0,\"surfaceCheck\":true}";
        long first = draft(pool.replace("NAME", "reeds"));
        long second = draft(pool.replace("NAME", "rushes"));
        assertThat(carryOut(first).status()).isEqualTo(200);
        App.Reply late = carryOut(second);
        assertThat(late.status()).isEqualTo(409);
        assertThat(late.detail()).contains("Drive " + drives.getFirst() + " is held by order " + first);
        App.post("odile", "/api/v1/orders/" + first + "/take-back", "");
        App.bean(AgendaRunner.class).run();
        assertThat(Drafts.awaited(first, "TAKEN_BACK")).isEqualTo("TAKEN_BACK");
        assertThat(App.bean(EstateStore.class).load().holds()).doesNotContainKey(String.valueOf(first));
        App.post("odile", "/api/v1/orders/" + second + "/discard", "");
    }

    @Test
    void an_order_others_have_built_upon_stops_and_asks() {
        long volume = draft(
                "{\"change\":\"ComposeVolume\",\"volume\":{\"name\":\"upon\",\"pool\":\"elm\",\"size\":2199023255552,"
                        + "\"thin\":true,\"blockSize\":65536,\"alarmPercent\":85,\"kind\":\"GUARDED\",\"encrypted\":false,"
                        + "\"pace\":{\"byHand\":false,\"mibps\":0}}},"
                        + "{\"change\":\"RestartNode\",\"server\":\"fernhill\",\"node\":1}");
        assertThat(carryOut(volume).status()).isEqualTo(200);
        for (int i = 0; i < 200 && !App.bean(EstateStore.class).load().volumes().containsKey("upon"); i++) {
            pause();
        }
        long share = draft("{\"change\":\"OpenShare\",\"share\":{\"name\":\"upon\",\"volume\":\"upon\",\"smb\":true,"
                + "\"nfs\":false,\"hiddenEntries\":true,\"access\":[],\"exports\":[]}}");
        assertThat(carryOut(share).status()).isEqualTo(200);
        assertThat(Drafts.awaited(share, "DONE")).isEqualTo("DONE");
        App.post("odile", "/api/v1/orders/" + volume + "/take-back", "");
        App.bean(AgendaRunner.class).run();
        assertThat(Drafts.awaited(volume, "ASKING")).isEqualTo("ASKING");
        assertThat(App.get("odile", "/api/v1/orders/" + volume).text()).contains("can't be taken back");
        try (Browser browser = new Browser(1280, 800).signIn("tomas")) {
            assertThat(browser.page.context().request().get("/look").text())
                    .contains("stopped while it was taken back");
        }
        App.post("tomas", "/api/v1/orders/" + volume + "/leave", "");
        assertThat(Drafts.state(volume)).isEqualTo("LEFT");
        Drafts.carryOut(
                "{\"change\":\"CloseShare\",\"share\":\"upon\"},{\"change\":\"RemoveVolume\",\"volume\":\"upon\"}");
    }

    private static void pause() {
        try {
            Thread.sleep(100);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
    }

    @Test
    void two_additions_to_one_draft_at_once_make_one_draft() throws Exception {
        var orders = App.bean(org.vastshelf.app.orders.OrderService.class);
        List<Callable<Long>> additions = new ArrayList<>();
        for (int i = 0; i < 12; i++) {
            int percent = 60 + i;
            additions.add(() -> orders.add(
                            "somebody-drafting", new org.vastshelf.core.change.VolumeChange.SetAlarm("plans", percent))
                    .id());
        }
        Set<Long> drafts = new HashSet<>(atOnce(additions));
        assertThat(drafts).hasSize(1);
        assertThat(orders.order(drafts.iterator().next()).lines()).hasSize(12);
        orders.discard(drafts.iterator().next(), "odile");
    }

    @Test
    void a_scrub_schedule_leaves_the_estate_as_it_is_while_nothing_begins_or_ends() throws Exception {
        Drafts.carryOut("{\"change\":\"SetRule\",\"rule\":{\"rule\":\"ScrubRule\",\"pool\":\"ash\",\"when\":"
                + "{\"from\":\"2026-01-01T00:00\",\"rule\":\"FREQ=DAILY;INTERVAL=300\"}}}");
        App.post("odile", "/api/v1/time", "{\"hours\":200}");
        EstateStore estates = App.bean(EstateStore.class);
        long before = estates.snapshot().version();
        Thread.sleep(3_000);
        assertThat(estates.snapshot().version()).isEqualTo(before);
        JsonNode definition = App.get("odile", "/api/v1/definitions/estate").json();
        assertThat(definition.path("scrubRules").toString()).contains("\"ash\"").contains("300");
        Drafts.carryOut("{\"change\":\"DropRule\",\"kind\":\"scrub rule\",\"governs\":\"ash\"}");
    }

    @Test
    void a_growth_rule_that_cannot_act_freezes_nothing_and_says_so_once() {
        Drafts.carryOut(
                "{\"change\":\"ComposeVolume\",\"volume\":{\"name\":\"stuck\",\"pool\":\"yew\",\"size\":3298534883328,"
                        + "\"thin\":false,\"blockSize\":65536,\"alarmPercent\":85,\"kind\":\"GUARDED\",\"encrypted\":false,"
                        + "\"pace\":{\"byHand\":false,\"mibps\":0}}},"
                        + "{\"change\":\"SetRule\",\"rule\":{\"rule\":\"GrowthRule\",\"volume\":\"stuck\",\"looks\":"
                        + "{\"from\":\"2026-01-01T00:00\",\"rule\":\"FREQ=HOURLY\"},\"triggerPercent\":90,\"triggerBytes\":0,"
                        + "\"stepPercent\":50,\"ceiling\":109951162777600,\"pause\":\"PT0S\"}},"
                        + "{\"change\":\"OpenShare\",\"share\":{\"name\":\"stuck\",\"volume\":\"stuck\",\"smb\":true,\"nfs\":false,"
                        + "\"hiddenEntries\":true,\"access\":[{\"subject\":\"EVERYONE\",\"name\":\"\",\"level\":\"WRITE\"}],"
                        + "\"exports\":[]}}");
        assertThat(App.post(
                                "odile",
                                "/api/v1/desk/operations",
                                "{\"person\":\"suki\",\"share\":\"stuck\",\"operation\":\"WRITE\",\"path\":\"/big\","
                                        + "\"bytes\":1099511627776}")
                        .json()
                        .path("allowed")
                        .asBoolean())
                .isTrue();
        DSLContext db = App.bean(DSLContext.class);
        int days = db.fetchCount(DSL.table("space_history"), DSL.field("space").eq("stuck"));
        assertThat(App.post("odile", "/api/v1/time", "{\"hours\":96}").status()).isEqualTo(200);
        assertThat(db.fetchCount(DSL.table("space_history"), DSL.field("space").eq("stuck")) - days)
                .isBetween(4, 5);
        assertThat(db.fetchCount(DSL.table("agenda"), DSL.field("tries").gt(0))).isZero();
        assertThat(db.fetchCount(
                        DSL.table("notice"),
                        DSL.field("subject").startsWith("Volume stuck could not grow"),
                        DSL.field("recipient").eq("odile")))
                .isEqualTo(1);
        Drafts.carryOut("{\"change\":\"DropRule\",\"kind\":\"growth rule\",\"governs\":\"stuck\"},"
                + "{\"change\":\"CloseShare\",\"share\":\"stuck\"},{\"change\":\"RemoveVolume\",\"volume\":\"stuck\"}");
    }

    @Test
    void notices_to_people_without_an_address_do_not_stop_the_others() throws Exception {
        NoticeStore notices = App.bean(NoticeStore.class);
        var now = App.bean(ShelfClock.class).instant();
        for (int i = 0; i < 60; i++) {
            notices.tell("nobody-" + i, now, "lost " + i, "nobody reads this");
        }
        notices.tell("tomas", now, "for tomas behind sixty", "he reads this");
        boolean sent = false;
        for (int i = 0; i < 200 && !sent; i++) {
            Thread.sleep(100);
            sent = notices.page(Long.MAX_VALUE, 200).stream()
                    .anyMatch(n -> n.subject().equals("for tomas behind sixty") && n.sentAt() != null);
        }
        assertThat(sent).isTrue();
    }
}
