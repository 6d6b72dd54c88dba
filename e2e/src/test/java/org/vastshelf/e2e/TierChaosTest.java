package org.vastshelf.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashSet;
import java.util.List;
import java.util.Random;
import java.util.Set;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import org.jooq.DSLContext;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.api.parallel.Execution;
import org.junit.jupiter.api.parallel.ExecutionMode;

/**
 * Kills an application again and again while files leave, come back and are written to. Afterwards each file is what
 * somebody saved, each object is there that a file needs, and none is that nobody knows. More rounds by ./shelf bench
 * tiering.
 */
@Execution(ExecutionMode.CONCURRENT)
class TierChaosTest {

    private static final Pattern UNFINISHED = Pattern.compile(".*-[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}");
    private static final int ROUNDS = Integer.getInteger("vastshelf.tiering", 2);
    private static final long SEED = Long.getLong("vastshelf.seed", 20_260_302L);
    private static final String DATABASE = "vastshelf_tiering";
    private static final int FILES = 24;
    private static final String FOLDER = "/shelf/files/";

    static final String SHARE =
            "{\"change\":\"ComposeVolume\",\"volume\":{\"name\":\"reeds\",\"pool\":\"elm\",\"size\":8589934592,"
                    + "\"thin\":true,\"blockSize\":4096,\"alarmPercent\":85,\"kind\":\"GUARDED\",\"encrypted\":false,"
                    + "\"pace\":{\"byHand\":false,\"mibps\":0}}},{\"change\":\"OpenShare\",\"share\":{\"name\":\"reeds\","
                    + "\"volume\":\"reeds\",\"smb\":true,\"nfs\":false,\"hiddenEntries\":true,\"access\":[{\"subject\":"
                    + "\"EVERYONE\",\"name\":\"\",\"level\":\"WRITE\"}],\"exports\":[]}},{\"change\":\"SetTiering\","
                    + "\"rule\":{\"name\":\"aging\",\"rank\":1,\"store\":\"peat\",\"places\":[{\"share\":\"reeds\","
                    + "\"folder\":\"/\"}],\"by\":\"LAST_CHANGE\",\"olderThanDays\":1,\"largerThanBytes\":0,\"kinds\":[],"
                    + "\"exceptPlaces\":[],\"exceptPeople\":[],\"keepBelow\":null,\"back\":{\"manner\":\"ON_WRITE\","
                    + "\"reads\":0,\"withinDays\":0},\"when\":null,\"hours\":0,\"mibps\":0,\"mostBytes\":0,"
                    + "\"keepDays\":0}}";

    @TempDir
    Path data;

    private final Random random = new Random(SEED);
    private final ChaosFiles files = new ChaosFiles("reeds", FILES, random, this::text);

    @Test
    void each_file_is_whole_and_each_object_known_whenever_it_is_killed() throws Exception {
        try (CrashRig rig = new CrashRig(data, DATABASE, "--vastshelf.traffic=false")) {
            rig.start();
            orders(rig);
            for (int round = 0; round < ROUNDS; round++) {
                round(rig);
                System.out.println("tiering " + (round + 1) + " of " + ROUNDS);
            }
        } finally {
            App.bean(DSLContext.class).execute("DROP DATABASE IF EXISTS " + DATABASE);
        }
    }

    private static void orders(CrashRig rig) throws Exception {
        rig.post("/api/v1/orders", "{\"changes\":[" + SHARE + "]}");
        rig.post("/api/v1/orders/1/carry-out", "");
        rig.post("/api/v1/time", "{\"hours\":1}");
        assertThat(rig.order(1, "DONE")).contains("\"state\":\"DONE\"");
    }

    private void round(CrashRig rig) throws Exception {
        files.saveSome(rig);
        rig.post("/api/v1/time", "{\"hours\":30}");
        List<ChaosFiles.Request> requests = new ArrayList<>();
        requests.add(() -> rig.post("/api/v1/tiering/rules/aging/runs", ""));
        for (int i = 0; i < 8; i++) {
            requests.add(request(rig, files.any(), random.nextInt(5)));
        }
        files.killAmong(rig, requests);
        rig.start();
        check(rig);
    }

    private String text() {
        char[] text = new char[1 + random.nextInt(400_000)];
        Arrays.fill(text, (char) ('a' + random.nextInt(26)));
        return new String(text) + random.nextLong();
    }

    private ChaosFiles.Request request(CrashRig rig, String name, int what) {
        return switch (what) {
            case 0, 1 -> files.save(rig, name);
            case 2, 3 -> () -> rig.post("/api/v1/tiering/recalls", "{\"share\":\"reeds\",\"path\":\"" + name + "\"}");
            default -> () -> rig.get(files.contents(name));
        };
    }

    /** The run comes to its end, and then all is as it has to be. */
    private void check(CrashRig rig) throws Exception {
        for (int i = 0; i < 900 && rig.get("/api/v1/tiering/rules/aging/runs").contains("\"RUNNING\""); i++) {
            Thread.sleep(100);
        }
        assertThat(rig.get("/api/v1/tiering/rules/aging/runs")).doesNotContain("\"RUNNING\"");
        files.areWhole(rig);
        Set<String> known = new HashSet<>();
        for (int i = 0; i < 300; i++) {
            known = new HashSet<>(App.bean(DSLContext.class)
                    .fetch("SELECT object_key FROM " + DATABASE + ".cold_object WHERE state = 'HELD'")
                    .getValues(0, String.class));
            if (objects().equals(known) && uses() == known.size()) {
                return;
            }
            Thread.sleep(100);
        }
        assertThat(objects())
                .as("objects that are there, and those that are known")
                .isEqualTo(known);
        assertThat(uses()).as("each is read by a file").isEqualTo(known.size());
    }

    private static long uses() {
        return App.bean(DSLContext.class)
                .fetchSingle("SELECT COUNT(*) FROM " + DATABASE + ".file WHERE LEFT(extents, 2) = X'017F'")
                .get(0, Long.class);
    }

    private Set<String> objects() throws IOException {
        return FilesBelow.in(data).stream()
                .map(Path::toString)
                .filter(path -> path.contains(FOLDER))
                // What the stand-in was writing when it was killed too is none of its objects.
                .filter(path -> !UNFINISHED.matcher(path).matches())
                .map(path -> path.substring(path.indexOf(FOLDER) + FOLDER.indexOf("files/")))
                .collect(Collectors.toSet());
    }
}
