package org.vastshelf.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.APIRequestContext;
import com.microsoft.playwright.APIResponse;
import java.util.List;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.junit.jupiter.api.Test;

/** What all pages share: files that are fetched once, the theme before and after somebody is known, wrong addresses. */
class FrameTest {

    private static final Pattern BUILT = Pattern.compile("(?:href|src)=\"(/built/[^\"]+)\"");

    private static final int LEAST_COMPRESSED = 2_048;

    @Test
    void built_files_carry_their_contents_in_their_names_and_are_fetched_once() {
        try (Browser browser = new Browser(1280, 800).signIn("odile")) {
            APIRequestContext request = browser.page.context().request();
            Matcher files = BUILT.matcher(request.get("/serve").text());
            int count = 0;
            for (; files.find(); count++) {
                assertThat(files.group(1)).matches("/built/.*-[0-9a-f]{32}\\.(css|js)");
                APIResponse file = request.get(files.group(1));
                assertThat(file.status()).as(files.group(1)).isEqualTo(200);
                assertThat(file.headers().get("cache-control")).contains("max-age=31536000");
                if (file.body().length > LEAST_COMPRESSED) {
                    assertThat(file.headers().get("content-encoding"))
                            .as(files.group(1))
                            .isEqualTo("gzip");
                }
            }
            assertThat(count).isGreaterThanOrEqualTo(6);
            assertThat(request.get("/serve").headers().get("cache-control")).contains("no-store");
        }
    }

    @Test
    void the_door_and_error_pages_keep_the_theme_of_the_browser() {
        try (Browser browser = new Browser(1280, 800).signIn("odile")) {
            App.post("odile", "/api/v1/preferences", "{\"theme\":\"dark\"}");
            browser.page.navigate("/look");
            for (String path : List.of("/nowhere", "/build/pools/nowhere", "/look")) {
                browser.page.navigate(path);
                assertThat(browser.page.locator("html").getAttribute("data-theme"))
                        .as(path)
                        .isEqualTo("dark");
            }
            browser.page
                    .context()
                    .clearCookies(
                            new com.microsoft.playwright.BrowserContext.ClearCookiesOptions().setName("vastshelf"));
            browser.page.navigate("/look");
            assertThat(browser.page.url()).endsWith("/sign-in");
            assertThat(browser.page.locator("html").getAttribute("data-theme")).isEqualTo("dark");
        } finally {
            App.post("odile", "/api/v1/preferences", "{\"theme\":\"light\"}");
        }
    }

    @Test
    void an_address_that_does_not_exist_is_not_there_for_anybody() {
        assertThat(App.get("suki", "/api/v1/nowhere").status()).isEqualTo(403);
        assertThat(App.get("odile", "/api/v2/nowhere").status()).isEqualTo(404);
        try (Browser browser = new Browser(1280, 800).signIn("suki")) {
            APIRequestContext request = browser.page.context().request();
            assertThat(request.get("/nowhere").status()).isEqualTo(404);
            browser.page.navigate("/nowhere");
            assertThat(browser.page.textContent("h1")).isEqualTo("There is no such page");
            assertThat(request.get("/build").status()).isEqualTo(403);
        }
    }
}
