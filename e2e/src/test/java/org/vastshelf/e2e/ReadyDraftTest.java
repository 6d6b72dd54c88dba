package org.vastshelf.e2e;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;

import com.microsoft.playwright.Page;
import java.util.regex.Pattern;
import org.junit.jupiter.api.Test;

/** What one person drafted and called ready, another finds, looks through and carries out. */
class ReadyDraftTest {

    @Test
    void an_operator_carries_out_what_an_administrator_called_ready() {
        Drafts.discardAll();
        long id = App.post(
                        "odile",
                        "/api/v1/orders",
                        "{\"changes\":[{\"change\":\"SetAlarm\",\"volume\":\"plans\",\"percent\":71}]}")
                .json()
                .path("order")
                .path("id")
                .asLong();
        try (Browser browser = new Browser(1280, 800).signIn("tomas")) {
            Page page = browser.page;
            page.navigate("/orders/" + id);
            assertThat(page.locator("main")).containsText("In odile's work");
            assertThat(page.locator("#carry-out")).hasCount(0);
            App.post("odile", "/api/v1/orders/" + id + "/ready", "");
            page.navigate("/orders");
            page.getByText("Order " + id + ", by odile").click();
            page.waitForURL(Pattern.compile(".*/orders/" + id));
            assertThat(page.locator("#drawer")).hasCount(1);
            assertThat(page.locator("#drawer")).containsText("Order " + id + ", ready");
            assertThat(page.locator("#drawer")).containsText("by odile");
            page.waitForLoadState();
            page.locator("#carry-out").click();
            assertThat(page.locator("#steps")).isVisible();
        }
        for (int i = 0; i < 20 && !Drafts.state(id).equals("DONE"); i++) {
            App.post("odile", "/api/v1/time", "{\"hours\":1}");
        }
        String order = App.get("odile", "/api/v1/orders/" + id).text();
        org.assertj.core.api.Assertions.assertThat(order)
                .contains("\"author\":\"odile\"", "\"carriedOutBy\":\"tomas\"", "\"state\":\"DONE\"");
    }

    @Test
    void an_operator_has_the_buttons_of_what_the_api_lets_him_run() {
        try (Browser browser = new Browser(1280, 800).signIn("tomas")) {
            Page page = browser.page;
            page.navigate("/build/pools/ash");
            page.getByText("Scrub it now").click();
            page.waitForURL("**/build/pools/ash");
            assertThat(page.locator("main")).containsText("runs since");
            assertThat(page.getByText("Dissolve it")).hasCount(0);
            page.navigate("/build?scope=fernhill");
            assertThat(page.locator("[aria-label='Rescan for hardware of fernhill']"))
                    .isVisible();
        }
        App.post("odile", "/api/v1/time", "{\"hours\":72}");
    }
}
