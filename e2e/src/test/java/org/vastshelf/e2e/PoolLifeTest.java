package org.vastshelf.e2e;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.vastshelf.app.store.EstateStore;
import tools.jackson.databind.JsonNode;

/** Pools of drives that somebody brings: what rises and sinks on them, what breaks, and what waits for it. */
class PoolLifeTest {

    private static void happen(String mishap) {
        App.Reply reply = App.post("tomas", "/api/v1/bench", mishap);
        assertThat(reply.status()).as(reply.text()).isEqualTo(200);
    }

    private static void bring(String bay, String kind, long bytes) {
        happen("{\"mishap\":\"DriveBrought\",\"bay\":\"" + bay + "\",\"kind\":\"" + kind + "\",\"size\":" + bytes
                + "}");
    }

    private static void fail(String drive) {
        happen("{\"mishap\":\"DriveFails\",\"drive\":\"" + drive + "\"}");
    }

    private static void save(String path, long bytes) {
        App.Reply reply = App.post(
                "suki",
                "/api/v1/desk/operations",
                "{\"person\":\"suki\",\"share\":\"moths\",\"operation\":\"WRITE\",\"path\":\"" + path + "\",\"bytes\":"
                        + bytes + "}");
        assertThat(reply.json().path("allowed").asBoolean()).as(reply.text()).isTrue();
    }

    private static String compose(String name, String server, String layout, String... drives) {
        return "{\"change\":\"ComposePool\",\"name\":\"" + name + "\",\"server\":\"" + server + "\",\"drives\":[\""
                + String.join("\",\"", drives) + "\"],\"layout\":\"" + layout
                + "\",\"spares\":0,\"surfaceCheck\":false,\"groups\":1}";
    }

    private static String volume(String name, String pool, long bytes) {
        return "{\"change\":\"ComposeVolume\",\"volume\":{\"name\":\"" + name + "\",\"pool\":\"" + pool
                + "\",\"size\":" + bytes
                + ",\"thin\":false,\"blockSize\":65536,\"alarmPercent\":85,\"kind\":\"GUARDED\","
                + "\"encrypted\":false,\"pace\":{\"byHand\":false,\"mibps\":0}}}";
    }

    @Test
    void busy_files_rise_and_damage_is_traced_to_the_files_that_lie_there() {
        for (int bay = 8; bay <= 10; bay++) {
            bring("saltmarsh/1/" + bay, "SPINNING", 8_000_000_000_000L);
        }
        bring("saltmarsh/1/11", "SOLID_STATE", 2_000_000_000_000L);
        bring("saltmarsh/1/12", "SOLID_STATE", 2_000_000_000_000L);
        Drafts.carryOut(compose("hazel", "saltmarsh", "RAID_5", "saltmarsh/1/8", "saltmarsh/1/9", "saltmarsh/1/10")
                + ",{\"change\":\"AddGroup\",\"pool\":\"hazel\",\"drives\":[\"saltmarsh/1/11\",\"saltmarsh/1/12\"],"
                + "\"layout\":\"RAID_1\",\"fast\":true,\"asCache\":false},"
                + volume("moths", "hazel", 10_995_116_277_760L)
                + ",{\"change\":\"OpenShare\",\"share\":{\"name\":\"moths\",\"volume\":\"moths\",\"smb\":true,\"nfs\":false,"
                + "\"hiddenEntries\":true,\"access\":[{\"subject\":\"EVERYONE\",\"name\":\"\",\"level\":\"WRITE\"}],"
                + "\"exports\":[]}}");
        assertThat(App.post(
                                "odile",
                                "/api/v1/orders",
                                "{\"changes\":[{\"change\":\"ConvertVolume\",\"volume\":\"moths\","
                                        + "\"thin\":true}]}")
                        .text())
                .contains("Thin volumes are not possible on a pool with a fast and a bulk part");
        save("/small.raw", 400_000_000_000L);
        save("/middle.raw", 1_200_000_000_000L);
        save("/large.raw", 2_000_000_000_000L);

        JsonNode ride = App.post("tomas", "/api/v1/pools/hazel/lifts", "").json();
        assertThat(ride.path("risenFiles").asInt()).isEqualTo(2);
        assertThat(ride.path("served").asDouble()).isCloseTo(2 / 3.0, within(1e-9));
        assertThat(App.post("tomas", "/api/v1/pools/hazel/lifts", "")
                        .json()
                        .path("risenFiles")
                        .asInt())
                .isZero();
        // 1.6 TB at the 200 MiB/s of the rule then; another limit does not change what was.
        assertThat(ride.path("lasted").asString()).isEqualTo("PT2H7M9S");
        Drafts.carryOut(
                "{\"change\":\"SetRule\",\"rule\":{\"rule\":\"LiftRule\",\"pool\":\"hazel\",\"when\":null,\"hours\":6,"
                        + "\"limitMibps\":400}}");
        assertThat(App.get("ines", "/api/v1/pools/hazel/lifts").text()).contains("\"lasted\":\"PT2H7M9S\"");
        assertThat(App.post("tomas", "/api/v1/pools/oak/lifts", "").detail())
                .isEqualTo("There is no pool 'oak' with a fast part that adds space");

        happen("{\"mishap\":\"BlocksDamaged\",\"drive\":\"saltmarsh/1/12\",\"blocks\":40}");
        happen("{\"mishap\":\"BlocksDamaged\",\"drive\":\"saltmarsh/1/8\",\"blocks\":40}");
        fail("saltmarsh/1/11");
        fail("saltmarsh/1/9");
        App.post("tomas", "/api/v1/pools/hazel/scrub", "");
        App.post("tomas", "/api/v1/time", "{\"hours\":200}");
        List<String> fast = new ArrayList<>();
        List<String> bulk = new ArrayList<>();
        for (JsonNode finding : App.get("ines", "/api/v1/pools/hazel/damage").json()) {
            (finding.path("drive").asString().endsWith("/12") ? fast : bulk)
                    .add(finding.path("belongsTo").asString());
        }
        assertThat(fast)
                .hasSize(40)
                .contains("moths/middle.raw")
                .isSubsetOf("moths/small.raw", "moths/middle.raw", "no volume");
        assertThat(bulk)
                .hasSize(40)
                .contains("moths/large.raw", "protection or a copy, no file")
                .isSubsetOf(
                        "moths/large.raw",
                        "protection or a copy, no file",
                        "unused space of volume moths",
                        "no volume");
    }

    @Test
    void a_replacement_waits_for_the_rebuild_of_its_pool_and_goes_on_by_itself() throws Exception {
        for (int bay = 8; bay <= 11; bay++) {
            bring("fernhill/2/" + bay, "SPINNING", 6_000_000_000_000L);
        }
        bring("fernhill/2/12", "SPINNING", 8_000_000_000_000L);
        Drafts.carryOut(compose("gorse", "fernhill", "RAID_5", "fernhill/2/8", "fernhill/2/9", "fernhill/2/10") + ","
                + volume("gorse", "gorse", 8_796_093_022_208L)
                + ",{\"change\":\"AddSpares\",\"pool\":\"gorse\",\"drives\":[\"fernhill/2/11\"]}");
        fail("fernhill/2/8");
        JsonNode draft = App.post(
                        "odile",
                        "/api/v1/orders",
                        "{\"changes\":[{\"change\":\"ReplaceDrives\",\"pool\":\"gorse\",\"takeSpace\":true,\"swaps\":"
                                + "[{\"old\":\"fernhill/2/9\",\"next\":\"fernhill/2/12\"}]}]}")
                .json();
        long id = draft.path("order").path("id").asLong();
        JsonNode begun =
                App.post("odile", "/api/v1/orders/" + id + "/carry-out", "").json();
        assertThat(begun.path("waitsFor").path("reason").asString()).isEqualTo("Pool gorse rebuilds fernhill/2/11");
        Instant until = Instant.parse(begun.path("waitsFor").path("until").asString());
        try (Browser browser = new Browser(1280, 800).signIn("tomas")) {
            browser.page.navigate("/orders/" + id);
            assertThat(browser.page.locator("#steps").textContent())
                    .contains("Pool gorse rebuilds fernhill/2/11; the next step begins when that is done");
        }
        EstateStore estates = App.bean(EstateStore.class);
        long version = estates.snapshot().version();
        Thread.sleep(2_500);
        assertThat(estates.snapshot().version())
                .as("a rebuild that goes on makes no version")
                .isEqualTo(version);
        App.post("odile", "/api/v1/time", "{\"hours\":240}");
        assertThat(Drafts.awaited(id, "DONE")).isEqualTo("DONE");
        JsonNode step = App.get("odile", "/api/v1/orders/" + id)
                .json()
                .path("order")
                .path("steps")
                .get(0);
        assertThat(Instant.parse(step.path("startedAt").asString()))
                .isBetween(until.minusSeconds(60), until.plusSeconds(60));
    }
}
