package org.vastshelf.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.util.ArrayList;
import java.util.Collection;
import java.util.Collections;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.TreeMap;
import java.util.concurrent.Callable;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import java.util.stream.Stream;
import org.jooq.DSLContext;
import org.vastshelf.core.change.Change;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.failure.Mishap;
import org.vastshelf.core.invariant.Invariants;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/**
 * All at once: orders that meet, drives that fail, people who save, the clock that jumps, orders taken back, and a kill
 * in the middle. Afterwards every order has come to an end, what is stored is whole, and every page answers.
 */
final class Melee {

    private static final int ORDERS = 3;
    /** So many pools, volumes, shares and drives have their pages looked at in each round. */
    private static final int LOOKED_AT = 4;

    /** One of so many rounds ends in a kill. */
    private static final int KILLS = Integer.getInteger("vastshelf.kills", 1);

    private static final List<String> LISTS = List.of("pools", "volumes", "shares", "drives?limit=1000", "rebuilds");

    private final CrashRig rig;
    private final JsonMapper json;
    private final String database;
    private final Random random;
    private final ChaosMoves moves;
    private final ProtectMoves protecting;
    private final RigEstate seen;
    private final Map<Long, String> ends = new HashMap<>();

    Melee(CrashRig rig, JsonMapper json, String database, long seed) {
        this.rig = rig;
        this.json = json;
        this.database = database;
        this.random = new Random(seed);
        this.seen = new RigEstate(rig, json);
        this.moves = new ChaosMoves(random);
        this.protecting = new ProtectMoves(random);
    }

    /** How many orders ended how. */
    String summary() {
        Map<String, Integer> counts = new TreeMap<>();
        ends.values().forEach(state -> counts.merge(state, 1, Integer::sum));
        return counts.toString();
    }

    void round() throws Exception {
        // Copies get through in the demo's own time only by a link that is whole.
        sent(
                "/api/v1/bench",
                json.writerFor(Mishap.class)
                        .writeValueAsString(
                                new Mishap.LinkChanges("glasshouse-hill", "saltmarsh-annex", 900, 4, 0, false)));
        Estate before = seen.estate();
        List<Callable<Void>> works = new ArrayList<>();
        for (int i = 0; i < ORDERS; i++) {
            List<Change> changes = random.nextInt(3) > 0
                    ? protecting.changes(before)
                    : List.of(moves.change(before), moves.change(before));
            boolean turned = random.nextInt(4) == 0;
            works.add(() -> order(changes, turned));
        }
        for (int i = 0; i < 2; i++) {
            Mishap mishap = moves.mishap(before);
            works.add(() -> sent("/api/v1/bench", json.writerFor(Mishap.class).writeValueAsString(mishap)));
        }
        for (int i = 0; i < 12; i++) {
            String operation = moves.operation();
            works.add(() -> sent("/api/v1/desk/operations", operation));
        }
        for (int i = 0; i < 2; i++) {
            String volume = List.of("office", "film", "plans", "homes").get(random.nextInt(4));
            String deed = random.nextInt(3) == 0 ? "/delete {\"numbers\":[" + (15 + random.nextInt(9)) + "]}" : " {}";
            works.add(() -> sent("/api/v1/volumes/" + volume + "/snapshots" + deed.split(" ")[0], deed.split(" ")[1]));
        }
        int hours = 1 + random.nextInt(30);
        works.add(() -> sent("/api/v1/time", "{\"hours\":" + hours + "}"));
        int rest = random.nextInt(1_500);
        boolean kill = random.nextInt(KILLS) == 0;
        if (kill) {
            works.add(() -> {
                Thread.sleep(rest);
                rig.kill();
                return null;
            });
        }
        atOnce(works);
        if (kill) {
            rig.start();
        }
        end();
        check();
    }

    private static void atOnce(List<Callable<Void>> works) throws Exception {
        try (var threads = Executors.newFixedThreadPool(8)) {
            for (Future<Void> future : threads.invokeAll(works)) {
                future.get();
            }
        }
    }

    /** An answer, whatever it is, or none since the application was killed; but no error of its own. */
    private Void sent(String path, String body) throws Exception {
        try {
            var answer = rig.send("POST", path, body);
            assertThat(answer.statusCode())
                    .as(path + " " + body + " " + answer.body())
                    .isLessThan(500);
        } catch (IOException killed) {
            assertThat(rig.isKilled()).isTrue();
        }
        return null;
    }

    private Void order(List<Change> changes, boolean turned) throws Exception {
        try {
            JsonNode draft = json.readTree(rig.post(
                    "/api/v1/orders",
                    "{\"changes\":[" + json.writerFor(Change.class).writeValueAsString(changes.get(0)) + ","
                            + json.writerFor(Change.class).writeValueAsString(changes.get(1)) + "]}"));
            String order = "/api/v1/orders/" + draft.path("order").path("id").asLong();
            for (JsonNode check : draft.path("checks")) {
                if (check.path("verdict").asString().equals("CONFIRM")) {
                    sent(
                            order + "/confirm",
                            json.writeValueAsString(
                                    Map.of("key", check.path("key").asString())));
                }
            }
            sent(order + "/carry-out", "");
            if (turned) {
                sent(order + "/take-back", "");
            }
        } catch (IOException killed) {
            assertThat(rig.isKilled()).isTrue();
        }
        return null;
    }

    /** Time passes until no order is under way; what asks is left, drafts are discarded, power comes back. */
    private void end() throws Exception {
        sent("/api/v1/bench", "{\"mishap\":\"PowerBack\",\"server\":\"saltmarsh\"}");
        List<JsonNode> open = open();
        for (int i = 0; i < 80 && !open.isEmpty(); i++) {
            for (JsonNode order : open) {
                String path = "/api/v1/orders/" + order.path("id").asLong();
                switch (order.path("state").asString()) {
                    case "DRAFT", "READY" -> sent(path + "/discard", "");
                    case "ASKING" -> sent(path + "/leave", "");
                    default -> {}
                }
            }
            sent("/api/v1/time", "{\"hours\":96}");
            open = open();
        }
        assertThat(open).as("orders that come to no end").isEmpty();
    }

    private List<JsonNode> open() throws Exception {
        List<JsonNode> open = new ArrayList<>();
        for (JsonNode order : json.readTree(rig.get("/api/v1/orders?limit=10")).path("items")) {
            String state = order.path("state").asString();
            if (List.of("DONE", "TAKEN_BACK", "LEFT").contains(state)) {
                String first = order.path("changes").path(0).path("change").asString();
                ends.put(order.path("id").asLong(), state + " " + first);
            } else {
                open.add(order);
            }
        }
        return open;
    }

    private void check() throws Exception {
        Estate estate = seen.estate();
        assertThat(Invariants.of(estate, seen.usage())).isEmpty();
        pages(estate);
        sums();
        assertThat(rig.post("/api/v1/snapshots/looks", ""))
                .as("snapshots that are not as counted")
                .isEqualTo("[]");
        assertThat(rig.post("/api/v1/kept-bytes/looks", "")).contains("\"mended\":0", "\"missing\":0");
        assertThat(App.bean(DSLContext.class)
                        .fetch(
                                ("SELECT u.volume FROM {}.volume_usage u LEFT JOIN {}.estate_object o ON o.kind = 'clone'"
                                                + " AND o.name = u.volume AND o.gone = 0 WHERE u.borrowed_bytes > 0 AND o.name IS NULL")
                                        .replace("{}", database)))
                .as("borrowed without a clone")
                .isEmpty();
    }

    /** Every line of the audit, which takes a while. */
    void verifyAudit() throws Exception {
        assertThat(rig.get("/api/v1/audit-lines/verification")).contains("\"whole\":true");
    }

    private void pages(Estate estate) throws Exception {
        List<String> paths = new ArrayList<>(List.of(
                "/look",
                "/build",
                "/build/bench",
                "/build/new/pool",
                "/build/new/volume",
                "/build/what-if",
                "/serve",
                "/limit",
                "/protect",
                "/foresee",
                "/foresee?show=accounts",
                "/foresee/orders",
                "/foresee/kept",
                "/trace",
                "/orders",
                "/look/notices",
                "/build/definitions",
                "/desk"));
        some(estate.pools().keySet()).map(estate.pools()::get).forEach(p -> {
            paths.add("/build/pools/" + p.name());
            paths.add("/build?scope=" + p.name());
            if (!p.isReservation()) {
                paths.add("/build/pools/" + p.name() + "/replace");
            }
        });
        some(estate.volumes().keySet()).forEach(v -> {
            paths.add("/build/volumes/" + v);
            paths.add("/build/volumes/" + v + "/move");
            paths.add("/protect/volumes/" + v);
        });
        some(estate.shares().keySet()).forEach(s -> paths.add("/serve/shares/" + s));
        some(estate.drives().keySet()).forEach(d -> paths.add("/build/drives/" + d));
        rig.signIn();
        for (String path : paths) {
            assertThat(rig.page(path)).as(path).isEqualTo(200);
        }
        for (String list : LISTS) {
            assertThat(rig.send("GET", "/api/v1/" + list, "").statusCode())
                    .as(list)
                    .isEqualTo(200);
        }
    }

    private Stream<String> some(Collection<String> names) {
        List<String> mixed = new ArrayList<>(names);
        Collections.shuffle(mixed, random);
        return mixed.stream().limit(LOOKED_AT);
    }

    /** What was counted along the way is what the rows come to. */
    private void sums() {
        DSLContext db = App.bean(DSLContext.class);
        assertThat(db.fetch(("SELECT c.name, d.sum_bytes, SUM(f.bytes) FROM {}.catalogue c JOIN {}.folder d"
                                + " ON d.catalogue_no = c.no AND d.no = 0 JOIN {}.file f ON f.catalogue_no = c.no"
                                + " GROUP BY c.no HAVING d.sum_bytes <> SUM(f.bytes)")
                        .replace("{}", database)))
                .isEmpty();
        assertThat(db.fetch(("SELECT a.holder, a.used_bytes, d.sum_bytes FROM {}.account a JOIN {}.catalogue c"
                                + " ON c.name = a.share JOIN {}.folder d ON d.catalogue_no = c.no"
                                + " AND d.path_hash = a.holder_hash WHERE d.sum_bytes <> a.used_bytes")
                        .replace("{}", database)))
                .isEmpty();
        assertThat(db.fetch("SELECT * FROM {}.agenda WHERE tries > 0".replace("{}", database)))
                .isEmpty();
    }
}
