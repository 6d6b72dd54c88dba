package org.vastshelf.e2e;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;

import com.microsoft.playwright.Page;
import java.util.regex.Pattern;
import tools.jackson.databind.JsonNode;

/** Drafts and orders, by page and by API. */
final class Drafts {

    /** A short order may be through before the page asks for the first time. */
    private static final Pattern BEGUN = Pattern.compile("running|Finished\\.");

    private Drafts() {}

    /** Other tests leave drafts, which would stand in the drawer. */
    static void discardAll() {
        for (var order : App.get("odile", "/api/v1/orders").json().path("items")) {
            if (order.path("state").asString().equals("DRAFT")) {
                App.post("odile", "/api/v1/orders/" + order.path("id").asLong() + "/discard", "");
            }
        }
    }

    /** By Ctrl+Enter; then the clock is moved until it is done. */
    static void carryOut(Page page) {
        assertThat(page.locator("#carry-out")).isEnabled();
        page.waitForLoadState();
        page.keyboard().press("Control+Enter");
        page.waitForURL(Pattern.compile(".*/orders/[0-9]+"));
        assertThat(page.locator("#steps")).containsText(BEGUN);
        page.keyboard().press(".");
        page.locator("#time button[value=hour]").click();
        assertThat(page.locator("#steps")).containsText("Finished.");
    }

    /** Drafts these changes, confirms what has to be, carries them out and moves the clock until they are done. */
    static long carryOut(String changes) {
        JsonNode draft = App.post("odile", "/api/v1/orders", "{\"changes\":[" + changes + "]}")
                .json();
        long id = draft.path("order").path("id").asLong();
        for (JsonNode check : draft.path("checks")) {
            if (check.path("verdict").asString().equals("CONFIRM")) {
                App.post(
                        "odile",
                        "/api/v1/orders/" + id + "/confirm",
                        "{\"key\":\"" + check.path("key").asString() + "\"}");
            }
        }
        App.Reply begun = App.post("odile", "/api/v1/orders/" + id + "/carry-out", "");
        if (begun.status() != 200) {
            throw new AssertionError(begun.text());
        }
        for (int i = 0; i < 20 && !state(id).equals("DONE"); i++) {
            App.post("odile", "/api/v1/time", "{\"hours\":6}");
        }
        if (!state(id).equals("DONE")) {
            throw new AssertionError("order " + id + " is " + state(id));
        }
        return id;
    }

    /** What a draft of these changes is told. */
    static String checks(String changes) {
        JsonNode draft = App.post("odile", "/api/v1/orders", "{\"changes\":[" + changes + "]}")
                .json();
        App.post("odile", "/api/v1/orders/" + draft.path("order").path("id").asLong() + "/discard", "");
        return draft.path("checks").toString();
    }

    /** The state of an order once it is this one, or what it is after ten seconds. */
    static String awaited(long id, String wanted) {
        String state = state(id);
        for (int i = 0; i < 100 && !state.equals(wanted); i++) {
            try {
                Thread.sleep(100);
            } catch (InterruptedException e) {
                Thread.currentThread().interrupt();
            }
            state = state(id);
        }
        return state;
    }

    static String state(long id) {
        return App.get("odile", "/api/v1/orders/" + id)
                .json()
                .path("order")
                .path("state")
                .asString();
    }
}
