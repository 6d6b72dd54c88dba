package org.vastshelf.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Map;
import java.util.Random;
import org.vastshelf.core.change.Change;
import org.vastshelf.core.change.Plan;
import org.vastshelf.core.change.Planner;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.Kinds;
import org.vastshelf.core.estate.Usage;
import org.vastshelf.core.ledger.Ledgers;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/**
 * Random orders against an application that is killed in the middle of them. After each restart the order has to be
 * done whole or taken back whole: the estate is compared with what the pure planner says it must be.
 */
final class Chaos {

    private final CrashRig rig;
    private final JsonMapper json;
    private final Random random;
    private final ChaosMoves moves;
    private final RigEstate seen;
    private int done;
    private int takenBack;
    private int refused;

    Chaos(CrashRig rig, JsonMapper json, long seed) {
        this.rig = rig;
        this.json = json;
        this.random = new Random(seed);
        this.seen = new RigEstate(rig, json);
        this.moves = new ChaosMoves(random);
    }

    String summary() {
        return done + " done, " + takenBack + " taken back, " + refused + " refused before they began";
    }

    int ended() {
        return done + takenBack + refused;
    }

    /** One order, one kill, one restart, one look. */
    void round() throws Exception {
        Estate before = seen.estate();
        Usage usage = seen.usage();
        List<Change> changes = List.of(moves.change(before), moves.change(before));
        Plan plan = Planner.plan(before, usage, changes);
        // Now and then a refused order goes in too; mostly they are drawn again until one can be carried out.
        while ((plan.isRefused() || plan.steps().isEmpty()) && random.nextInt(40) > 0) {
            changes = List.of(moves.change(before), moves.change(before));
            plan = Planner.plan(before, usage, changes);
        }
        String body = "{\"changes\":["
                + json.writerFor(Change.class).writeValueAsString(changes.get(0)) + ","
                + json.writerFor(Change.class).writeValueAsString(changes.get(1)) + "]}";
        JsonNode draft = json.readTree(rig.post("/api/v1/orders", body));
        long id = draft.path("order").path("id").asLong();
        assertThat(id).as(draft.toString()).isPositive();
        for (JsonNode check : draft.path("checks")) {
            if (check.path("verdict").asString().equals("CONFIRM")) {
                rig.post(
                        "/api/v1/orders/" + id + "/confirm",
                        json.writeValueAsString(Map.of("key", check.path("key").asString())));
            }
        }
        int status = rig.send("POST", "/api/v1/orders/" + id + "/carry-out", "").statusCode();
        if (status != 200) {
            assertThat(plan.isRefused() || plan.steps().isEmpty()).isTrue();
            rig.post("/api/v1/orders/" + id + "/discard", "");
            refused++;
        }
        if (random.nextInt(3) == 0) {
            rig.post("/api/v1/time", "{\"hours\":1}");
        }
        Thread.sleep(random.nextInt(900));
        if (random.nextInt(4) == 0) {
            rig.post("/api/v1/orders/" + id + "/take-back", "");
        }
        rig.kill();
        rig.start();
        check(id, status, before, plan, usage);
    }

    private void check(long id, int status, Estate before, Plan plan, Usage usage) throws Exception {
        String state = "";
        for (int i = 0; i < 60 && status == 200 && !state.equals("DONE") && !state.equals("TAKEN_BACK"); i++) {
            rig.post("/api/v1/time", "{\"hours\":48}");
            state = json.readTree(rig.get("/api/v1/orders/" + id))
                    .path("order")
                    .path("state")
                    .asString();
        }
        Estate after = seen.estate();
        assertThat(Ledgers.ofEstate(after, usage).label()).isNotNull();
        for (JsonNode pool : json.readTree(rig.get("/api/v1/pools?limit=1000")).path("items")) {
            long sum = 0;
            for (JsonNode line : pool.path("ledger").path("lines")) {
                sum += line.path("bytes").asLong();
            }
            assertThat(sum).isEqualTo(pool.path("ledger").path("label").asLong());
        }
        if (status != 200) {
            assertThat(ordered(after)).isEqualTo(ordered(before));
        } else if (state.equals("DONE")) {
            assertThat(ordered(after)).as("order " + id + " is done whole").isEqualTo(ordered(plan.after()));
            done++;
        } else {
            assertThat(state).isEqualTo("TAKEN_BACK");
            assertThat(ordered(after))
                    .as("order " + id + " is taken back whole")
                    .isEqualTo(ordered(before));
            takenBack++;
        }
    }

    /** What orders make of the estate; scrubs begin by their rules meanwhile. */
    private static Estate ordered(Estate estate) {
        return estate.withOnly(Kinds.SCRUB, Map.of());
    }
}
