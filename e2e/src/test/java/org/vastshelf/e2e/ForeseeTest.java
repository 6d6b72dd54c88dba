package org.vastshelf.e2e;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import com.microsoft.playwright.APIResponse;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.FilePayload;
import com.microsoft.playwright.options.LoadState;
import com.microsoft.playwright.options.RequestOptions;
import java.nio.charset.StandardCharsets;
import java.time.LocalDate;
import java.util.Arrays;
import java.util.List;
import java.util.regex.Pattern;
import org.jooq.DSLContext;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import tools.jackson.databind.JsonNode;

/** Dates that agree with each other, suppositions, orders ahead, and what became of earlier forecasts. */
class ForeseeTest {

    private static final DSLContext DB = App.bean(DSLContext.class);
    private static Browser browser;

    @BeforeAll
    static void forecastsAreThere() {
        Awaited.forecasts();
        browser = new Browser(1280, 800).signIn("odile");
    }

    @AfterAll
    static void close() {
        browser.close();
    }

    private static APIResponse open(String path) {
        return browser.page.context().request().get(path);
    }

    private static APIResponse send(String path, String form) {
        browser.page.navigate("/build/bench");
        String token = browser.page.locator("input[name=_csrf]").first().inputValue();
        return browser.page
                .context()
                .request()
                .post(
                        path,
                        RequestOptions.create()
                                .setHeader("Content-Type", "application/x-www-form-urlencoded")
                                .setData(form + "&_csrf=" + token));
    }

    private static JsonNode forecast(String space) {
        return App.get("odile", "/api/v1/spaces/" + space + "/forecast").json();
    }

    private static long count(String rows) {
        return Long.parseLong(names("SELECT COUNT(*) FROM " + rows).getFirst());
    }

    /** The statuses of a form that is sent eight times at once; each %d in it is the number of the time. */
    private static List<?> eightTimes(String path, String form) {
        browser.page.navigate("/build/bench");
        return (List<?>) browser.page.evaluate("""
                ([path, form]) => Promise.all([...Array(8).keys()].map((no) => fetch(path, {
                    method: 'POST',
                    headers: {'Content-Type': 'application/x-www-form-urlencoded'},
                    body: form.replaceAll('%d', no) + '&_csrf=' + document.querySelector('input[name=_csrf]').value,
                }).then((answer) => answer.status)))
                """, List.of(path, form));
    }

    private static List<String> names(String sql) {
        return DB.fetch(sql).map(row -> String.valueOf(row.get(0)));
    }

    @Test
    void on_every_week_the_parts_are_expected_to_hold_what_the_whole_does() {
        JsonNode whole = forecast("estate/whole").path("band");
        List<JsonNode> pools = names("SELECT space FROM forecast WHERE kind = 'pool'").stream()
                .map(pool -> forecast("pool/" + pool).path("band"))
                .toList();
        List<JsonNode> servers = names("SELECT space FROM forecast WHERE kind = 'server'").stream()
                .map(server -> forecast("server/" + server).path("band"))
                .toList();
        List<JsonNode> volumes = names("SELECT space FROM forecast WHERE kind = 'volume'").stream()
                .map(volume -> forecast("volume/" + volume).path("band"))
                .toList();
        assertThat(whole).hasSize(52);
        for (int week = 0; week < 52; week++) {
            double expected = whole.get(week).path("middle").asDouble();
            for (List<JsonNode> parts : List.of(pools, servers, volumes)) {
                int on = week;
                double sum = parts.stream()
                        .mapToDouble(band -> band.get(on).path("middle").asDouble())
                        .sum();
                assertThat(sum).isCloseTo(expected, within(1e6));
            }
        }
    }

    @Test
    void suppositions_move_dates_at_once_are_kept_and_drawn_over_what_happens() {
        Page page = browser.page;
        page.navigate("/foresee/volume/sequences");
        page.getByText("What if …?").click();
        page.getByLabel("brings", new Page.GetByLabelOptions().setExact(true)).fill("30 TiB");
        page.getByLabel("over days").fill("10");
        page.getByLabel("over days").press("Tab");
        assertThat(page.locator("#supposed")).containsText("earlier");
        assertThat(page.locator("#supposed canvas").first()).isVisible();
        assertThat(page).hasURL(Pattern.compile(".*project=30(%20|\\+)TiB.*"));
        assertThat(page).hasURL(Pattern.compile(".*projectDays=10.*"));
        page.waitForLoadState(LoadState.NETWORKIDLE);
        page.getByLabel("Keep it under a name").fill("new machine");
        page.locator("button", new Page.LocatorOptions().setHasText("Keep it")).click();
        page.getByLabel("draw it over the chart: new machine").click();
        assertThat(page.locator(".u-legend")).containsText("new machine");
        page.getByLabel("Forget new machine").click();
        assertThat(page.locator("main")).not().containsText("new machine");
        page.navigate("/foresee/volume/sequences/suppose?project=many");
        assertThat(page.locator(".wrong").first()).containsText("many");
        page.navigate("/foresee/volume/sequences/suppose?people=5&each=1+GiB&peopleFrom=soon");
        assertThat(page.locator(".wrong").first()).containsText("must be a day");
    }

    @Test
    void orders_follow_the_terms_and_leave_as_table_calendar_and_draft() {
        assertThat(send("/foresee/orders/terms/fernhill", "lead=900&lot=1+TiB&risk=10")
                        .text())
                .contains("lead time is 900 days, must be 0 to 730");
        assertThat(send("/foresee/orders/terms/fernhill", "lead=10&lot=none&risk=10")
                        .text())
                .contains("lot");
        send("/foresee/orders/terms/fernhill", "lead=400&lot=2+TiB&risk=10");
        JsonNode orders = App.get("odile", "/api/v1/orders-ahead").json();
        JsonNode first = orders.get(0);
        assertThat(first.path("server").asString()).isEqualTo("fernhill");
        assertThat(first.path("amountBytes").asLong() % (2L << 40)).isZero();
        LocalDate needed = LocalDate.parse(first.path("needed").asString());
        assertThat(LocalDate.parse(first.path("orderBy").asString())).isEqualTo(needed.minusDays(400));
        assertThat(needed)
                .isEqualTo(forecast("pool/" + first.path("pool").asString())
                        .path("full")
                        .path("early")
                        .asString());
        String calendar = open("/foresee/orders.ics").text();
        assertThat(calendar)
                .startsWith("BEGIN:VCALENDAR\r\nVERSION:2.0\r\n")
                .contains("SUMMARY:Order ", "DTSTART;VALUE=DATE:")
                .endsWith("END:VCALENDAR\r\n");
        assertThat(Arrays.asList(calendar.split("\r\n"))).allMatch(line -> line.length() <= 75);
        String csv = open("/foresee/orders.csv").text();
        assertThat(csv.lines().count()).isEqualTo(orders.size() + 1);
        send("/foresee/orders/terms/fernhill", "lead=90&lot=20+TiB&risk=10");
    }

    @Test
    void a_pool_grows_by_draft_where_there_are_drives_and_says_where_there_are_none() {
        String none =
                send("/foresee/orders/draft", "pool=reed&bytes=" + (900L << 40)).text();
        assertThat(none).contains("no unclaimed drives of its kind on file server saltmarsh");
        send("/foresee/orders/draft", "pool=tern&bytes=" + (1L << 40));
        String drafted = App.get("odile", "/api/v1/orders").text();
        assertThat(drafted).contains("DRAFT", "tern");
        Drafts.discardAll();
    }

    @Test
    void what_a_space_held_before_is_brought_in_by_the_form_on_its_page() {
        Page page = browser.page;
        page.navigate("/foresee/volume/plans");
        StringBuilder table = new StringBuilder("day,used_gib\n");
        LocalDate first = LocalDate.of(2023, 2, 1);
        for (int day = 0; day < 30; day++) {
            if (day != 10) {
                table.append(first.plusDays(day)).append(',').append(900 + day).append('\n');
            }
        }
        page.setInputFiles(
                "input[type=file]",
                new FilePayload("plans.csv", "text/csv", table.toString().getBytes(StandardCharsets.UTF_8)));
        page.locator("button", new Page.LocatorOptions().setHasText("Bring it in"))
                .click();
        assertThat(page.locator("[role=status]").first()).containsText("mended");
        assertThat(count("forecast_past WHERE space = 'plans' AND afterwards = 1 AND used IS NOT NULL"))
                .isPositive();
        App.Reply known = App.post(
                "odile",
                "/api/v1/spaces/volume/film/history",
                "text/csv",
                "day,used_gib\n"
                        + names(
                                        "SELECT day FROM space_history"
                                                + " WHERE kind = 'volume' AND space = 'film' AND source = 0 ORDER BY day LIMIT 9")
                                .stream()
                                .map(day -> day + ",5\n")
                                .reduce("", String::concat));
        assertThat(known.detail()).isEqualTo("all of these 9 days were recorded here, and stay as they are");
        page.setInputFiles(
                "input[type=file]",
                new FilePayload("none.csv", "text/csv", "nothing".getBytes(StandardCharsets.UTF_8)));
        page.locator("button", new Page.LocatorOptions().setHasText("Bring it in"))
                .click();
        assertThat(page.locator("[role=alert]").first()).isVisible();
    }

    @Test
    void earlier_forecasts_are_held_against_what_then_was() {
        Awaited.until(() ->
                count("forecast_past WHERE kind = 'volume'") >= 9 * 3 * count("forecast WHERE kind = 'volume'") / 2);
        JsonNode kept = App.get("odile", "/api/v1/forecasts/kept").json();
        assertThat(kept).hasSize(3);
        long bands = count("forecast_past f JOIN space_history h ON h.kind = f.kind AND h.space = f.space"
                + " AND h.day = f.made + INTERVAL f.ahead DAY WHERE f.kind = 'volume'");
        int counted = 0;
        for (JsonNode score : kept) {
            counted += score.path("bands").asInt();
            assertThat(score.path("held").asInt())
                    .isBetween(0, score.path("bands").asInt());
        }
        assertThat(counted).isEqualTo(bands).isPositive();
    }

    @Test
    void what_was_expected_beyond_the_room_has_held_where_the_space_was_full() {
        String row = " WHERE kind = 'volume' AND space = 'film' AND ahead = 364";
        Awaited.until(() -> count("forecast_past" + row + " AND used IS NOT NULL") > 0);
        Awaited.until(() -> count("forecast_past" + row + " AND used IS NOT NULL AND room IS NULL") == 0);
        int held = heldAYearAhead();
        long bands = count("forecast_past" + row + " AND used BETWEEN low AND high AND used IS NOT NULL");
        DB.execute("UPDATE forecast_past SET low = room * 2, middle = room * 2, high = room * 3, used = room - 1000"
                + row + " AND used IS NOT NULL");
        assertThat(heldAYearAhead() - held + bands).isEqualTo(count("forecast_past" + row + " AND used IS NOT NULL"));
        assertThat(open("/foresee/kept").text())
                .contains("held; it was full")
                .containsPattern("[\\d.]+ [TGM]iB to [\\d.]+ [TGM]iB<");
        DB.execute("UPDATE forecast_past SET used = room / 2" + row + " AND used IS NOT NULL");
        assertThat(heldAYearAhead() - held + bands).isZero();
    }

    private static int heldAYearAhead() {
        return App.get("odile", "/api/v1/forecasts/kept")
                .json()
                .get(2)
                .path("held")
                .asInt();
    }

    @Test
    void a_date_that_moved_within_the_week_is_told_with_its_cause() {
        DB.execute("UPDATE forecast_past SET likely = '2026-03-20' WHERE kind = 'volume' AND space = 'film'");
        DB.execute("DELETE FROM forecast_moved");
        DB.execute("DELETE FROM forecast WHERE kind = 'volume' AND space = 'film'");
        Awaited.until(() -> names("SELECT space FROM forecast_moved").contains("film"));
        assertThat(open("/look").text()).contains("later than was expected a week ago");
        assertThat(App.get("odile", "/api/v1/spaces/x/nothing/forecast").status())
                .isEqualTo(404);
        assertThat(App.get("odile", "/api/v1/spaces/volume/film/supposed?project=much")
                        .status())
                .isEqualTo(400);
    }

    @Test
    void accounts_say_who_is_refused_first_and_by_what() {
        String shares = open("/foresee?show=shares").text();
        assertThat(shares).contains("volume herbarium", "limit of homes/");
        assertThat(open("/foresee?show=accounts").text()).contains("this limit");
        String account = names("SELECT space FROM forecast WHERE kind = 'account' LIMIT 1")
                .getFirst();
        assertThat(open("/foresee/account/" + account).status()).isEqualTo(200);
        assertThat(open("/foresee/account/" + account + "/suppose").status()).isEqualTo(404);
        assertThat(open("/foresee/account/x").status()).isEqualTo(404);
    }

    @Test
    void of_many_who_keep_one_name_at_once_one_does_and_terms_set_at_once_are_those_of_somebody() {
        assertThat(eightTimes("/foresee/volume/film/suppose", "name=rush&project=%d+TiB&projectDays=9"))
                .allMatch(status -> status.equals(200));
        assertThat(count("supposition WHERE space = 'film' AND name = 'rush'")).isOne();
        assertThat(eightTimes("/foresee/volume/film/forget", "name=rush")).allMatch(status -> status.equals(200));
        assertThat(count("supposition")).isZero();
        assertThat(eightTimes("/foresee/orders/terms/dewpond", "lead=3%d&lot=%d3+TiB&risk=1%d"))
                .allMatch(status -> status.equals(200));
        assertThat(count("order_terms WHERE server = 'dewpond' AND risk_percent = lead_days - 20"
                        + " AND lot_bytes = ((lead_days - 30) * 10 + 3) << 40"))
                .isOne();
    }

    @Test
    void a_space_that_is_gone_leaves_nothing_to_another_of_its_name() {
        DB.execute("INSERT INTO supposition SELECT 'volume', 'gone', 'more', 'odile', '2026-01-01', '', course"
                + " FROM forecast WHERE kind = 'volume' AND space = 'film'");
        DB.execute(
                "INSERT INTO forecast_past (kind, space, made, ahead, due, afterwards, capacity_bytes, low, middle, high)"
                        + " VALUES ('volume', 'gone', '2026-01-04', 28, '2026-02-01', 0, 9, 1, 2, 3)");
        List<String> columns = names("SELECT column_name FROM information_schema.columns"
                + " WHERE table_schema = DATABASE() AND table_name = 'forecast'");
        DB.execute("INSERT INTO forecast SELECT "
                + String.join(", ", columns).replaceFirst("\\bspace\\b", "'gone'")
                + " FROM forecast WHERE kind = 'volume' AND space = 'film'");
        Awaited.until(() -> count("forecast WHERE space = 'gone'") == 0);
        Awaited.until(
                () -> count("supposition WHERE space = 'gone'") + count("forecast_past WHERE space = 'gone'") == 0);
    }

    @Test
    void a_limit_of_which_some_days_were_written_down_gets_the_past_of_its_files() {
        String rule = names("SELECT HEX(rule_hash) FROM account GROUP BY rule_hash ORDER BY COUNT(*) DESC LIMIT 1")
                .getFirst();
        String days = "account_history WHERE rule_hash = UNHEX('" + rule + "')";
        long before = count(days);
        String last = names("SELECT MAX(day) FROM " + days).getFirst();
        DB.execute("DELETE FROM " + days + " AND day < '" + last + "' - INTERVAL 1 DAY");
        App.post("odile", "/api/v1/time", "{\"hours\":24}");
        Awaited.until(() -> count(days) > before / 2);
        assertThat(count(days + " AND used_bytes < 0")).isZero();
    }
}
