package org.vastshelf.e2e;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.Media;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** Pages in everybody's hands: by key, without scripts, on paper, on a narrow screen, and when something is wrong. */
class HandsTest {

    private static final String FOUR =
            "&drives=fernhill/3/1&drives=fernhill/3/2&drives=fernhill/3/5&drives=fernhill/3/6";

    private static Browser browser;
    private static Page page;

    @BeforeAll
    static void open() {
        Drafts.discardAll();
        browser = new Browser(1280, 800).signIn("odile");
        page = browser.page;
    }

    @AfterAll
    static void close() {
        browser.close();
        Drafts.discardAll();
    }

    private static void refuse(String path, String form, String field, String typed) {
        page.navigate(path);
        page.locator("form[action='" + form + "'] [name=" + field + "]").fill(typed);
        page.locator("form[action='" + form + "'] button").first().click();
        page.waitForLoadState();
    }

    @Test
    void a_field_says_that_it_is_wrong_where_it_is_and_keeps_what_was_typed() {
        refuse("/build/volumes/film", "/build/volumes/film/grow", "amount", "12 zebras");
        Locator field = page.locator("form[action='/build/volumes/film/grow'] [name=amount]");
        assertThat(field).hasValue("12 zebras");
        assertThat(field).hasAttribute("aria-invalid", "true");
        assertThat(field).isFocused();
        String says = page.locator("#" + field.getAttribute("aria-describedby").split(" ")[0])
                .textContent();
        assertThat(says).contains("12 zebras");
        assertThat(page.locator("[aria-invalid]")).hasCount(1);
        assertThat(page.locator("[role=alert]")).containsText("12 zebras");
        assertThat(PagesTest.serious(page)).isEmpty();
        PagesTest.theme(page, "dark");
        assertThat(PagesTest.pale(page)).isEmpty();
        PagesTest.theme(page, "light");
    }

    @ParameterizedTest
    @ValueSource(strings = {"/limit/new stopAt", "/serve/new access", "/build/new/volume size", "/desk/make name"})
    void every_form_marks_the_field(String where) {
        String action = where.split(" ")[0];
        String name = where.split(" ")[1];
        page.navigate(action.startsWith("/desk") ? "/desk?person=suki&share=film" : action);
        page.locator("form[action='" + action + "'] [name=" + name + "]").fill("no/such word");
        page.locator("form[action='" + action + "'] button.button").last().click();
        page.waitForLoadState();
        assertThat(page.locator("form[action='" + action + "'] [name=" + name + "]"))
                .hasAttribute("aria-invalid", "true");
        assertThat(PagesTest.serious(page)).isEmpty();
    }

    @Test
    void the_reason_of_a_figure_is_shown_whole_and_goes_again() {
        page.navigate("/build/new/pool?server=fernhill" + FOUR);
        Locator figure = page.locator("td .fig").last();
        figure.focus();
        Locator why = figure.locator(".why");
        assertThat(why).isVisible();
        var box = why.boundingBox();
        assertThat(box.x).isGreaterThanOrEqualTo(0);
        assertThat(box.x + box.width).isLessThanOrEqualTo(1280);
        assertThat(box.y + box.height).isLessThanOrEqualTo(800);
        Object top = page.evaluate(
                "([x, y]) => document.elementFromPoint(x, y).closest('.why') !== null",
                java.util.List.of(box.x + box.width / 2, box.y + box.height - 4));
        assertThat(top).isEqualTo(true);
        assertThat(figure).hasAttribute("aria-describedby", why.getAttribute("id"));
        page.keyboard().press("Escape");
        assertThat(why).isHidden();
        page.locator("td .fig").first().focus();
        assertThat(page.locator(".why:visible")).hasCount(1);
        page.locator("#find").focus();
        assertThat(page.locator(".why:visible")).hasCount(0);
    }

    @Test
    void the_focus_stays_on_the_layout_that_was_chosen() {
        page.navigate("/build/new/pool?server=fernhill" + FOUR);
        page.locator("input[value=RAID_5]").focus();
        page.keyboard().press("Space");
        page.waitForResponse("**/build/compare", () -> page.keyboard().press("ArrowDown"));
        page.waitForTimeout(200);
        assertThat((String) page.evaluate("() => document.activeElement.name")).isEqualTo("layout");
        assertThat((boolean) page.evaluate("() => document.activeElement.checked"))
                .isTrue();
    }

    @Test
    void a_pool_is_composed_without_scripts() {
        try (Browser plain = new Browser(1280, 800, false).signIn("odile")) {
            plain.page.navigate("/build/new/pool?server=fernhill" + FOUR);
            plain.page.locator("main [name=name]").fill("plain");
            plain.page.locator("button:text-is('Work the layouts out')").click();
            assertThat(plain.page.locator("main [name=name]")).hasValue("plain");
            plain.page.locator("input[value=RAID_6]").check();
            plain.page.locator("#consequence button.first").click();
            plain.page.waitForURL("**/build?scope=fernhill");
            plain.page.navigate("/orders");
            assertThat(plain.page.locator("#orders")).containsText("Compose pool plain");
        }
        Drafts.discardAll();
    }

    @Test
    void with_an_open_drawer_nothing_is_found_and_names_stay_whole() {
        page.navigate("/build/volumes/film");
        page.locator("form[action='/build/volumes/film/grow'] button").click();
        page.waitForLoadState();
        for (int width : new int[] {1280, 390}) {
            page.setViewportSize(width, 800);
            for (String path : new String[] {"/build", "/look", "/foresee", "/limit"}) {
                page.navigate(path);
                assertThat(page.locator("#drawer #carry-out")).isVisible();
                assertThat(PagesTest.serious(page)).as("%s at %d", path, width).isEmpty();
                Object torn =
                        page.evaluate("() => Array.from(document.querySelectorAll('main td.name a, main td strong'))"
                                + ".filter(n => n.textContent.length < 14 && n.getClientRects().length > 1)"
                                + ".map(n => n.textContent).join()");
                assertThat(torn).as("%s at %d", path, width).isEqualTo("");
            }
        }
        page.setViewportSize(1280, 800);
        Drafts.discardAll();
    }

    @Test
    void on_a_narrow_screen_what_needs_somebody_is_read_over_the_whole_width() {
        page.setViewportSize(390, 800);
        page.navigate("/look");
        double sentence = page.locator(".attention td.sentence").first().boundingBox().width;
        assertThat(sentence).isGreaterThan(340);
        page.setViewportSize(1280, 800);
    }

    @Test
    void on_paper_stands_what_the_page_answers_and_nothing_that_acts() {
        page.navigate("/build/pools/oak");
        page.emulateMedia(new Page.EmulateMediaOptions().setMedia(Media.PRINT));
        for (String gone : new String[] {".verbs", ".plank", "#find", "main .button", ".csv"}) {
            assertThat(page.locator(gone + ":visible")).hasCount(0);
        }
        assertThat(page.locator("main h1")).isVisible();
        assertThat(page.locator("main table").first()).isVisible();
        page.emulateMedia(new Page.EmulateMediaOptions().setMedia(Media.SCREEN));
    }

    @Test
    void labels_touch_nothing() {
        for (String path : new String[] {"/desk", "/limit/new", "/serve/new", "/build/volumes/film", "/build/bench"}) {
            page.navigate(path);
            Object touching =
                    page.evaluate("() => Array.from(document.querySelectorAll('main .field > label:not(.choice)'))"
                            + ".filter(l => { const r = l.getBoundingClientRect();"
                            + " return Array.from(document.querySelectorAll('main h1, main h2, main input, main select, main textarea'))"
                            + ".some(o => { const b = o.getBoundingClientRect(); return b.width && r.width"
                            + " && b.left < r.right && b.right > r.left && b.bottom > r.top - 4 && b.top < r.bottom + 2; }); })"
                            + ".map(l => l.textContent).join()");
            assertThat(touching).as(path).isEqualTo("");
        }
        assertThat(browser.errors).isEmpty();
    }
}
