package org.vastshelf.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.api.parallel.Execution;
import org.junit.jupiter.api.parallel.ExecutionMode;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

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
                    .isEqualTo("share press names volume 'nowhere', which is not there");

            JsonNode order = JSON.readTree(rig.post("/api/v1/definitions/estate", exported));
            long id = order.path("id").asLong();
            assertThat(rig.send("POST", "/api/v1/orders/" + id + "/carry-out", "")
                            .statusCode())
                    .isEqualTo(200);
            for (int i = 0; i < 60 && !rig.get("/api/v1/orders/" + id).contains("DONE"); i++) {
                Thread.sleep(250);
            }
            assertThat(JSON.readTree(rig.get("/api/v1/definitions/estate"))).isEqualTo(JSON.readTree(exported));
        }
    }
}
