package org.vastshelf.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.ByteArrayInputStream;
import java.io.InputStream;
import java.util.Random;
import org.vastshelf.app.content.FileBytes;
import org.vastshelf.app.road.FileRoad;
import org.vastshelf.app.road.TreeRoad;
import org.vastshelf.app.road.Workstations;
import org.vastshelf.app.store.EstateStore;
import org.vastshelf.core.content.Contents;
import org.vastshelf.core.estate.FilePath;
import org.vastshelf.core.gate.FileOperation;
import org.vastshelf.core.gate.FileOperation.Kind;
import org.vastshelf.core.unit.Bytes;
import tools.jackson.databind.JsonNode;

/** Suki's hand on a share that everybody may write to, on a thin volume of its own and of the same name. */
record ShareHand(String share) {

    private static final FileRoad ROAD = App.bean(FileRoad.class);
    private static final TreeRoad TREES = App.bean(TreeRoad.class);

    /** The changes that make volume and share. */
    String made() {
        return "{\"change\":\"ComposeVolume\",\"volume\":{\"name\":\"" + share
                + "\",\"pool\":\"elm\",\"size\":8589934592,"
                + "\"thin\":true,\"blockSize\":4096,\"alarmPercent\":85,\"kind\":\"GUARDED\",\"encrypted\":false,"
                + "\"pace\":{\"byHand\":false,\"mibps\":0}}},{\"change\":\"OpenShare\",\"share\":{\"name\":\"" + share
                + "\",\"volume\":\"" + share + "\",\"smb\":true,\"nfs\":false,\"hiddenEntries\":true,\"access\":[{"
                + "\"subject\":\"EVERYONE\",\"name\":\"\",\"level\":\"WRITE\"}],\"exports\":[]}}";
    }

    /** The change by which the volume keeps equal blocks once, when that is begun by hand. */
    String keepsEqualBlocksOnce() {
        return "{\"change\":\"SetRule\",\"rule\":{\"rule\":\"SavingRule\",\"volume\":\"" + share
                + "\",\"aim\":\"ONCE\",\"cut\":\"BLOCKS\",\"unitBytes\":4096,\"leastDays\":0,\"exceptKinds\":[],"
                + "\"exceptNames\":[],\"exceptPlaces\":[],\"when\":{\"from\":\"2030-01-01T00:00:00\",\"rule\":"
                + "\"FREQ=DAILY\"},\"hours\":100,\"mibps\":1000}}";
    }

    /** Lets the volume do what its saving rule says, by hours that pass, until that is through. */
    JsonNode spare() {
        String saving = "/api/v1/volumes/" + share + "/saving";
        App.Reply begun = App.post("odile", saving + "/begin", "");
        assertThat(begun.status()).as(begun.text()).isEqualTo(202);
        for (int i = 0; i < 20; i++) {
            App.post("odile", "/api/v1/time", "{\"hours\":1}");
            JsonNode run = App.get("odile", saving).json().path("runs").get(0);
            if (!run.path("state").asString().equals("RUNNING")) {
                return run;
            }
        }
        throw new AssertionError("the run does not end");
    }

    TreeRoad.At at(String path) {
        return new TreeRoad.At(share, new FilePath(path));
    }

    FileOperation operation(Kind kind, String path, long bytes) {
        return new FileOperation(
                kind,
                "suki",
                share,
                new FilePath(path),
                Bytes.of(bytes),
                Workstations.of(App.bean(EstateStore.class).load().shares().get(share), "suki"));
    }

    void save(String path, byte[] bytes) {
        assertThat(ROAD.save(operation(Kind.WRITE, path, 0), () -> new ByteArrayInputStream(bytes))
                        .allowed())
                .isTrue();
    }

    /** What a stand-in client saves, which makes the bytes. */
    void saveMade(String path, long bytes) {
        assertThat(ROAD.perform(operation(Kind.WRITE, path, bytes)).allowed()).isTrue();
    }

    void edit(String path, long at, byte... bytes) {
        assertThat(ROAD.edit(operation(Kind.EDIT, path, 0), at, () -> new ByteArrayInputStream(bytes))
                        .allowed())
                .isTrue();
    }

    void copy(String from, String to) {
        assertThat(TREES.copy("suki", at(from), at(to)).allowed()).isTrue();
    }

    void remove(String path) {
        assertThat(ROAD.perform(operation(Kind.DELETE, path, 0)).allowed()).isTrue();
    }

    Contents contents(String path) {
        return ROAD.perform(operation(Kind.READ, path, 0)).contents().orElseThrow();
    }

    byte[] read(String path) throws Exception {
        return part(path, 0, Math.toIntExact(contents(path).length()));
    }

    byte[] part(String path, long from, int length) throws Exception {
        try (InputStream in = App.bean(FileBytes.class).open(contents(path), from, length)) {
            return in.readAllBytes();
        }
    }

    static byte[] random(int length, long seed) {
        byte[] bytes = new byte[length];
        new Random(seed).nextBytes(bytes);
        return bytes;
    }
}
