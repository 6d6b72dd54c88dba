package org.vastshelf.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.io.StringReader;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.Executors;
import java.util.concurrent.TimeUnit;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import org.vastshelf.app.catalogue.CatalogueStore;
import org.vastshelf.app.catalogue.CatalogueStore.Catalogue;
import org.vastshelf.app.catalogue.CatalogueStore.ScanState;
import org.vastshelf.app.catalogue.PathBytes;
import org.vastshelf.app.catalogue.SurveyStore;
import org.vastshelf.app.folder.CatalogueCsv;

/** Real folders with everything that real folders hold. */
class ScanTest {

    private static final CatalogueStore CATALOGUES = App.bean(CatalogueStore.class);

    private static Catalogue bringIn(String name, Path folder) throws InterruptedException {
        App.Reply reply =
                App.post("odile", "/api/v1/catalogues", "{\"name\":\"" + name + "\",\"folder\":\"" + folder + "\"}");
        assertThat(reply.status()).as(reply.text()).isEqualTo(202);
        return await(name);
    }

    private static Catalogue await(String name) throws InterruptedException {
        for (int i = 0; i < 300; i++) {
            Catalogue catalogue = CATALOGUES.find(name).orElseThrow();
            if (catalogue.state() != ScanState.READING) {
                return catalogue;
            }
            Thread.sleep(100);
        }
        throw new AssertionError("the scan of " + name + " did not end");
    }

    private static void shell(Path folder, String script) throws IOException, InterruptedException {
        Process process = new ProcessBuilder("bash", "-c", script)
                .directory(folder.toFile())
                .inheritIO()
                .start();
        assertThat(process.waitFor(60, TimeUnit.SECONDS)).isTrue();
        assertThat(process.exitValue()).isZero();
    }

    @Test
    void odd_names_links_and_sparse_files_are_kept_as_they_are() throws Exception {
        Path tree = Files.createDirectory(App.TREES.resolve("odd"));
        shell(tree, """
                mkdir deep; printf 12345 > deep/plain.txt; ln deep/plain.txt deep/again.txt; ln -s /etc/passwd link
                printf x > $'new\\nline\\tand tab'; printf yy > $'bad\\xff\\xfename.pdf'; printf zzz > 'grün.jpg'
                truncate -s 1G sparse.bin
                d=$(printf 'n%.0s' {1..250}); for i in 1 2 3 4 5 6 7 8 9 10 11 12 13 14 15; do mkdir $d; cd $d; done; printf q > last
                """);
        Catalogue catalogue = bringIn("odd", tree);
        assertThat(catalogue.state()).isEqualTo(ScanState.COMPLETE);
        assertThat(catalogue.files()).isEqualTo(8);
        long link = Files.readSymbolicLink(tree.resolve("link")).toString().length();
        assertThat(catalogue.bytes()).isEqualTo(5 + 1 + 2 + 3 + (1L << 30) + 1 + link);
        var root = CATALOGUES.folder(catalogue.no(), PathBytes.of("/")).orElseThrow();
        assertThat(root.bytes()).isEqualTo(catalogue.bytes());
        assertThat(root.allocated()).isLessThan(1L << 20);
        assertThat(CATALOGUES.file(catalogue.no(), 0, "bad\u00ff\u00fename.pdf".getBytes(StandardCharsets.ISO_8859_1)))
                .isPresent();
        assertThat(CATALOGUES.files(catalogue.no(), root, 99).stream().map(CatalogueStore.FileEntry::name))
                .contains("new\\x0Aline\\x09and tab", "grün.jpg", "bad\\xFF\\xFEname.pdf", "link");
        assertThat(App.bean(SurveyStore.class).largestFolders(catalogue.no(), 99))
                .anySatisfy(f -> assertThat(f.path().length).isGreaterThan(3_700));
    }

    @Test
    void figures_agree_with_the_tree_and_survive_a_round_trip_through_csv() throws Exception {
        Path tree = Files.createDirectory(App.TREES.resolve("round"));
        shell(
                tree,
                "for d in a a/b c; do mkdir -p $d; for i in 1 2 3; do head -c $((i * 1000)) /dev/zero > $d/f$i.tif; done; done;"
                        + " touch './=1+1.tif' \"it's, \\\"said\\\".tif\" \"$(printf 'two\\nlines.tif')\"");
        Catalogue scanned = bringIn("round", tree);
        assertThat(scanned.bytes()).isEqualTo(18_000);
        assertThat(CATALOGUES
                        .folder(scanned.no(), PathBytes.of("/a"))
                        .orElseThrow()
                        .bytes())
                .isEqualTo(12_000);
        try (Browser browser = new Browser(1280, 800).signIn("odile")) {
            String csv = browser.page
                    .context()
                    .request()
                    .get("/look/folders/round/files.csv")
                    .text();
            browser.page.navigate("/look/folders");
            importCsv(browser, "copy", csv.replaceFirst(",1000,", ",many,"));
            assertThat(browser.page.locator("[role=alert]").textContent())
                    .isEqualTo("line 5: bytes is 'many', must be a number of bytes, at least 0");
            assertThat(CATALOGUES.find("copy")).isEmpty();
            csv = csv.replaceAll(",[^,\"]+,[^,\"]+,(20\\d\\d-)", ",'=HYPERLINK(1),'@all,$1");
            importCsv(browser, "copy", csv);
            browser.page.waitForURL("**/look/folders/copy");
            String again = browser.page
                    .context()
                    .request()
                    .get("/look/folders/copy/files.csv")
                    .text();
            assertThat(again).contains(",'=HYPERLINK(1),'@all,", "/it's, \"\"said\"\".tif", "/two\\x0Alines.tif");
            assertThat(again.lines().sorted())
                    .containsExactlyElementsOf(csv.lines().sorted().toList());
        }
        Catalogue copy = CATALOGUES.find("copy").orElseThrow();
        assertThat(CATALOGUES
                        .folder(copy.no(), PathBytes.of("/a"))
                        .orElseThrow()
                        .bytes())
                .isEqualTo(12_000);
        assertThat(App.bean(SurveyStore.class).byKind(copy))
                .isEqualTo(App.bean(SurveyStore.class).byKind(scanned));
    }

    /** The same files in any order of lines make the same catalogue. */
    @Test
    void folders_that_come_scattered_add_up_like_folders_that_come_together() throws Exception {
        List<String> lines = new ArrayList<>();
        for (int file = 0; file < 30; file++) {
            for (int folder = 0; folder < 40; folder++) {
                lines.add("/top" + folder % 3 + "/deep" + folder + "/file" + file + ".tif," + (file * 37 + folder)
                        + ",65536,suki,staff,2024-0" + (1 + file % 9)
                        + "-01T00:00:00Z,2024-01-01T00:00:00Z,2024-01-01T00:00:00Z,IMAGE,1");
            }
        }
        Catalogue scattered = imported("scattered", lines);
        lines.sort(null);
        Catalogue together = imported("together", lines);
        assertThat(scattered.files()).isEqualTo(together.files()).isEqualTo(1_200);
        assertThat(folders(scattered)).hasSize(44).isEqualTo(folders(together));
        assertThat(App.bean(SurveyStore.class).byKind(scattered))
                .isEqualTo(App.bean(SurveyStore.class).byKind(together));
        assertThat(Set.copyOf(App.bean(SurveyStore.class).ageAndSize(scattered)))
                .isEqualTo(Set.copyOf(App.bean(SurveyStore.class).ageAndSize(together)));
    }

    /** More at once than there are connections for. */
    @Test
    void many_imports_at_once_are_all_taken_in() {
        List<Catalogue> all = IntStream.range(0, 14)
                .mapToObj(i -> CompletableFuture.supplyAsync(
                        () -> {
                            try {
                                return imported(
                                        "many-" + i,
                                        List.of("/a/f.tif,7,65536,suki,staff,2024-01-01T00:00:00Z,2024-01-01T00:00:00Z,"
                                                + "2024-01-01T00:00:00Z,IMAGE,1"));
                            } catch (Exception failed) {
                                throw new IllegalStateException(failed);
                            }
                        },
                        Executors.newVirtualThreadPerTaskExecutor()))
                .toList()
                .stream()
                .map(CompletableFuture::join)
                .toList();
        assertThat(all).hasSize(14).allMatch(c -> c.files() == 1);
    }

    private static Catalogue imported(String name, List<String> lines) throws Exception {
        String head = "path,bytes,allocated,owner,group,modified,accessed,changed,kind,counted\n";
        App.bean(CatalogueCsv.class).read(name, new StringReader(head + String.join("\n", lines)));
        return CATALOGUES.find(name).orElseThrow();
    }

    /** What every folder is said to hold, with all below it. */
    private static Map<String, List<Long>> folders(Catalogue catalogue) {
        Map<String, List<Long>> sums = new TreeMap<>();
        App.bean(SurveyStore.class)
                .largestFolders(catalogue.no(), 1_000)
                .forEach(f -> sums.put(f.shown(), List.of(f.files(), f.bytes(), f.allocated())));
        sums.put("/", List.of(catalogue.files(), catalogue.bytes()));
        return sums;
    }

    private static void importCsv(Browser browser, String name, String csv) {
        var form = browser.page.locator("form[action='/look/folders/import']");
        form.locator("[name=name]").fill(name);
        form.locator("[type=file]")
                .setInputFiles(new com.microsoft.playwright.options.FilePayload(
                        "files.csv", "text/csv", csv.getBytes(StandardCharsets.UTF_8)));
        form.locator("button").click();
    }

    @Test
    void only_allowed_folders_are_read() {
        assertThat(App.post("odile", "/api/v1/catalogues", "{\"name\":\"etc\",\"folder\":\"/etc\"}")
                        .detail())
                .startsWith("folder is '/etc', must lie below one of ");
        assertThat(App.post(
                                "odile",
                                "/api/v1/catalogues",
                                "{\"name\":\"etc\",\"folder\":\"/usr/share/doc/../../../etc\"}")
                        .detail())
                .contains("must lie below one of");
        assertThat(App.post("odile", "/api/v1/catalogues", "{\"name\":\"film\",\"folder\":\"/usr/share/doc\"}")
                        .detail())
                .isEqualTo("The name 'film' is taken");
    }
}
