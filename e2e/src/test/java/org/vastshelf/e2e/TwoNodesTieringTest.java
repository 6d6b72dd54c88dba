package org.vastshelf.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.Callable;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import java.util.function.Predicate;
import java.util.stream.IntStream;
import org.jooq.DSLContext;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.api.parallel.Execution;
import org.junit.jupiter.api.parallel.ExecutionMode;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** Two nodes at one run of a rule, and at one comparison of its bucket, of which one is killed in the middle. */
@Execution(ExecutionMode.CONCURRENT)
class TwoNodesTieringTest {

    private static final String DATABASE = "vastshelf_two_tiering";
    private static final String RUNS = "/api/v1/tiering/rules/aging/runs";
    private static final String COMPARISONS = "/api/v1/cold-stores/peat/comparisons";
    private static final int FILES = 120;

    @TempDir
    Path data;

    private final JsonMapper json = App.bean(JsonMapper.class);
    private final Map<String, String> saved = new HashMap<>();

    @Test
    void each_file_leaves_once_and_each_bucket_is_compared_by_one_of_them() throws Exception {
        try (CrashRig one = new CrashRig(data, DATABASE, "--vastshelf.traffic=false");
                CrashRig other = one.beside()) {
            one.start();
            other.start();
            order(one, "{\"changes\":[" + TierChaosTest.SHARE + "]}");
            for (int i = 0; i < FILES; i++) {
                save(i % 2 == 0 ? one : other, i);
            }
            one.post("/api/v1/time", "{\"hours\":30}");

            List<Integer> answers = atOnce(one, other, RUNS);
            assertThat(answers.stream().filter(status -> status == 202))
                    .as("of eight, one begins: %s", answers)
                    .hasSize(1);
            Thread.sleep(400);
            other.kill();
            JsonNode run =
                    ended(one, RUNS, found -> !found.path("state").asString().equals("RUNNING"));
            assertThat(run.path("state").asString()).as(run.toString()).isEqualTo("DONE");
            leftOnce(one);

            other.start();
            atOnce(one, other, COMPARISONS);
            Thread.sleep(1_500);
            other.kill();
            assertThat(compared(one).path("found").path("objects").asLong()).isEqualTo(FILES);
            leftOnce(one);
        } finally {
            App.bean(DSLContext.class).execute("DROP DATABASE IF EXISTS " + DATABASE);
        }
    }

    private void order(CrashRig node, String changes) throws Exception {
        long id = json.readTree(node.post("/api/v1/orders", changes))
                .path("order")
                .path("id")
                .asLong();
        node.post("/api/v1/orders/" + id + "/carry-out", "");
        node.post("/api/v1/time", "{\"hours\":1}");
        assertThat(node.order(id, "DONE")).contains("\"state\":\"DONE\"");
    }

    private void save(CrashRig node, int i) throws Exception {
        String name = "/file-" + i + ".txt";
        String text = ("file " + i + " ").repeat(5_000 + i * 100);
        assertThat(node.send("PUT", contents(name), text).statusCode()).isEqualTo(200);
        saved.put(name, text);
    }

    private static String contents(String name) {
        return "/api/v1/desk/contents?person=suki&share=reeds&path=" + name;
    }

    /** Asks both four times at the same time. */
    private static List<Integer> atOnce(CrashRig one, CrashRig other, String path) throws Exception {
        List<Callable<Integer>> asks = IntStream.range(0, 8)
                .mapToObj(i -> (Callable<Integer>)
                        () -> (i % 2 == 0 ? one : other).send("POST", path, "").statusCode())
                .toList();
        List<Integer> answers = new ArrayList<>();
        try (var threads = Executors.newFixedThreadPool(asks.size())) {
            for (Future<Integer> ask : threads.invokeAll(asks)) {
                answers.add(ask.get());
            }
        }
        assertThat(answers).allMatch(status -> status < 500);
        return answers;
    }

    /** The newest of a list, once it is over. */
    private JsonNode ended(CrashRig node, String path, Predicate<JsonNode> over) throws Exception {
        JsonNode newest = null;
        for (int i = 0; i < 900; i++) {
            JsonNode list = json.readTree(node.get(path));
            newest = (list.isArray() ? list : list.path("items")).get(0);
            if (over.test(newest)) {
                return newest;
            }
            Thread.sleep(100);
        }
        throw new AssertionError("it does not end: " + newest);
    }

    /** Another node serves the bench's store a moment after the one that did is gone; until then that is what is told. */
    private JsonNode compared(CrashRig node) throws Exception {
        for (int i = 0; i < 60; i++) {
            JsonNode report =
                    ended(node, COMPARISONS, found -> !found.path("done").isNull());
            if (report.path("problem").asString().isEmpty()) {
                return report;
            }
            assertThat(report.path("problem").asString()).contains("does not answer");
            Thread.sleep(1_000);
            node.post(COMPARISONS, "");
        }
        throw new AssertionError("the store does not come back");
    }

    private void leftOnce(CrashRig node) throws Exception {
        assertThat(number("SELECT COUNT(*) FROM {}.file f JOIN {}.catalogue c ON c.no = f.catalogue_no"
                        + " WHERE c.name = 'reeds' AND LEFT(f.extents, 2) = X'017F'"))
                .isEqualTo(FILES);
        assertThat(number("SELECT COUNT(*) FROM {}.cold_object WHERE state = 'HELD'"))
                .as("one object for each")
                .isEqualTo(FILES);
        // Reading lines gives those their numbers that wait.
        node.get("/api/v1/audit-lines?limit=1");
        assertThat(number("SELECT COUNT(*) FROM {}.audit_line WHERE operation = 'LEAVE' AND verdict = 'ALLOWED'"))
                .as("each has left once")
                .isEqualTo(FILES);
        for (Map.Entry<String, String> file : saved.entrySet()) {
            assertThat(node.get(contents(file.getKey()))).isEqualTo(file.getValue());
        }
    }

    private static long number(String sql) {
        return App.bean(DSLContext.class)
                .fetchSingle(sql.replace("{}", DATABASE))
                .get(0, Long.class);
    }
}
