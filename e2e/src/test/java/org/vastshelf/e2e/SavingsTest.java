package org.vastshelf.e2e;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.assertj.core.api.Assertions.assertThat;

import com.github.luben.zstd.Zstd;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.file.Files;
import java.nio.file.LinkOption;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import java.util.SplittableRandom;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import net.jpountz.lz4.LZ4Factory;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import tools.jackson.databind.JsonNode;

/** What keeping equal chunks once would spare, measured on real files. */
class SavingsTest {

    private static final int KIB = 1_024;

    private static byte[] random(long seed, int length) {
        byte[] bytes = new byte[length];
        new SplittableRandom(seed).nextBytes(bytes);
        return bytes;
    }

    private static JsonNode bringIn(String name, Path folder) throws Exception {
        App.Reply reply =
                App.post("odile", "/api/v1/catalogues", "{\"name\":\"" + name + "\",\"folder\":\"" + folder + "\"}");
        assertThat(reply.status()).as(reply.text()).isEqualTo(202);
        for (int i = 0; i < 300; i++) {
            JsonNode catalogue = App.get("odile", "/api/v1/catalogues/" + name).json();
            if (!catalogue.path("state").asString().equals("READING")) {
                return catalogue;
            }
            Thread.sleep(50);
        }
        throw new AssertionError("the scan of " + name + " did not end");
    }

    private static String begun(String name, String body) {
        App.Reply reply = App.post("odile", path(name), body);
        assertThat(reply.status()).as(reply.text()).isEqualTo(202);
        return path(name) + "/" + reply.json().path("id").asLong();
    }

    private static String path(String name) {
        return "/api/v1/catalogues/" + name + "/savings";
    }

    private static JsonNode awaited(String run, String state) throws InterruptedException {
        for (int i = 0; i < 600; i++) {
            JsonNode told = App.get("odile", run).json();
            if (told.path("state").asString().equals(state)) {
                return told;
            }
            assertThat(told.path("state").asString()).as(told.toString()).isNotEqualTo("failed");
            Thread.sleep(100);
        }
        throw new AssertionError(App.get("odile", run).text());
    }

    private static long sum(JsonNode groups, String figure) {
        long sum = 0;
        for (JsonNode group : groups) {
            sum += group.path(figure).asLong();
        }
        return sum;
    }

    /** The same by sets of blocks; each file by its inode once, and nothing that is no regular file. */
    private static long[] independent(Path root, int block) throws IOException {
        Set<Object> inodes = new HashSet<>();
        Set<ByteBuffer> blocks = new HashSet<>();
        long files = 0;
        long bytes = 0;
        try (Stream<Path> all = Files.walk(root)) {
            for (Path file : all.filter(f -> Files.isRegularFile(f, LinkOption.NOFOLLOW_LINKS))
                    .toList()) {
                if (!inodes.add(Files.getAttribute(file, "unix:ino"))) {
                    continue;
                }
                byte[] content = Files.readAllBytes(file);
                files++;
                bytes += content.length;
                for (int at = 0; at < content.length; at += block) {
                    blocks.add(ByteBuffer.wrap(Arrays.copyOfRange(content, at, Math.min(content.length, at + block))));
                }
            }
        }
        return new long[] {
            files, bytes, blocks.stream().mapToLong(ByteBuffer::capacity).sum()
        };
    }

    @Test
    void a_real_tree_is_counted_exactly_as_an_independent_count_does() throws Exception {
        Path tree = Files.createTempDirectory(App.TREES, "spare");
        byte[] talk = random(1, 900 * KIB + 17);
        for (int i = 0; i < 5; i++) {
            Path folder = Files.createDirectories(tree.resolve("päper " + i));
            Files.write(folder.resolve("talk.odp"), talk);
            Files.write(folder.resolve("own.bin"), random(100 + i, 300 * KIB));
        }
        byte[] moved = new byte[talk.length + 1];
        System.arraycopy(talk, 0, moved, 1, talk.length);
        Files.write(tree.resolve("moved.odp"), moved);
        Files.write(tree.resolve("empty"), new byte[0]);
        Files.write(tree.resolve("zeros"), new byte[1_000 * KIB]);
        Files.createLink(tree.resolve("again.odp"), tree.resolve("moved.odp"));
        Files.createSymbolicLink(tree.resolve("link.odp"), tree.resolve("moved.odp"));
        assertThat(new ProcessBuilder("mkfifo", tree.resolve("pipe").toString())
                        .start()
                        .waitFor())
                .isZero();
        assertThat(bringIn("spare", tree).path("state").asString()).isEqualTo("COMPLETE");
        for (int block : List.of(4 * KIB, 64 * KIB)) {
            long[] counted = independent(tree, block);
            JsonNode told = awaited(begun("spare", "{\"method\":\"FIXED\",\"blockBytes\":" + block + "}"), "done");
            assertThat(told.path("files").asLong()).isEqualTo(counted[0]);
            assertThat(told.path("bytes").asLong()).isEqualTo(counted[1]);
            assertThat(told.path("uniqueBytes").asLong()).isEqualTo(counted[2]);
            assertThat(told.path("savedBytes").asLong()).isEqualTo(counted[1] - counted[2]);
            assertThat(told.path("standardErrorBytes").asLong()).isZero();
            assertThat(told.path("unreadable").asLong()).isZero();
            JsonNode found = App.get(
                            "odile", path("spare") + "/" + told.path("id").asLong() + "/found")
                    .json();
            for (String by : List.of("kinds", "folders", "ages")) {
                assertThat(sum(found.path(by), "files")).isEqualTo(counted[0]);
                assertThat(sum(found.path(by), "bytes")).isEqualTo(counted[1]);
                assertThat(sum(found.path(by), "repeatedBytes")).isEqualTo(counted[1] - counted[2]);
            }
            JsonNode most = found.path("alike").path(0);
            assertThat(most.path("files").asInt()).isEqualTo(4);
            assertThat(most.path("bytes").asLong()).isEqualTo(4L * talk.length);
            assertThat(most.path("of").asString() + most.path("paths"))
                    .contains("/päper 0/talk.odp", "/päper 4/talk.odp");
        }
        JsonNode byContents =
                awaited(begun("spare", "{\"method\":\"CONTENT_DEFINED\",\"averageBytes\":16384}"), "done");
        assertThat(byContents.path("savedBytes").asLong())
                .as("five of six talks, though one is moved by a byte, and the zeros")
                .isGreaterThan(5L * talk.length - 200 * KIB + 800 * KIB);
        JsonNode sampled =
                awaited(begun("spare", "{\"method\":\"FIXED\",\"blockBytes\":4096,\"sample\":0.25}"), "done");
        assertThat(sampled.path("sample").asDouble()).isEqualTo(0.25);
        long truth = independent(tree, 4 * KIB)[2];
        assertThat(Math.abs(sampled.path("uniqueBytes").asLong() - truth))
                .isLessThan(4 * sampled.path("standardErrorBytes").asLong());
    }

    /** Each backslash of a path is shown as four characters, which makes it longer than any path may be. */
    @Test
    void the_longest_paths_are_told() throws Exception {
        Path tree = Files.createTempDirectory(App.TREES, "deep");
        Path deep = tree;
        for (int i = 0; i < 6; i++) {
            deep = Files.createDirectories(deep.resolve("\\".repeat(240)));
        }
        byte[] bytes = random(11, 100 * KIB);
        Files.write(deep.resolve("a"), bytes);
        Files.write(deep.resolve("b"), bytes);
        bringIn("deep", tree);
        JsonNode told = awaited(begun("deep", "{\"method\":\"FIXED\",\"blockBytes\":4096}"), "done");
        JsonNode found = App.get("odile", path("deep") + "/" + told.path("id").asLong() + "/found")
                .json();
        assertThat(found.path("alike").path(0).path("of").asString())
                .hasSize(6 * (4 * 240 + 1) + 2)
                .endsWith("/a");
        assertThat(found.path("folders").path(0).path("repeatedBytes").asLong()).isEqualTo(100L * KIB);
    }

    /** By the keyboard: chosen, measured, read on the page and in the list. */
    @Test
    void a_folder_is_measured_on_its_page() throws Exception {
        Path tree = Files.createTempDirectory(App.TREES, "twins");
        byte[] twin = random(5, 640 * KIB);
        Files.write(tree.resolve("one.bin"), twin);
        Files.write(tree.resolve("two.bin"), twin);
        bringIn("twins", tree);
        try (Browser browser = new Browser(1280, 800).signIn("odile")) {
            browser.page.navigate("/lighten");
            assertThat(browser.page.locator("main")).containsText("not measured");
            browser.page.locator("a[href='/lighten/catalogues/twins']").focus();
            browser.page.keyboard().press("Enter");
            assertThat(browser.page.locator("h1")).hasText("What could be spared in twins?");
            browser.page.locator("select[name=cut]").selectOption("FIXED_16");
            browser.page.locator("main form button").first().focus();
            browser.page.keyboard().press("Enter");
            assertThat(browser.page.locator("#runs")).containsText("done");
            assertThat(browser.page.locator("#runs tbody tr").first())
                    .containsText(Pattern.compile("blocks of 16 KiB.*640.00 KiB.*50.0 %", Pattern.DOTALL));
            assertThat(browser.page.locator("#runs"))
                    .containsText(Pattern.compile(
                            "kind of file.*other.*640.00 KiB.*Which files share most.*/one.bin.*one file.*/two.bin",
                            Pattern.DOTALL));
            browser.page.navigate("/lighten");
            assertThat(browser.page.locator("#savings")).containsText("640.00 KiB");
            assertThat(browser.errors).isEmpty();
        }
    }

    @ParameterizedTest
    @ValueSource(strings = {"LZ4", "ZSTANDARD"})
    void packing_is_counted_block_by_block(String packing) throws Exception {
        Path tree = Files.createTempDirectory(App.TREES, "packed");
        byte[] prose =
                "Collected on the moor, at the edge of the bog. ".repeat(9_000).getBytes();
        Files.write(tree.resolve("prose.txt"), prose);
        Files.write(tree.resolve("again.txt"), prose);
        Files.write(tree.resolve("noise.bin"), random(7, 200 * KIB + 5));
        Files.write(tree.resolve("zeros.bin"), new byte[100 * KIB]);
        String name = "packed-" + packing.toLowerCase(Locale.ROOT);
        bringIn(name, tree);
        JsonNode run = awaited(
                begun(name, "{\"method\":\"FIXED\",\"blockBytes\":65536,\"packing\":\"" + packing + "\"}"), "done");

        Set<ByteBuffer> seen = new HashSet<>();
        long unique = 0;
        long packed = 0;
        for (String file : List.of("prose.txt", "again.txt", "noise.bin", "zeros.bin")) {
            byte[] bytes = Files.readAllBytes(tree.resolve(file));
            for (int from = 0; from < bytes.length; from += 64 * KIB) {
                byte[] block = Arrays.copyOfRange(bytes, from, Math.min(bytes.length, from + 64 * KIB));
                if (seen.add(ByteBuffer.wrap(block))) {
                    unique += block.length;
                    int length = packing.equals("LZ4")
                            ? LZ4Factory.fastestInstance().fastCompressor().compress(block).length
                            : Zstd.compress(block, 3).length;
                    packed += Math.min(block.length, length);
                }
            }
        }
        assertThat(run.path("uniqueBytes").asLong()).isEqualTo(unique);
        assertThat(run.path("packedBytes").asLong()).isEqualTo(packed).isLessThan(unique / 2);
        assertThat(run.path("packing").asString()).isEqualTo(packing);
    }

    @Test
    void what_is_stopped_goes_on_where_it_was_and_comes_to_the_same() throws Exception {
        Path tree = Files.createTempDirectory(App.TREES, "rest");
        for (int i = 0; i < 40; i++) {
            Files.write(tree.resolve("f" + i), random(i / 2, 256 * KIB));
        }
        bringIn("rest", tree);
        String run = begun("rest", "{\"method\":\"FIXED\",\"blockBytes\":4096,\"mibps\":2}");
        Thread.sleep(1_500);
        assertThat(App.post("odile", run + "/stop", "").status()).isEqualTo(200);
        JsonNode stopped = awaited(run, "stopped");
        Thread.sleep(1_500);
        stopped = App.get("odile", run).json();
        assertThat(stopped.path("problem").asString()).isEqualTo("somebody stopped it");
        assertThat(stopped.path("files").asLong()).isBetween(1L, 39L);
        assertThat(App.post("odile", run + "/go-on", "").status()).isEqualTo(200);
        JsonNode done = awaited(run, "done");
        assertThat(done.path("files").asLong()).isEqualTo(40);
        assertThat(done.path("uniqueBytes").asLong()).isEqualTo(20L * 256 * KIB);
        assertThat(App.post("odile", run + "/go-on", "").status()).isEqualTo(400);
        JsonNode timed = awaited(
                begun("rest", "{\"method\":\"FIXED\",\"blockBytes\":4096,\"mibps\":1,\"seconds\":2}"), "stopped");
        assertThat(timed.path("problem").asString()).isEqualTo("its time is up");
    }

    /** What was read of a file before it was stopped is not counted twice. */
    @Test
    void a_large_file_is_stopped_in_its_middle_and_counted_once() throws Exception {
        Path tree = Files.createTempDirectory(App.TREES, "large");
        Files.write(tree.resolve("a.bin"), random(8, 24 << 20));
        bringIn("large", tree);
        String run = begun("large", "{\"method\":\"FIXED\",\"blockBytes\":65536,\"mibps\":8}");
        Thread.sleep(1_300);
        App.post("odile", run + "/stop", "");
        assertThat(awaited(run, "stopped").path("bytes").asLong()).isZero();
        App.post("odile", run + "/go-on", "");
        JsonNode done = awaited(run, "done");
        assertThat(done.path("bytes").asLong()).isEqualTo(24 << 20);
        assertThat(done.path("uniqueBytes").asLong()).isEqualTo(24 << 20);
    }

    @Test
    void what_can_not_be_measured_is_said_at_its_place() throws Exception {
        assertThat(App.get("odile", "/api/v1/catalogues/nowhere").status()).isEqualTo(404);
        assertThat(App.post("odile", path("nowhere"), "{\"method\":\"FIXED\",\"blockBytes\":4096}")
                        .status())
                .isEqualTo(404);
        Path tree = Files.createTempDirectory(App.TREES, "unmeasured");
        bringIn("unmeasured", tree);
        for (String[] wrong : new String[][] {
            {"{}", "method is missing"},
            {"{\"method\":\"FIXED\"}", "blockBytes is missing"},
            {"{\"method\":\"FIXED\",\"blockBytes\":1000}", "blockBytes is 1000, must be a power of two from 512"},
            {"{\"method\":\"FIXED\",\"averageBytes\":4096}", "averageBytes is 4096, means nothing with FIXED"},
            {"{\"method\":\"CONTENT_DEFINED\",\"averageBytes\":4096,\"sample\":0}", "sample is 0.0, must be"},
            {"{\"method\":\"CONTENT_DEFINED\",\"averageBytes\":4096,\"mibps\":-1}", "mibps is -1, must be 0 to"}
        }) {
            App.Reply reply = App.post("odile", path("unmeasured"), wrong[0]);
            assertThat(reply.status()).as(reply.text()).isEqualTo(400);
            assertThat(reply.text()).contains(wrong[1]);
        }
        JsonNode nothing = awaited(begun("unmeasured", "{\"method\":\"FIXED\",\"blockBytes\":4096}"), "done");
        assertThat(nothing.path("bytes").asLong()).isZero();
        assertThat(App.get("odile", path("unmeasured") + "/999999").status()).isEqualTo(404);
        assertThat(App.post("suki", path("unmeasured"), "{\"method\":\"FIXED\",\"blockBytes\":4096}")
                        .status())
                .isEqualTo(403);
    }
}
