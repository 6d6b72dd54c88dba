package org.vastshelf.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Page;
import com.microsoft.playwright.Route;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.List;
import java.util.stream.Stream;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import tools.jackson.databind.JsonNode;

/** Every page: readable by everybody, quiet in the console, within its width. */
class PagesTest {

    /** Stands for the newest snapshot of office: which one that is changes as the clock moves. */
    private static final String NEWEST = "/protect/snapshots/office/newest";

    private static final List<String> PAGES = List.of(
            "/look",
            "/look?scope=homes",
            "/look/folders",
            "/look/notices",
            "/look/folders/press",
            "/build",
            "/build?scope=oak",
            "/build/new/pool?server=fernhill&drives=fernhill/3/1&drives=fernhill/3/2&drives=fernhill/3/5&drives=fernhill/3/6",
            "/build/new/volume",
            "/build/pools/ash",
            "/build/pools/tern",
            "/build/volumes/film",
            "/build/volumes/film/move",
            "/build/volumes/press",
            "/build/pools/elm/replace?old=fernhill/1/9&old=fernhill/1/10&next=fernhill/3/5&next=fernhill/3/6",
            "/build/drives/fernhill/2/7",
            "/build/bench",
            "/build/what-if?pool=oak&drives=4&size=12+TB&drop=film",
            "/build/definitions",
            "/build/new/reservation",
            "/serve",
            "/serve/new",
            "/serve/shares/film",
            "/serve/shares/fieldlogs",
            "/limit",
            "/limit/new",
            "/lighten",
            "/lighten/shares/office",
            "/lighten/stores",
            "/lighten/rules",
            "/lighten/left",
            "/lighten/leaving/press",
            "/lighten/stores/peat",
            "/lighten/stores/peat/objects",
            "/lighten/volumes/office",
            "/lighten/catalogues/office",
            "/protect",
            "/protect/volumes/office",
            "/protect/volumes/sequences",
            "/protect/volumes/office/reserve",
            "/protect/pools/elm/reserve",
            "/protect/find/office?q=annex",
            NEWEST,
            "/protect/compare/office",
            "/protect/shares/film",
            "/protect/clones?volume=office&snapshot=1",
            "/protect/pairs",
            "/protect/pairs/herbarium",
            "/protect/retention",
            "/protect/holds",
            "/desk/earlier?person=suki&share=film&path=/",
            "/trace",
            "/foresee",
            "/foresee?show=shares",
            "/foresee?show=accounts",
            "/foresee/volume/homes",
            "/foresee/estate/whole",
            "/foresee/pool/oak/suppose?project=3+TiB",
            "/foresee/orders",
            "/foresee/kept",
            "/orders",
            "/desk");

    private static Browser browser;

    private static String address(String path) {
        if (!path.equals(NEWEST)) {
            return path;
        }
        JsonNode all = App.get("odile", "/api/v1/volumes/office/snapshots").json();
        return path.replace("newest", all.get(all.size() - 1).path("number").asString());
    }

    @BeforeAll
    static void open() {
        browser = new Browser(1280, 800).signIn("odile");
    }

    @AfterAll
    static void close() {
        browser.close();
    }

    static Stream<String> pages() {
        return PAGES.stream();
    }

    @ParameterizedTest
    @MethodSource("pages")
    void nothing_moderate_for_axe_in_either_theme_at_either_width_and_no_console_error(String path) {
        Page page = browser.page;
        browser.errors.clear();
        assertThat(page.navigate(address(path)).status()).isEqualTo(200);
        for (int width : new int[] {1280, 390}) {
            page.setViewportSize(width, 800);
            page.waitForTimeout(100);
            assertThat(serious(page)).as("%s at %d px", path, width).isEmpty();
            theme(page, "dark");
            assertThat(pale(page)).as("%s in dark at %d px", path, width).isEmpty();
            theme(page, "light");
        }
        page.setViewportSize(1280, 800);
        assertThat(browser.errors).isEmpty();
    }

    static void theme(Page page, String theme) {
        page.evaluate("theme => document.documentElement.dataset.theme = theme", theme);
    }

    /** What of all rules axe-core finds, from moderate on. */
    static List<Object> serious(Page page) {
        return checked(page, "{}");
    }

    /** What a theme alone can change. */
    static List<Object> pale(Page page) {
        return checked(page, "{runOnly: ['color-contrast']}");
    }

    /** The content security policy allows our own copy of the checker, as a script of ours. */
    @SuppressWarnings("unchecked")
    private static List<Object> checked(Page page, String options) {
        if (!(Boolean) page.evaluate("() => 'axe' in window")) {
            page.addScriptTag(new Page.AddScriptTagOptions().setUrl("/built/axe.min.js"));
        }
        return (List<Object>) page.evaluate("() => axe.run(" + options + ").then(r => r.violations"
                + ".filter(v => ['moderate', 'serious', 'critical'].includes(v.impact))"
                + ".map(v => v.id + ': ' + v.nodes.slice(0, 3).map(n => n.html.slice(0, 160)).join(' | ')))");
    }

    @Test
    void no_page_is_wider_than_the_screen() {
        List<String> wide = new ArrayList<>();
        for (int width : new int[] {1280, 1024, 390}) {
            browser.page.setViewportSize(width, 800);
            for (String path : PAGES) {
                browser.page.navigate(address(path));
                int found = (int) browser.page.evaluate("() => document.documentElement.scrollWidth");
                if (found > width) {
                    wide.add(path + " is " + found + " px wide at " + width);
                }
            }
        }
        browser.page.setViewportSize(1280, 800);
        assertThat(wide).isEmpty();
    }

    @Test
    void keys_open_what_they_say() {
        Page page = browser.page;
        page.navigate("/look");
        page.keyboard().press("?");
        assertThat(page.locator("#keys").isVisible()).isTrue();
        page.keyboard().press("Escape");
        page.keyboard().press("/");
        page.keyboard().type("oa");
        page.locator("#found a", new Page.LocatorOptions().setHasText("oak"))
                .first()
                .waitFor();
        page.keyboard().press("ArrowDown");
        page.keyboard().press("Enter");
        page.waitForURL("**/build/pools/oak");
        page.keyboard().press("Alt+7");
        page.waitForURL("**/trace**");
    }

    @Test
    void a_key_that_takes_a_result_waits_for_the_answer_to_what_was_typed_last() {
        Page page = browser.page;
        Deque<Route> held = new ArrayDeque<>();
        page.route("**/find?q=oak", held::add);
        for (String key : new String[] {"ArrowDown", "Enter"}) {
            page.navigate("/look");
            page.keyboard().press("/");
            page.keyboard().type("o");
            page.locator("#found a").first().waitFor();
            page.waitForRequest("**/find?q=oak", () -> page.keyboard().type("ak"));
            page.keyboard().press(key);
            page.waitForCondition(() -> !held.isEmpty());
            assertThat(page.locator("#found a:focus").count()).isZero();
            held.remove().resume();
            if (key.equals("ArrowDown")) {
                page.locator("#found a:focus", new Page.LocatorOptions().setHasText("oak"))
                        .waitFor();
                page.keyboard().press("Enter");
            }
            page.waitForURL("**/build/pools/oak");
        }
        page.unrouteAll();
    }

    @Test
    void who_leaves_the_find_box_leaves_no_results() {
        Page page = browser.page;
        Deque<Route> held = new ArrayDeque<>();
        page.route("**/find?q=oak", held::add);
        page.navigate("/look");
        page.keyboard().press("/");
        page.keyboard().type("o");
        page.locator("#found a").first().waitFor();
        page.waitForRequest("**/find?q=oak", () -> page.keyboard().type("ak"));
        page.keyboard().press("Escape");
        assertThat(page.locator("#found a").count()).isZero();
        page.waitForCondition(() -> !held.isEmpty());
        page.waitForResponse("**/find?q=oak", () -> held.remove().resume());
        page.waitForTimeout(300);
        assertThat(page.locator("#found a").count()).isZero();
        page.unrouteAll();
    }

    @Test
    void a_table_gives_what_it_shows_as_csv() throws java.io.IOException {
        Page page = browser.page;
        page.navigate("/build");
        page.fill("[data-filter='#volumes']", "herb");
        var download = page.waitForDownload(() -> page.locator("#volumes")
                .locator("xpath=../following-sibling::button[1]")
                .click());
        String csv = new String(download.createReadStream().readAllBytes(), java.nio.charset.StandardCharsets.UTF_8);
        assertThat(download.suggestedFilename()).isEqualTo("Build.csv");
        assertThat(csv.lines().skip(1).map(line -> line.split(",")[0]))
                .containsExactly("\"herbarium\"", "\"replica-herbarium\"");
        assertThat(csv.lines().findFirst().orElseThrow()).startsWith("\"volume\",\"pool\",\"kind\",\"size, TiB\"");
    }
}
