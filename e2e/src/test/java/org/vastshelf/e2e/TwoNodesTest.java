package org.vastshelf.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import java.util.SplittableRandom;
import java.util.concurrent.Callable;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import org.jooq.DSLContext;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.api.parallel.Execution;
import org.junit.jupiter.api.parallel.ExecutionMode;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** Two nodes on one database: what one does the other sees, nothing is done twice, and the death of one stops nothing. */
@Execution(ExecutionMode.CONCURRENT)
class TwoNodesTest {

    /** At a rate at which it takes five seconds. */
    private static final String MEASURED = "{\"method\":\"FIXED\",\"blockBytes\":4096,\"mibps\":1}";

    private static final String DATABASE = "vastshelf_two";
    private static final long STOP = 50_000_000;
    private static final int WRITERS = 8;

    @TempDir
    Path data;

    private final JsonMapper json = App.bean(JsonMapper.class);

    private static void atOnce(List<Callable<Void>> works) throws Exception {
        try (var threads = Executors.newFixedThreadPool(works.size())) {
            for (Future<Void> future : threads.invokeAll(works)) {
                future.get();
            }
        }
    }

    private static Callable<Void> start(CrashRig node) {
        return () -> {
            node.start();
            return null;
        };
    }

    /** Saves and removals on one account; none may fail, whatever else goes on. */
    private static Callable<Void> writer(CrashRig node, int seed) {
        Random random = new Random(seed);
        return () -> {
            for (int i = 0; i < 8; i++) {
                boolean delete = random.nextInt(6) == 0;
                int status = node.send(
                                "POST",
                                "/api/v1/desk/operations",
                                "{\"person\":\"suki\",\"share\":\"office\",\"operation\":\""
                                        + (delete ? "DELETE" : "WRITE") + "\",\"path\":\"/both/f" + random.nextInt(12)
                                        + ".odt\",\"bytes\":" + (delete ? 0 : random.nextInt(9_000_000)) + "}")
                        .statusCode();
                assertThat(status == 200 || delete && status == 404)
                        .as("status %d", status)
                        .isTrue();
            }
            return null;
        };
    }

    /** Folders move, are copied and removed while files are saved into them; none may fail. */
    private static Callable<Void> mover(CrashRig node, int seed) {
        Random random = new Random(seed);
        return () -> {
            for (int i = 0; i < 6; i++) {
                String[] acts = {
                    "WRITE\",\"path\":\"/wander/a/f" + random.nextInt(5) + "\",\"bytes\":" + random.nextInt(90_000),
                    "MOVE\",\"path\":\"/wander/a\",\"to\":\"/wander/b" + random.nextInt(3),
                    "COPY\",\"path\":\"/wander/b0\",\"to\":\"/wander/c" + random.nextInt(9),
                    "MOVE\",\"path\":\"/wander/b1\",\"to\":\"/wander/a",
                    "REMOVE_FOLDER\",\"path\":\"/wander/b2"
                };
                String act = acts[random.nextInt(acts.length)];
                String end = act.contains("bytes") ? "}" : "\"}";
                int status = node.send(
                                "POST",
                                "/api/v1/desk/operations",
                                "{\"person\":\"suki\",\"share\":\"office\",\"operation\":\"" + act + end)
                        .statusCode();
                assertThat(status).as(act).isIn(200, 404, 409);
            }
            return null;
        };
    }

    /** Snapshots come and go meanwhile; each deletes its own, for those of others may be needed by an order. */
    private static Callable<Void> snapper(CrashRig node) {
        return () -> {
            int before = 0;
            for (int i = 0; i < 4; i++) {
                String taken = node.post("/api/v1/volumes/office/snapshots", "{}");
                assertThat(taken).contains("\"number\"");
                if (i % 2 == 1) {
                    int status = node.send(
                                    "POST", "/api/v1/volumes/office/snapshots/delete", "{\"numbers\":[" + before + "]}")
                            .statusCode();
                    assertThat(status).isIn(200, 404);
                }
                before = Integer.parseInt(taken.replaceAll("[^0-9]", ""));
            }
            return null;
        };
    }

    private static List<Callable<Void>> writers(CrashRig... nodes) {
        List<Callable<Void>> works = new ArrayList<>();
        for (CrashRig node : nodes) {
            works.add(snapper(node));
            for (int i = 0; i < WRITERS; i++) {
                works.add(writer(node, works.size()));
                works.add(mover(node, works.size()));
            }
        }
        return works;
    }

    private long draft(CrashRig node, String changes) throws Exception {
        JsonNode draft = json.readTree(node.post("/api/v1/orders", "{\"changes\":[" + changes + "]}"));
        return draft.path("order").path("id").asLong();
    }

    private Callable<Void> carriedOut(CrashRig node, long id) {
        return () -> {
            assertThat(node.send("POST", "/api/v1/orders/" + id + "/carry-out", "")
                            .statusCode())
                    .isIn(200, 409);
            return null;
        };
    }

    private static Callable<Void> jump(CrashRig node, int hours) {
        return () -> {
            assertThat(node.send("POST", "/api/v1/time", "{\"hours\":" + hours + "}")
                            .statusCode())
                    .isEqualTo(200);
            return null;
        };
    }

    private static long number(String sql) {
        return App.bean(DSLContext.class)
                .fetchSingle(sql.replace("{}", DATABASE))
                .get(0, Long.class);
    }

    private void allEnds(CrashRig node) throws Exception {
        for (int i = 0; i < 30; i++) {
            if (number("SELECT COUNT(*) FROM {}.shelf_order WHERE state NOT IN ('DONE','TAKEN_BACK','DRAFT')") == 0) {
                return;
            }
            jump(node, 24).call();
            Thread.sleep(200);
        }
        throw new AssertionError("orders stand still: " + node.get("/api/v1/orders"));
    }

    @Test
    void what_two_nodes_do_at_once_is_done_once_and_whole() throws Exception {
        Path roots = Files.createDirectories(data.resolve("trees"));
        long files = tree(roots);
        Path twins = twins(data.resolve("twins"));
        try (CrashRig one = new CrashRig(data, DATABASE, "--vastshelf.scan-roots=" + roots + "," + twins);
                CrashRig other = one.beside()) {
            atOnce(List.of(start(one), start(other)));
            assertThat(number("SELECT COUNT(*) FROM {}.catalogue")).isEqualTo(10);
            other.signIn();
            one.withSessionOf(other);
            assertThat(one.page("/look"))
                    .as("a session of one node is one of the other")
                    .isEqualTo(200);

            long limit = draft(
                    one,
                    "{\"change\":\"SetLimit\",\"rule\":{\"share\":\"office\",\"path\":\"/both\",\"eachChild\":false,"
                            + "\"graceTime\":\"PT168H\",\"stopAt\":" + STOP + "}}");
            carriedOut(one, limit).call();
            allEnds(other);
            atOnce(writers(one, other));
            clonedByBoth(one, other);

            long grown = draft(one, "{\"change\":\"ResizeVolume\",\"volume\":\"film\",\"size\":109951162777600}");
            carriedOut(one, grown).call();
            long moved =
                    draft(one, "{\"change\":\"MoveVolume\",\"volume\":\"plans\",\"pool\":\"ash\",\"limitMibps\":2000}");
            atOnce(List.of(carriedOut(one, moved), carriedOut(other, moved), jump(one, 72), jump(other, 72)));

            one.post("/api/v1/catalogues", "{\"name\":\"twins\",\"folder\":\"" + twins + "\"}");
            long dying = draft(other, "{\"change\":\"RestartNode\",\"server\":\"fernhill\",\"node\":1}");
            carriedOut(other, dying).call();
            String scan = "{\"name\":\"woods\",\"folder\":\"" + roots + "\"}";
            assertThat(other.send("POST", "/api/v1/catalogues", scan).statusCode())
                    .isLessThan(300);
            measured(other);
            List<Callable<Void>> works = writers(one);
            works.add(() -> {
                other.kill();
                return null;
            });
            atOnce(works);
            allEnds(one);
            assertThat(one.order(dying, "DONE")).contains("\"state\":\"DONE\"");
            isReadByTheOther(files);
            awaited(
                    "SELECT COUNT(*) FROM {}.saving_run WHERE state = 'DONE' AND files = 20 AND bytes = 20 * 262144"
                            + " AND unique_bytes = 10 * 262144",
                    "the measurement is ended by the node that lives");
            assertThat(one.page("/orders/" + dying)).as("the session lives on").isEqualTo(200);
            everythingAgrees(one);
        }
    }

    /** Both make a clone of one name while files are saved, brought back and retained; one of them has it. */
    private void clonedByBoth(CrashRig one, CrashRig other) throws Exception {
        long snapshot = json.readTree(one.post("/api/v1/volumes/office/snapshots", "{\"name\":\"of both\"}"))
                .path("number")
                .asLong();
        String clone = "{\"change\":\"MakeClone\",\"volume\":\"office\",\"snapshot\":" + snapshot
                + ",\"name\":\"both-then\",\"ofCopy\":false}";
        String back = "{\"change\":\"BringBack\",\"share\":\"office\",\"snapshot\":" + snapshot
                + ",\"from\":\"/both\",\"names\":[],\"to\":\"/then\",\"onto\":\"KEEP\",\"bytes\":0}";
        String kept = "{\"change\":\"SetRetention\",\"rule\":{\"share\":\"office\",\"folder\":\"/then\",\"basis\":"
                + "\"CHANGED\",\"length\":\"P9Y\",\"quiet\":\"PT0S\"}}";
        List<Callable<Void>> works = new ArrayList<>(writers(one, other));
        works.add(carriedOut(one, draft(one, clone)));
        works.add(carriedOut(other, draft(other, clone)));
        works.add(carriedOut(one, draft(one, back)));
        works.add(carriedOut(other, draft(other, kept)));
        works.add(jump(one, 1));
        works.add(jump(other, 1));
        atOnce(works);
        allEnds(one);
        assertThat(number("SELECT COUNT(*) FROM {}.estate_object WHERE kind = 'clone' AND gone = 0"))
                .isEqualTo(1);
        assertThat(number("SELECT borrowed_bytes - (SELECT SUM(f.allocated) FROM {}.file f JOIN {}.catalogue c"
                        + " ON c.no = f.catalogue_no WHERE c.name = 'both-then')"
                        + " FROM {}.volume_usage WHERE volume = 'both-then'"))
                .as("it borrows what it shows")
                .isZero();
        assertThat(number("SELECT COUNT(*) FROM {}.snapshot_hold WHERE holder = 'clone both-then'"
                        + " AND volume = 'office'"))
                .isEqualTo(1);
    }

    /** A tree that takes some seconds to read. */
    private static long tree(Path root) throws IOException {
        long files = 0;
        for (int folder = 0; folder < 150; folder++) {
            Path made = Files.createDirectories(root.resolve("f" + folder / 10).resolve("g" + folder));
            for (int i = 0; i < 40; i++, files++) {
                Files.writeString(made.resolve("file-" + i + ".txt"), "x".repeat(i));
            }
        }
        return files;
    }

    @Test
    void sixty_days_passed_by_two_nodes_at_once_are_the_days_that_one_passes() throws Exception {
        Path apart = Files.createDirectories(data.resolve("apart"));
        try (CrashRig one = new CrashRig(data, "vastshelf_two_jump");
                CrashRig other = one.beside();
                CrashRig alone = new CrashRig(apart, "vastshelf_one_jump")) {
            atOnce(List.of(start(one), start(other), start(alone)));
            atOnce(List.of(jump(one, 24 * 30), jump(other, 24 * 30), jump(alone, 24 * 60)));
        }
        List<String> days = days("vastshelf_two_jump");
        assertThat(days).hasSizeGreaterThan(60 * 15);
        List<String> others = new ArrayList<>(days);
        others.removeAll(days("vastshelf_one_jump"));
        assertThat(others).isEmpty();
    }

    private static List<String> days(String database) {
        return App.bean(DSLContext.class)
                .fetch("SELECT kind, space, day, used_bytes FROM " + database
                        + ".space_history WHERE day > '2026-03-01' ORDER BY 1, 2, 3")
                .map(row -> row.get(0) + " " + row.get(1) + " " + row.get(2) + " " + row.get(3));
    }

    private static void isReadByTheOther(long files) throws InterruptedException {
        awaited(
                "SELECT COUNT(*) FROM {}.catalogue WHERE name = 'woods' AND state = 'COMPLETE' AND files = " + files,
                "the scan is ended by the node that lives");
    }

    private static void awaited(String one, String what) throws InterruptedException {
        for (int i = 0; i < 900 && number(one) == 0; i++) {
            Thread.sleep(100);
        }
        assertThat(number(one)).as(what).isEqualTo(1);
    }

    /** Lets a node measure what the other was told to read, as soon as that is known. */
    private static void measured(CrashRig node) throws Exception {
        int status = 0;
        for (int i = 0; i < 600 && status != 202; i++) {
            Thread.sleep(100);
            status = node.send("POST", "/api/v1/catalogues/twins/savings", MEASURED)
                    .statusCode();
        }
        assertThat(status).isEqualTo(202);
    }

    /** Files of which every two are the same. */
    private static Path twins(Path root) throws IOException {
        Files.createDirectories(root);
        byte[] some = new byte[262_144];
        for (int i = 0; i < 20; i++) {
            new SplittableRandom(i / 2).nextBytes(some);
            Files.write(root.resolve("twin-" + i), some);
        }
        return root;
    }

    private void everythingAgrees(CrashRig node) throws Exception {
        long held = number("SELECT SUM(f.bytes) FROM {}.file f JOIN {}.folder d ON d.catalogue_no = f.catalogue_no"
                + " AND d.no = f.folder_no JOIN {}.catalogue c ON c.no = d.catalogue_no"
                + " WHERE d.path = '/both' AND c.name = 'office'");
        assertThat(held).isPositive().isLessThanOrEqualTo(STOP);
        assertThat(number("SELECT used_bytes FROM {}.account WHERE rule_key = 'office:/both'"))
                .isEqualTo(held);
        assertThat(number("SELECT COUNT(*) FROM {}.catalogue c JOIN {}.folder d ON d.catalogue_no = c.no AND d.no = 0"
                        + " WHERE d.sum_bytes <> (SELECT SUM(f.bytes) FROM {}.file f WHERE f.catalogue_no = c.no)"))
                .isZero();
        assertThat(number("SELECT COUNT(*) FROM {}.folder d JOIN {}.folder p ON p.catalogue_no = d.catalogue_no"
                        + " AND p.no = d.parent_no WHERE d.no <> 0 AND d.path <> CONCAT(IF(p.no = 0, '', p.path), '/',"
                        + " SUBSTRING_INDEX(d.path, '/', -1))"))
                .as("folders whose path is not below their parent's")
                .isZero();
        assertThat(number("SELECT COUNT(*) FROM {}.file f LEFT JOIN {}.folder d ON d.catalogue_no = f.catalogue_no"
                        + " AND d.no = f.folder_no WHERE d.no IS NULL"))
                .as("files in no folder")
                .isZero();
        assertThat(number("SELECT COUNT(*) FROM {}.held_block WHERE volume = 'office'"))
                .isPositive();
        assertThat(node.post("/api/v1/snapshots/looks", ""))
                .as("snapshots that are not as counted")
                .isEqualTo("[]");
        assertThat(number("SELECT COUNT(*) FROM {}.agenda WHERE tries > 0")).isZero();
        assertThat(number("SELECT COUNT(*) - COUNT(DISTINCT recipient, subject, body, at) FROM {}.notice"))
                .isZero();
        assertThat(json.readTree(node.get("/api/v1/audit-lines/verification"))
                        .path("whole")
                        .asBoolean())
                .isTrue();
    }
}
