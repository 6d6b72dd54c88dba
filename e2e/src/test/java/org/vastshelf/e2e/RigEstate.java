package org.vastshelf.e2e;

import java.util.HashMap;
import java.util.Map;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.EstateDefinition;
import org.vastshelf.core.estate.Usage;
import org.vastshelf.core.unit.Bytes;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** The estate of an application in a process of its own, as its API tells it. */
record RigEstate(CrashRig rig, JsonMapper json) {

    Estate estate() throws Exception {
        return json.readValue(rig.get("/api/v1/definitions/estate"), EstateDefinition.class)
                .toEstate();
    }

    Usage usage() throws Exception {
        Map<String, Usage.Held> held = new HashMap<>();
        for (JsonNode volume :
                json.readTree(rig.get("/api/v1/volumes?limit=1000")).path("items")) {
            held.put(
                    volume.path("volume").path("name").asString(),
                    new Usage.Held(
                            Bytes.of(volume.path("liveBytes").asLong()),
                            Bytes.of(volume.path("snapshotBytes").asLong()),
                            new Usage.Borrowed(
                                    Bytes.of(
                                            volume.path("borrowed").path("live").asLong()),
                                    Bytes.of(volume.path("borrowed")
                                            .path("snapshots")
                                            .asLong()))));
        }
        return new Usage(held);
    }
}
