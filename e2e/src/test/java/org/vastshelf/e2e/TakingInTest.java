package org.vastshelf.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.ByteArrayInputStream;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Random;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import java.util.concurrent.atomic.AtomicBoolean;
import org.jooq.DSLContext;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.vastshelf.app.common.CommonCheck;
import org.vastshelf.app.common.CommonSweep;
import org.vastshelf.app.road.FileRoad;
import org.vastshelf.app.road.NotThere;
import org.vastshelf.app.road.Taken;
import org.vastshelf.app.road.TreeRoad;
import org.vastshelf.app.snapshot.HoldCheck;
import org.vastshelf.app.store.UsageStore;
import org.vastshelf.core.estate.FilePath;
import org.vastshelf.core.estate.Usage;
import org.vastshelf.core.gate.FileOperation.Kind;
import tools.jackson.databind.JsonNode;

/** What equal files have in common is kept once, and every figure goes on being right to the byte. */
class TakingInTest {

    private static final DSLContext DB = App.bean(DSLContext.class);
    private static final FileRoad ROAD = App.bean(FileRoad.class);
    private static final TreeRoad TREES = App.bean(TreeRoad.class);
    private static final int BLOCK = 4_096;

    private static final ShareHand CARR = new ShareHand("carr");

    @BeforeAll
    static void share() {
        Drafts.carryOut(CARR.made());
    }

    private static void rule(String aim, String cut) {
        Drafts.carryOut(setRule(aim, cut));
    }

    private static String setRule(String aim, String cut) {
        return "{\"change\":\"SetRule\",\"rule\":{\"rule\":\"SavingRule\",\"volume\":\"carr\",\"aim\":\"" + aim
                + "\",\"cut\":\"" + cut + "\",\"unitBytes\":4096,\"leastDays\":0,\"exceptKinds\":[],"
                + "\"exceptNames\":[\"*.raw\"],\"exceptPlaces\":[{\"share\":\"carr\",\"folder\":\"/stays\"}],"
                + "\"when\":{\"from\":\"2030-01-01T00:00:00\",\"rule\":\"FREQ=DAILY\"},\"hours\":100,\"mibps\":1000}}";
    }

    @BeforeEach
    void empty() {
        for (JsonNode snapshot :
                App.get("odile", "/api/v1/volumes/carr/snapshots").json()) {
            delete(snapshot.path("number").asInt());
        }
        for (String folder : List.of("/a", "/b", "/stays")) {
            try {
                TREES.removeFolder("suki", CARR.at(folder));
            } catch (NotThere notThere) {
                assertThat(notThere).isNotNull();
            }
            TREES.makeFolder("suki", CARR.at(folder));
        }
        settled();
    }

    @AfterEach
    void whole() {
        settled();
    }

    /** All that was noted is counted, and whatever is counted twice comes to the same. */
    private static void settled() {
        App.bean(CommonSweep.class).sweep();
        assertThat(App.bean(CommonCheck.class).look()).isEmpty();
        assertThat(App.bean(HoldCheck.class).look()).isEmpty();
        long live = DB.fetchSingle("SELECT COALESCE(SUM(allocated), 0) FROM file JOIN catalogue ON no = catalogue_no"
                        + " WHERE catalogue.name = 'carr'")
                .get(0, Long.class);
        assertThat(held().live().value()).isEqualTo(live);
        long sums = DB.fetchSingle("SELECT COALESCE(SUM(sum_allocated), 0) FROM folder JOIN catalogue ON"
                        + " catalogue.no = catalogue_no WHERE catalogue.name = 'carr' AND depth = 0")
                .get(0, Long.class);
        assertThat(sums).isEqualTo(live);
    }

    private static Usage.Held held() {
        return App.bean(UsageStore.class).load().of("carr");
    }

    private static void remove(String path) {
        CARR.remove(path);
        App.bean(CommonSweep.class).sweep();
    }

    private static int snapshot() {
        App.Reply reply = App.post("odile", "/api/v1/volumes/carr/snapshots", "{\"name\":\"\"}");
        assertThat(reply.status()).as(reply.text()).isLessThan(300);
        JsonNode all = App.get("odile", "/api/v1/volumes/carr/snapshots").json();
        return all.get(all.size() - 1).path("number").asInt();
    }

    private static void delete(int snapshot) {
        assertThat(App.post("odile", "/api/v1/volumes/carr/snapshots/delete", "{\"numbers\":[" + snapshot + "]}")
                        .status())
                .isLessThan(300);
    }

    /** What a run came to. */
    private static JsonNode run() {
        App.Reply begun = App.post("odile", "/api/v1/volumes/carr/saving/begin", "");
        assertThat(begun.status()).as(begun.text()).isEqualTo(202);
        for (int i = 0; i < 20; i++) {
            App.post("odile", "/api/v1/time", "{\"hours\":1}");
            JsonNode run = saving().path("runs").get(0);
            if (!run.path("state").asString().equals("RUNNING")) {
                return run;
            }
        }
        throw new AssertionError("the run does not end: " + saving());
    }

    private static JsonNode saving() {
        return App.get("odile", "/api/v1/volumes/carr/saving").json();
    }

    private static void awaitPruned() throws InterruptedException {
        for (int i = 0; i < 300; i++) {
            App.bean(CommonSweep.class).sweep();
            if (held().common().kept().isZero()) {
                return;
            }
            Thread.sleep(100);
        }
        throw new AssertionError("still kept: " + held());
    }

    @Test
    void equal_files_are_kept_once_and_the_last_that_goes_frees_them() throws Exception {
        byte[] bytes = ShareHand.random(10 * BLOCK + 5, 1);
        CARR.save("/a/one.bin", bytes);
        CARR.copy("/a/one.bin", "/a/two.bin");
        CARR.copy("/a/one.bin", "/a/three.raw");
        CARR.copy("/a/one.bin", "/stays/four.bin");
        long file = 11 * BLOCK;
        assertThat(held().live().value()).isEqualTo(4 * file);
        rule("ONCE", "BLOCKS");

        JsonNode run = run();

        assertThat(run.path("state").asString()).isEqualTo("DONE");
        assertThat(run.path("files").asInt()).isEqualTo(2);
        assertThat(held().live().value()).as("by name and by folder two stay").isEqualTo(2 * file);
        assertThat(held().common().kept().value()).isEqualTo(bytes.length);
        assertThat(held().common().whole().value()).isEqualTo(2 * file);
        assertThat(run.path("saved").asLong()).isEqualTo(2 * file - bytes.length);
        assertThat(held().used().value()).isEqualTo(2 * file + bytes.length);
        assertThat(CARR.read("/a/one.bin")).isEqualTo(bytes);
        assertThat(saving().path("savedBytes").asLong()).isEqualTo(2 * file - bytes.length);

        remove("/a/one.bin");
        assertThat(held().common().kept().value())
                .as("the other has them still")
                .isEqualTo(bytes.length);
        assertThat(CARR.read("/a/two.bin")).isEqualTo(bytes);
        remove("/a/two.bin");
        assertThat(held().common()).isEqualTo(Usage.Common.NOTHING);
    }

    @Test
    void what_is_written_to_gets_blocks_of_its_own() throws Exception {
        byte[] bytes = ShareHand.random(20 * BLOCK, 2);
        CARR.save("/a/one.bin", bytes);
        CARR.copy("/a/one.bin", "/a/two.bin");
        CARR.copy("/a/one.bin", "/a/three.bin");
        rule("ONCE", "BLOCKS");
        run();

        CARR.save("/a/two.bin", ShareHand.random(BLOCK, 3));
        CARR.edit("/a/three.bin", BLOCK, (byte) 1, (byte) 2, (byte) 3);
        App.bean(CommonSweep.class).sweep();

        assertThat(held().live().value()).isEqualTo(21 * BLOCK);
        assertThat(held().common().kept().value()).isEqualTo(20 * BLOCK);
        byte[] edited = bytes.clone();
        System.arraycopy(new byte[] {1, 2, 3}, 0, edited, BLOCK, 3);
        assertThat(CARR.read("/a/three.bin")).isEqualTo(edited);
        assertThat(CARR.read("/a/one.bin")).isEqualTo(bytes);
        run();
        assertThat(held().common().kept().value())
                .as("of the edited one a block is new, and of the small one its own")
                .isEqualTo(22 * BLOCK);
        assertThat(held().live().isZero()).isTrue();
    }

    @Test
    void snapshots_keep_them_as_long_as_they_show_a_file_that_has_them() throws Exception {
        byte[] bytes = ShareHand.random(8 * BLOCK, 4);
        CARR.save("/a/one.bin", bytes);
        int before = snapshot();
        CARR.copy("/a/one.bin", "/b/two.bin");
        rule("ONCE", "BLOCKS");
        run();
        assertThat(held().used().value()).as("a snapshot shows it too").isEqualTo(8 * BLOCK);
        int after = snapshot();
        TREES.move("suki", CARR.at("/b/two.bin"), new FilePath("/b/three.bin"));
        TREES.move("suki", CARR.at("/b"), new FilePath("/a/moved"));
        remove("/a/one.bin");
        settled();
        assertThat(held().used().value()).isEqualTo(8 * BLOCK);

        TREES.removeFolder("suki", CARR.at("/a"));
        settled();
        assertThat(held().used().value()).as("both snapshots have it").isEqualTo(8 * BLOCK);
        delete(after);
        settled();
        assertThat(held().common().kept().value()).isEqualTo(8 * BLOCK);
        delete(before);
        awaitPruned();
        assertThat(held().used().isZero()).isTrue();
    }

    @Test
    void undoing_it_gives_each_file_its_blocks_and_past_ones_theirs() throws Exception {
        byte[] bytes = ShareHand.random(8 * BLOCK, 5);
        CARR.save("/a/one.bin", bytes);
        CARR.copy("/a/one.bin", "/a/two.bin");
        CARR.copy("/a/one.bin", "/a/three.bin");
        rule("BOTH", "CONTENTS");
        run();
        snapshot();
        remove("/a/three.bin");
        assertThat(held().live().isZero()).isTrue();
        assertThat(held().snapshots().isZero()).isTrue();
        rule("NOTHING", "CONTENTS");

        run();

        assertThat(held().live().value()).isEqualTo(16 * BLOCK);
        assertThat(held().snapshots().value())
                .as("the one that only a snapshot has")
                .isEqualTo(8 * BLOCK);
        assertThat(held().common()).isEqualTo(Usage.Common.NOTHING);
        assertThat(CARR.read("/a/two.bin")).isEqualTo(bytes);
    }

    @Test
    void what_can_be_packed_takes_less_and_is_given_back_whole() {
        CARR.saveMade("/a/words.txt", 3_000_000);
        long alone = held().live().value();
        rule("PACKED", "BLOCKS");
        run();
        assertThat(held().used().value()).isLessThan(alone * 3 / 4).isPositive();
        CARR.copy("/a/words.txt", "/a/more.txt");
        run();
        long two = held().used().value();
        assertThat(two)
                .as("packed, and not shared")
                .isEqualTo(held().common().kept().value());
        remove("/a/more.txt");
        assertThat(held().used().value()).isEqualTo(two / 2);
    }

    @Test
    void a_clone_shares_them_and_has_its_own_when_it_is_made_independent() throws Exception {
        byte[] bytes = ShareHand.random(8 * BLOCK, 8);
        CARR.save("/a/one.bin", bytes);
        CARR.copy("/a/one.bin", "/a/two.bin");
        rule("ONCE", "BLOCKS");
        run();
        int number = snapshot();
        Drafts.carryOut("{\"change\":\"MakeClone\",\"volume\":\"carr\",\"snapshot\":" + number
                + ",\"name\":\"carr-then\",\"ofCopy\":false}");
        Usage.Held clone = App.bean(UsageStore.class).load().of("carr-then");
        assertThat(clone.live().value()).as("what it shows").isEqualTo(16 * BLOCK);
        assertThat(clone.used().isZero()).isTrue();
        App.Reply refused = App.post(
                "odile",
                "/api/v1/orders",
                "{\"changes\":[" + setRule("ONCE", "BLOCKS").replace("\"carr\",\"aim", "\"carr-then\",\"aim") + "]}");
        assertThat(refused.text()).contains("make it independent first");
        Drafts.carryOut("{\"change\":\"SeparateClone\",\"name\":\"carr-then\"}");
        assertThat(App.bean(UsageStore.class).load().of("carr-then").used().value())
                .isEqualTo(16 * BLOCK);
        assertThat(held().used().value()).isEqualTo(8 * BLOCK);
    }

    @Test
    void people_go_on_while_files_are_taken_in_and_given_back() throws Exception {
        for (int i = 0; i < 40; i++) {
            CARR.saveMade("/a/" + i + ".bin", 50_000 + i % 5);
        }
        AtomicBoolean over = new AtomicBoolean();
        try (ExecutorService people = Executors.newFixedThreadPool(4)) {
            List<Future<?>> all = new ArrayList<>();
            for (int who = 0; who < 4; who++) {
                Random lots = new Random(who);
                all.add(people.submit(() -> {
                    while (!over.get()) {
                        act(lots);
                    }
                    return null;
                }));
            }
            for (String aim : List.of("ONCE", "NOTHING", "BOTH", "NOTHING", "ONCE")) {
                rule(aim, "CONTENTS");
                run();
            }
            over.set(true);
            for (Future<?> one : all) {
                one.get();
            }
        }
        settled();
        assertThat(held().common().kept().isZero()).isFalse();
    }

    /** Something that a person does; what is not there any more is nothing new to them. */
    private static void act(Random lots) {
        String some = "/a/" + lots.nextInt(60) + ".bin";
        String other = "/a/" + lots.nextInt(60) + ".bin";
        try {
            switch (lots.nextInt(4)) {
                case 0 -> TREES.copy("suki", CARR.at(some), CARR.at(other));
                case 1 -> TREES.move("suki", CARR.at(some), new FilePath(other));
                case 2 -> ROAD.perform(CARR.operation(Kind.WRITE, some, 1 + lots.nextInt(90_000)));
                default -> ROAD.perform(CARR.operation(Kind.DELETE, some, 0));
            }
        } catch (NotThere | Taken meanwhile) {
            assertThat(meanwhile).hasMessageContaining("/a/");
        }
    }

    @Test
    void whatever_people_do_meanwhile_all_sums_stay_right() throws Exception {
        Random lots = new Random(6);
        rule("ONCE", "BLOCKS");
        List<Integer> snapshots = new ArrayList<>();
        List<String> names = new ArrayList<>(List.of("/a/0.bin"));
        CARR.saveMade("/a/0.bin", 100_000);
        for (int i = 1; i < 60; i++) {
            String some = names.get(lots.nextInt(names.size()));
            String next = (lots.nextBoolean() ? "/a/" : "/b/") + i + ".bin";
            switch (lots.nextInt(9)) {
                case 0 -> CARR.saveMade(some, 1 + lots.nextInt(200_000));
                case 1, 2 -> {
                    CARR.copy(some, next);
                    names.add(next);
                }
                case 3 -> {
                    if (names.size() > 1) {
                        remove(some);
                        names.remove(some);
                    }
                }
                case 4 -> {
                    assertThat(TREES.move("suki", CARR.at(some), new FilePath(next))
                                    .allowed())
                            .isTrue();
                    names.remove(some);
                    names.add(next);
                }
                case 5 -> {
                    byte[] patch = ShareHand.random(1 + lots.nextInt(9_000), i);
                    ROAD.edit(
                            CARR.operation(Kind.EDIT, some, 0),
                            lots.nextInt(100),
                            () -> new ByteArrayInputStream(patch));
                }
                case 6 -> snapshots.add(snapshot());
                case 7 -> {
                    if (!snapshots.isEmpty()) {
                        delete(snapshots.remove(lots.nextInt(snapshots.size())));
                    }
                }
                default -> run();
            }
            if (i % 10 == 0) {
                settled();
            }
        }
        List<byte[]> before = new ArrayList<>();
        for (String name : names) {
            before.add(CARR.read(name));
        }
        run();
        rule("NOTHING", "BLOCKS");
        run();
        settled();
        for (int i = 0; i < names.size(); i++) {
            assertThat(Arrays.equals(CARR.read(names.get(i)), before.get(i)))
                    .as(names.get(i))
                    .isTrue();
        }
    }
}
