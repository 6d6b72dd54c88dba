package org.vastshelf.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import java.util.List;
import java.util.function.Consumer;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.api.parallel.Execution;
import org.junit.jupiter.api.parallel.ExecutionMode;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.ObjectNode;

/** An installation with nothing in it: its lists are empty, and an estate that was written down is made in it. */
@Execution(ExecutionMode.CONCURRENT)
class EmptyInstallationTest {

    private static final JsonMapper JSON = JsonMapper.shared();

    @TempDir
    Path data;

    @Test
    void an_exported_estate_is_the_same_in_an_empty_installation() throws Exception {
        String exported = App.get("odile", "/api/v1/definitions/estate").text();
        try (CrashRig rig = new CrashRig(data, "vastshelf_empty", "--vastshelf.demo=false")) {
            rig.start();
            for (String list : List.of("drives", "pools", "volumes", "shares", "limits", "orders", "notices")) {
                assertThat(JSON.readTree(rig.get("/api/v1/" + list))
                                .path("items")
                                .size())
                        .as(list)
                        .isZero();
            }
            String torn = exported.replace("\"volume\":\"press\"", "\"volume\":\"nowhere\"");
            JsonNode refused = JSON.readTree(rig.post("/api/v1/definitions/estate", torn));
            JsonNode draft =
                    JSON.readTree(rig.get("/api/v1/orders/" + refused.path("id").asLong()));
            assertThat(draft.path("checks").get(0).path("text").asString())
                    .isEqualTo(
                            "Make the estate is not possible: share press needs volume 'nowhere', which would not be there");

            refused(
                    rig,
                    with(
                            exported,
                            "elm",
                            pool -> members(pool).remove(members(pool).size() - 1),
                            4),
                    "RAID 5");
            refused(rig, with(exported, "elm", pool -> members(pool).set(0, "fernhill/1/1"), 1), "fernhill/1/1");
            ObjectNode small = (ObjectNode) JSON.readTree(exported);
            for (JsonNode volume : small.path("volumes")) {
                if (volume.path("name").asString().equals("specimens-db")) {
                    ((ObjectNode) volume).put("size", 900L << 40);
                }
            }
            refused(rig, small.toString(), "yew");

            JsonNode order = JSON.readTree(rig.post("/api/v1/definitions/estate", exported));
            long id = order.path("id").asLong();
            assertThat(rig.send("POST", "/api/v1/orders/" + id + "/carry-out", "")
                            .statusCode())
                    .isEqualTo(200);
            for (int i = 0; i < 60 && !rig.get("/api/v1/orders/" + id).contains("DONE"); i++) {
                Thread.sleep(250);
            }
            assertThat(lasting(rig.get("/api/v1/definitions/estate"))).isEqualTo(lasting(exported));
        }
    }

    /** What does not go on by itself with the other installation's clock. */
    private static JsonNode lasting(String definition) {
        ObjectNode estate = (ObjectNode) JSON.readTree(definition);
        for (JsonNode drive : estate.path("drives")) {
            // One that loses sectors has none left by then, fails, and keeps the counters of that moment.
            if (drive.path("health").path("pendingSectors").asInt() > 0) {
                ((ObjectNode) drive).remove(List.of("state", "health"));
            }
        }
        return estate.without(List.of("rebuilds", "scrubs"));
    }

    private static ArrayNode members(JsonNode pool) {
        return (ArrayNode) pool.path("groups").get(0).path("members");
    }

    private static String with(String exported, String name, Consumer<JsonNode> edit, int times) {
        JsonNode estate = JSON.readTree(exported);
        for (JsonNode pool : estate.path("pools")) {
            for (int i = 0; i < times && pool.path("name").asString().equals(name); i++) {
                edit.accept(pool);
            }
        }
        return estate.toString();
    }

    /** Nothing of it is made, and the draft says what it is about. */
    private static void refused(CrashRig rig, String definition, String about) throws Exception {
        JsonNode made = JSON.readTree(rig.post("/api/v1/definitions/estate", definition));
        String path = "/api/v1/orders/" + made.path("id").asLong();
        JsonNode checks = JSON.readTree(rig.get(path)).path("checks");
        assertThat(checks.toString()).as(made.toString()).contains("REFUSE").contains(about);
        assertThat(rig.send("POST", path + "/carry-out", "").statusCode()).isEqualTo(409);
        assertThat(rig.send("POST", path + "/discard", "").statusCode()).isEqualTo(204);
        assertThat(JSON.readTree(rig.get("/api/v1/pools")).path("items").size()).isZero();
    }
}
