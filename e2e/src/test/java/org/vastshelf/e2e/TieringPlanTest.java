package org.vastshelf.e2e;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.io.StringReader;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.SplittableRandom;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.apache.commons.csv.CSVFormat;
import org.apache.commons.csv.CSVParser;
import org.junit.jupiter.api.Test;
import org.vastshelf.app.clock.ShelfClock;
import org.vastshelf.app.store.EstateStore;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.node.JsonNodeFactory;
import tools.jackson.databind.node.ObjectNode;

/** What would leave, against going through all files one by one. */
class TieringPlanTest {

    private static final String HEADER = "path,bytes,allocated,owner,group,modified,accessed,changed,kind,counted\r\n";
    private static final Instant AT = Instant.parse("2026-02-11T13:14:15Z");
    private static final int DAY = 86_400;

    private record Item(String path, long bytes, long modified, long accessed, String owner, String kind) {

        boolean isIn(String folder) {
            return path.startsWith(folder + "/");
        }

        String folder() {
            return path.substring(0, path.lastIndexOf('/'));
        }

        String top() {
            int second = path.indexOf('/', 1);
            return second < 0 ? "/" : path.substring(0, second);
        }
    }

    private record Question(
            int days, boolean byUse, Long larger, List<String> excluded, Integer percent, Long capacity, Instant at) {

        String body(String catalogue) {
            ObjectNode body = JsonNodeFactory.instance.objectNode();
            body.put("catalogue", catalogue)
                    .put("olderThanDays", days)
                    .put("by", byUse ? "LAST_USE" : "LAST_CHANGE")
                    .put("at", at.toString());
            if (larger != null) {
                body.put("largerThanBytes", larger);
            }
            if (percent != null) {
                body.put("keepWhileBelowPercent", percent).put("capacityBytes", capacity);
            }
            excluded.forEach(body.putArray("excludeFolders")::add);
            return body.toString();
        }

        long time(Item item) {
            return byUse ? Math.max(item.modified, item.accessed) : item.modified;
        }

        boolean mayLeave(Item item) {
            return Math.floorDiv(at.getEpochSecond() - time(item), DAY) >= days
                    && (larger == null || item.bytes > larger)
                    && excluded.stream().noneMatch(folder -> item.path.startsWith(folder + "/"));
        }

        /** Files and bytes that leave, by folder of the first level. */
        Map<String, long[]> leaving(List<Item> items) {
            long used = items.stream().mapToLong(Item::bytes).sum();
            long most = percent == null ? -1 : capacity * percent / 100;
            Map<String, long[]> leaving = new HashMap<>();
            for (Item item : items.stream()
                    .filter(this::mayLeave)
                    .sorted(Comparator.comparingLong(this::time)
                            .thenComparing(Item::bytes, Comparator.reverseOrder())
                            .thenComparing(Item::path))
                    .toList()) {
                if (used <= most) {
                    break;
                }
                long[] sum = leaving.computeIfAbsent(item.top(), top -> new long[2]);
                sum[0]++;
                sum[1] += item.bytes;
                used -= item.bytes;
            }
            return leaving;
        }
    }

    private static List<Item> items(String catalogue) throws IOException {
        List<Item> items = new ArrayList<>();
        String csv = App.get("odile", "/api/v1/catalogues/" + catalogue + "/files.csv")
                .text();
        try (CSVParser lines = CSVFormat.RFC4180
                .builder()
                .setHeader()
                .setSkipHeaderRecord(true)
                .get()
                .parse(new StringReader(csv))) {
            lines.forEach(line -> items.add(new Item(
                    line.get("path"),
                    Long.parseLong(line.get("bytes")),
                    Instant.parse(line.get("modified")).getEpochSecond(),
                    Instant.parse(line.get("accessed")).getEpochSecond(),
                    line.get("owner"),
                    line.get("kind"))));
        }
        return items;
    }

    private static void compare(String catalogue, List<Item> items, Question question) {
        App.Reply reply = App.post("odile", "/api/v1/tiering/plan", question.body(catalogue));
        assertThat(reply.status()).as(reply.text()).isEqualTo(200);
        Map<String, long[]> leaving = question.leaving(items);
        Map<String, long[]> told = new HashMap<>();
        for (JsonNode folder : reply.json().path("byFolder")) {
            JsonNode sum = folder.path("leaving");
            if (sum.path("files").asLong() > 0) {
                told.put(folder.path("folder").asString(), new long[] {
                    sum.path("files").asLong(), sum.path("bytes").asLong()
                });
            }
        }
        assertThat(told.keySet()).as(question.toString()).isEqualTo(leaving.keySet());
        told.forEach(
                (folder, sum) -> assertThat(sum).as(question + " " + folder).isEqualTo(leaving.get(folder)));
        JsonNode all = reply.json();
        assertThat(all.path("leaving").path("files").asLong()
                        + all.path("staying").path("files").asLong())
                .isEqualTo(items.size());
        assertThat(all.path("leaving").path("bytes").asLong()
                        + all.path("staying").path("bytes").asLong())
                .isEqualTo(items.stream().mapToLong(Item::bytes).sum());
    }

    private static Question random(SplittableRandom random, Instant at, List<String> folders, long used) {
        List<String> excluded = new ArrayList<>();
        for (int i = random.nextInt(3); i > 0; i--) {
            excluded.add(folders.get(random.nextInt(folders.size())));
        }
        boolean keep = random.nextBoolean();
        return new Question(
                random.nextInt(500),
                random.nextBoolean(),
                random.nextInt(4) == 0 ? null : random.nextLong(1L << random.nextInt(1, 14)),
                excluded,
                keep ? random.nextInt(101) : null,
                keep ? used + random.nextLong(used) : null,
                at);
    }

    @Test
    void a_table_is_planned_as_if_each_of_its_files_were_looked_at() throws IOException {
        SplittableRandom random = new SplittableRandom(20_260_302);
        List<String> folders = List.of("/a", "/a/b", "/a/b/c", "/ab", "/z/z", "/a/b c", "/none");
        StringBuilder csv = new StringBuilder(HEADER);
        for (int i = 0; i < 1_500; i++) {
            int at = random.nextInt(folders.size());
            String folder = at == 6 ? "" : folders.get(at);
            // Many at the same second, at the borders of days, of sizes, and before 1970.
            long time = AT.getEpochSecond() - random.nextInt(500) * (long) DAY + random.nextInt(-1, 2);
            long modified = random.nextInt(50) == 0 ? -random.nextInt(5) * (long) DAY - 1 : time;
            long bytes = random.nextInt(3) == 0 ? 1L << random.nextInt(14) : random.nextLong(9_000);
            csv.append(folder + "/f" + i + "," + bytes + "," + bytes + ",ines,staff," + Instant.ofEpochSecond(modified)
                    + "," + Instant.ofEpochSecond(time - random.nextInt(3) * (long) DAY) + ","
                    + Instant.ofEpochSecond(time) + ",TEXT,1\r\n");
        }
        // Clocks of hosts go wrong: as many days from now as no four bytes hold.
        csv.append("/a/to come,7000,7000,ines,staff,+9000000-01-01T00:00:00Z,+9000000-01-01T00:00:00Z,"
                + "2026-01-01T00:00:00Z,TEXT,1\r\n");
        App.Reply made = App.post("odile", "/api/v1/catalogues/aged/files.csv", "text/csv", csv.toString());
        assertThat(made.status()).as(made.text()).isEqualTo(201);
        List<Item> items = items("aged");
        assertThat(items).hasSize(1_501);
        long used = items.stream().mapToLong(Item::bytes).sum();

        for (int i = 0; i < 150; i++) {
            compare("aged", items, random(random, AT, folders, used));
        }
    }

    @Test
    void a_share_is_planned_by_what_it_holds_right_now() throws IOException {
        SplittableRandom random = new SplittableRandom(1);
        List<Item> items = items("press");
        List<String> folders = items.stream()
                .map(item -> item.path.substring(0, item.path.lastIndexOf('/')))
                .filter(folder -> !folder.isEmpty())
                .distinct()
                .toList();
        long used = items.stream().mapToLong(Item::bytes).sum();

        for (int i = 0; i < 10; i++) {
            compare("press", items, random(random, AT, folders, used));
        }
    }

    @Test
    void the_page_says_the_same_and_follows_the_slider() {
        try (Browser browser = new Browser(1280, 800).signIn("odile")) {
            browser.page.navigate("/lighten");
            browser.page.locator("a[href='/lighten/leaving/press']").focus();
            browser.page.keyboard().press("Enter");
            assertThat(browser.page.locator("#plan")).containsText("365 days without use");
            assertThat(browser.page.locator("#plan")).containsText("less each month");
            browser.page.locator("input[name=link]").fill("0");
            assertThat(browser.page.locator("#plan .problem"))
                    .containsText("MiB a second are 0, must be 0.01 to 1000000");
            browser.page.locator("input[name=link]").fill("0,5");
            double seconds = Math.ceil(App.post(
                                    "odile",
                                    "/api/v1/tiering/plan",
                                    "{\"catalogue\":\"press\",\"olderThanDays\":365,\"by\":\"LAST_USE\","
                                            + "\"largerThanBytes\":0}")
                            .json()
                            .path("leaving")
                            .path("bytes")
                            .asLong()
                    / (0.5 * (1 << 20)));
            assertThat(browser.page.locator("#plan dt:has-text('over the link') + dd"))
                    .hasText(String.format(Locale.ROOT, "%,.0f h", seconds / 3_600));
            App.post("tomas", "/api/v1/cold-stores/peat/check", "");
            browser.page.locator("select[name=store]").selectOption("peat");
            assertThat(browser.page.locator("#plan dt:has-text('first byte') + dd"))
                    .containsText("ms, when peat was checked last");
            browser.page.locator("input[name=days]").focus();
            browser.page.keyboard().press("End");
            assertThat(browser.page.locator("#plan")).containsText("2,200 days without use");
            JsonNode leaving = App.post(
                            "odile",
                            "/api/v1/tiering/plan",
                            "{\"catalogue\":\"press\",\"olderThanDays\":2200,\"by\":\"LAST_USE\",\"largerThanBytes\":0}")
                    .json()
                    .path("leaving");
            assertThat(browser.page.locator("#plan strong"))
                    .containsText(String.format(
                            Locale.ROOT, "in %,d files", leaving.path("files").asLong()));
            browser.page.locator("textarea[name=exclude]").fill("2019");
            assertThat(browser.page.locator("#plan .problem")).containsText("folder 1 is '2019', must begin with /");
            assertThat(browser.errors).isEmpty();
        }
    }

    @Test
    void what_was_counted_a_moment_ago_is_counted_anew_when_something_came() {
        long capacity = App.bean(EstateStore.class)
                .load()
                .volumes()
                .get("office")
                .size()
                .value();
        String file = "/api/v1/desk/contents?person=suki&share=office&path=/counted-anew.txt";
        try (Browser browser = new Browser(1280, 800).signIn("odile")) {
            for (int percent : new int[] {0, 2, 4, 100}) {
                JsonNode plan = App.post(
                                "odile",
                                "/api/v1/tiering/plan",
                                "{\"catalogue\":\"office\",\"olderThanDays\":0,\"by\":\"LAST_CHANGE\","
                                        + "\"largerThanBytes\":0,\"keepWhileBelowPercent\":" + percent
                                        + ",\"capacityBytes\":" + capacity + "}")
                        .json();
                browser.page.navigate("/lighten/leaving/office?days=0&by=LAST_CHANGE&larger=0&percent=" + percent);
                for (String side : new String[] {"leaving", "staying"}) {
                    assertThat(browser.page.locator("#plan > p").first())
                            .containsText(String.format(
                                    Locale.ROOT,
                                    "in %,d files",
                                    plan.path(side).path("files").asLong()));
                }
                if (percent == 2) {
                    App.send("odile", "PUT", file, new byte[] {1, 2, 3});
                }
            }
            assertThat(browser.errors).isEmpty();
        }
    }

    /** What most of some have in common. */
    private static String most(Stream<String> values) {
        return values.collect(Collectors.groupingBy(value -> value, Collectors.counting())).entrySet().stream()
                .max(Map.Entry.comparingByValue())
                .orElseThrow()
                .getKey();
    }

    private static String rule(String name, int rank, String larger, String rest) {
        return "{\"change\":\"SetTiering\",\"rule\":{\"name\":\"" + name + "\",\"rank\":" + rank
                + ",\"store\":\"peat\",\"by\":\"LAST_CHANGE\",\"olderThanDays\":200,\"largerThanBytes\":" + larger + ","
                + rest + ",\"keepBelow\":null,\"back\":{\"manner\":\"ON_WRITE\",\"reads\":0,\"withinDays\":0},"
                + "\"when\":null,\"hours\":0,\"mibps\":0,\"mostBytes\":0,\"keepDays\":1}}";
    }

    @Test
    void a_rule_is_previewed_with_all_that_it_says_and_behind_those_before_it() throws IOException {
        List<Item> items = items("press");
        String top = most(items.stream().map(Item::top).filter(path -> path.length() > 1));
        List<Item> within = items.stream().filter(item -> item.isIn(top)).toList();
        String stays = most(within.stream().map(Item::folder).filter(path -> path.length() > top.length()));
        String kind = most(within.stream().map(Item::kind));
        String spared = most(within.stream().map(Item::owner));
        Drafts.carryOut(rule(
                        "all-large",
                        801,
                        "3000000",
                        "\"places\":[{\"share\":\"press\",\"folder\":\"/\"}],\"kinds\":[],\"exceptPlaces\":[],"
                                + "\"exceptPeople\":[]")
                + ","
                + rule(
                        "some-more",
                        802,
                        "65537",
                        "\"places\":[{\"share\":\"press\",\"folder\":\"" + top + "\"}],\"kinds\":[\"" + kind
                                + "\"],\"exceptPlaces\":[{\"share\":\"press\",\"folder\":\"" + stays
                                + "\"}],\"exceptPeople\":[\"" + spared + "\"]"));
        try (Browser browser = new Browser(1280, 800).signIn("odile")) {
            long last = App.bean(ShelfClock.class).instant().getEpochSecond() - 200L * DAY;
            List<Item> about = items("press").stream()
                    .filter(item -> item.isIn(top) && !item.isIn(stays))
                    .filter(item -> item.kind.equals(kind) && !item.owner.equals(spared))
                    .filter(item -> item.bytes > 65_537)
                    .toList();
            List<Item> leaving = about.stream()
                    .filter(item -> item.bytes <= 3_000_000 && item.modified <= last)
                    .toList();
            browser.page.navigate("/lighten/rules/some-more");
            browser.page.locator("a:has-text('what of press would leave')").click();

            assertThat(leaving).isNotEmpty();
            assertThat(browser.page.locator("#plan strong"))
                    .containsText(String.format(Locale.ROOT, "in %,d file", leaving.size()));
            for (String reason : List.of(
                    "of another kind",
                    "not in its folders",
                    "in a folder that stays",
                    "of somebody whose files stay",
                    "left to a rule of lower rank")) {
                assertThat(browser.page.locator("#plan > .quiet").first()).containsText(reason);
            }
            assertThat(browser.page.locator("input[name=larger]")).hasValue("65537");
            browser.page.locator("input[name=kinds]").fill("moving pictures");
            assertThat(browser.page.locator("#plan .problem")).containsText("'moving pictures' is no kind");
            assertThat(browser.errors).isEmpty();
        } finally {
            Drafts.carryOut("{\"change\":\"DropTiering\",\"name\":\"all-large\"},"
                    + "{\"change\":\"DropTiering\",\"name\":\"some-more\"}");
        }
    }

    @Test
    void what_makes_no_sense_is_refused_at_its_place() {
        String start = "{\"catalogue\":\"press\",\"by\":\"LAST_USE\"";
        assertThat(App.post("odile", "/api/v1/tiering/plan", start + "}").status())
                .isEqualTo(400);
        assertThat(App.post("odile", "/api/v1/tiering/plan", start + ",\"olderThanDays\":-1}")
                        .detail())
                .isEqualTo("olderThanDays is -1, must be 0 to 36500");
        assertThat(App.post("odile", "/api/v1/tiering/plan", start + ",\"olderThanDays\":1,\"capacityBytes\":1}")
                        .detail())
                .isEqualTo("keepWhileBelowPercent is missing; keepWhileBelowPercent and capacityBytes go together");
        assertThat(App.post(
                                "odile",
                                "/api/v1/tiering/plan",
                                start + ",\"olderThanDays\":1,\"excludeFolders\":[\"/a\",\"b\"]}")
                        .detail())
                .isEqualTo("excludeFolders[1] is 'b', must begin with /");
        assertThat(App.post(
                                "odile",
                                "/api/v1/tiering/plan",
                                "{\"catalogue\":\"nowhere\",\"by\":\"LAST_USE\",\"olderThanDays\":1}")
                        .status())
                .isEqualTo(404);
        for (String at : List.of("-999999999-01-01T00:00:00Z", "+1000000000-12-31T23:59:59.999999999Z")) {
            assertThat(App.post(
                                    "odile",
                                    "/api/v1/tiering/plan",
                                    start + ",\"olderThanDays\":36500,\"at\":\"" + at + "\"}")
                            .detail())
                    .isEqualTo("at is " + at + ", must be 1970-01-01T00:00:00Z to 9999-12-31T23:59:59Z");
        }
        assertThat(App.post("suki", "/api/v1/tiering/plan", start + ",\"olderThanDays\":1}")
                        .status())
                .isEqualTo(403);
    }
}
