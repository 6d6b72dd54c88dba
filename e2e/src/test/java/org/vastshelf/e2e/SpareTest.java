package org.vastshelf.e2e;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.assertj.core.api.Assertions.assertThat;

import java.math.BigDecimal;
import java.math.RoundingMode;
import java.time.Instant;
import java.time.LocalDate;
import java.util.regex.Pattern;
import org.jooq.DSLContext;
import org.jooq.Record;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.vastshelf.app.agenda.AgendaStore;
import org.vastshelf.app.clock.ShelfClock;
import org.vastshelf.core.agenda.DueKind;
import org.vastshelf.core.unit.Bytes;
import tools.jackson.databind.JsonNode;

/** What could be spared: ages as an independent count finds them, money by the prices that were set, drafts of it. */
class SpareTest {

    @BeforeAll
    static void a_night_passes() {
        Drafts.discardAll();
        assertThat(App.post("odile", "/api/v1/time", "{\"hours\":24}").status()).isEqualTo(200);
    }

    /** Nobody who moves the clock waits for ages, and an order that is carried out may have moved it over a midnight. */
    @BeforeEach
    void ages_are_counted() throws InterruptedException {
        AgendaStore agenda = App.bean(AgendaStore.class);
        Instant by = App.bean(ShelfClock.class).lastMidnight();
        for (int i = 0; agenda.behindSince(DueKind.AGES, by).isPresent(); i++) {
            assertThat(i).as("half seconds").isLessThan(120);
            Thread.sleep(500);
        }
    }

    private static JsonNode cost(String share) {
        for (JsonNode cost : App.get("ines", "/api/v1/spared").json().path("shares")) {
            if (cost.path("share").asString().equals(share)) {
                return cost;
            }
        }
        throw new AssertionError("no share " + share);
    }

    @Test
    void folders_add_up_to_their_share_and_are_listed() {
        DSLContext db = App.bean(DSLContext.class);
        String folders = " FROM age_folder a JOIN catalogue c ON c.no = a.catalogue_no WHERE c.name = 'office'";
        String history = " FROM age_history a JOIN catalogue c ON c.no = a.catalogue_no WHERE c.name = 'office'"
                + " AND a.day = (SELECT MAX(day) FROM age_history)";
        for (String basis : new String[] {"0", "1"}) {
            String sums = "SELECT basis, band, SUM(a.files) f, SUM(a.bytes) b, SUM(a.allocated) l, SUM(used_bytes) u";
            String by = " AND basis = " + basis + " GROUP BY basis, band ORDER BY band";
            assertThat(db.fetch(sums + folders + by).formatCSV())
                    .isEqualTo(db.fetch(sums + history + by).formatCSV())
                    .contains(basis + ",5,");
        }
        long board = db.fetchSingle("SELECT SUM(f.bytes) b FROM file f JOIN folder d ON d.catalogue_no = f.catalogue_no"
                        + " AND d.no = f.folder_no JOIN catalogue c ON c.no = f.catalogue_no"
                        + " WHERE c.name = 'office' AND (d.path = '/board' OR d.path LIKE '/board/%')")
                .get("b", Long.class);
        assertThat(db.fetchSingle("SELECT SUM(a.bytes) b" + folders + " AND basis = 0 AND folder = '/board'")
                        .get("b", Long.class))
                .isEqualTo(board);
        try (Browser browser = new Browser(1280, 800).signIn("ines")) {
            browser.page.navigate("/lighten");
            browser.page.locator("a[href='/lighten/shares/office']").focus();
            browser.page.keyboard().press("Enter");
            assertThat(browser.page.locator("h1")).hasText("What could be spared in office, by folder?");
            assertThat(browser.page.locator("#folders")).containsText("/board");
            browser.page.navigate("/lighten/shares/office?q=board");
            assertThat(browser.page.locator("#folders tbody tr")).hasCount(1);
            assertThat(browser.page.navigate("/lighten/shares/nothing").status())
                    .isEqualTo(404);
            assertThat(browser.errors).hasSizeLessThan(2);
        }
    }

    /** Rows of the next number after a share's: whoever counts that share looks at the first of them. */
    @Test
    void what_is_known_of_a_catalogue_that_is_gone_goes_in_the_night() throws InterruptedException {
        DSLContext db = App.bean(DSLContext.class);
        String next = "(SELECT MAX(no) + 1 FROM catalogue)";
        db.execute("INSERT INTO age_history SELECT " + next + ", day, basis, band, files, bytes, allocated, used_files,"
                + " used_bytes FROM age_history WHERE catalogue_no = (SELECT MIN(catalogue_no) FROM age_history)");
        String strangers = "SELECT COUNT(*) n FROM age_history WHERE catalogue_no NOT IN (SELECT no FROM catalogue)";
        assertThat(db.fetchSingle(strangers).get("n", Long.class)).isPositive();
        a_night_passes();
        ages_are_counted();
        assertThat(db.fetchSingle(strangers).get("n", Long.class)).isZero();
    }

    @Test
    void ages_are_those_of_the_files_by_the_last_night() {
        LocalDate day = App.bean(ShelfClock.class).today().minusDays(1);
        int[] least = {0, 30, 90, 365, 1_095, 1_825};
        long[] bytes = new long[least.length];
        long[] files = new long[least.length];
        for (Record row : App.bean(DSLContext.class)
                .fetch("SELECT f.bytes b, GREATEST(modified_at, accessed_at) t FROM file f JOIN catalogue c"
                        + " ON c.no = f.catalogue_no WHERE c.name = 'press' AND counted = 1")) {
            long days = day.toEpochDay() - Math.floorDiv(row.get("t", Long.class), 86_400L);
            int band = least.length - 1;
            while (band > 0 && least[band] > days) {
                band--;
            }
            bytes[band] += row.get("b", Long.class);
            files[band]++;
        }
        JsonNode bands = cost("press").path("byUse");
        for (int band = 0; band < least.length; band++) {
            assertThat(bands.path(band).path("leastDays").asInt()).isEqualTo(least[band]);
            assertThat(bands.path(band).path("files").asLong()).isEqualTo(files[band]);
            assertThat(bands.path(band).path("bytes").asLong()).isEqualTo(bytes[band]);
        }
    }

    @Test
    void a_price_is_set_by_keyboard_and_all_money_follows() {
        try (Browser browser = new Browser(1280, 800).signIn("odile")) {
            browser.page.navigate("/lighten/prices");
            var price = browser.page.locator("form[action='/lighten/prices/tern'] input[name=price]");
            price.fill("-3");
            price.press("Enter");
            assertThat(browser.page.locator("main"))
                    .containsText("price of a TiB and month is -3, must be 0 to 1000000");
            browser.page
                    .locator("form[action='/lighten/prices/tern'] input[name=price]")
                    .fill("9".repeat(200));
            browser.page
                    .locator("form[action='/lighten/prices/tern'] input[name=price]")
                    .press("Enter");
            assertThat(browser.page.locator("main"))
                    .containsText("the amount has 200 characters, must have at most 30");
            browser.page
                    .locator("form[action='/lighten/prices/tern'] input[name=price]")
                    .fill("20,5");
            browser.page
                    .locator("form[action='/lighten/prices/tern'] input[name=price]")
                    .press("Enter");
            Drafts.carryOut(browser.page);
            browser.page.navigate("/lighten/prices");
            assertThat(browser.page.locator("#prices tr:has-text('tern')")).containsText("20.50");
            assertThat(browser.errors).isEmpty();
        }
        long allocated = 0;
        for (JsonNode band : cost("press").path("byUse")) {
            allocated += band.path("allocatedBytes").asLong();
        }
        BigDecimal monthly = BigDecimal.valueOf(allocated)
                .multiply(new BigDecimal("20.5"))
                .divide(BigDecimal.valueOf(Bytes.TIB), 2, RoundingMode.HALF_UP);
        assertThat(cost("press").path("monthly").decimalValue()).isEqualByComparingTo(monthly);
    }

    @Test
    void what_saves_most_is_drafted_by_an_administrator_and_nobody_else() {
        assertThat(App.post("tomas", "/lighten/measures/sequences/away?days=365", "")
                        .status())
                .isEqualTo(403);
        assertThat(App.post("suki", "/lighten/measures/sequences/away?days=365", "")
                        .status())
                .isEqualTo(403);
        assertThat(App.get("suki", "/api/v1/spared").status()).isEqualTo(403);
        try (Browser browser = new Browser(1280, 800).signIn("odile")) {
            browser.page.navigate("/lighten");
            assertThat(browser.page.locator("#advice tbody tr")).hasCount(5);
            browser.page
                    .locator("#advice tr:has-text('sequences') button")
                    .first()
                    .focus();
            browser.page.keyboard().press("Enter");
            browser.page.waitForURL(Pattern.compile(".*/lighten$"));
            Drafts.carryOut(browser.page);
            browser.page.navigate("/lighten/rules");
            assertThat(browser.page.locator("main")).containsText("sequences-unused");
            browser.page.navigate("/lighten");
            assertThat(browser.page.locator("#advice")).not().containsText("sequences: let leave");
            assertThat(browser.errors).isEmpty();
        }
        Drafts.carryOut("{\"change\":\"DropTiering\",\"name\":\"sequences-unused\"}");
    }
}
