package org.vastshelf.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import org.jooq.DSLContext;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import tools.jackson.databind.JsonNode;

/** Fifteen thousand homes: the fullest come first, whatever their names, and nobody has to read them all. */
class ManyAccountsTest {

    private static final int HOMES = 15_000;
    private static final DSLContext DB = App.bean(DSLContext.class);

    @BeforeAll
    static void open() {
        // The later in the alphabet, the fuller.
        DB.execute("INSERT INTO account SELECT UNHEX(SUBSTR(SHA2('homes:/*', 256), 1, 32)),"
                + " UNHEX(SUBSTR(SHA2(CONCAT('/many-', seq), 256), 1, 32)), rule_key, share, holder_kind,"
                + " CONCAT('/many-', seq), seq * 10000000, most_bytes, seq * 10000000 / most_bytes, NULL, ''"
                + " FROM (SELECT * FROM account WHERE share = 'homes' LIMIT 1) one, seq_10001_to_25000");
        DB.execute("UPDATE account a JOIN (SELECT rule_hash FROM account WHERE holder = '/suki' AND share = 'homes') r"
                + " SET a.rule_hash = r.rule_hash WHERE a.holder LIKE '/many-%'");
    }

    @AfterAll
    static void close() {
        DB.execute("DELETE FROM account WHERE holder LIKE '/many-%'");
    }

    private static JsonNode accounts(String query) {
        return App.get("odile", "/api/v1/accounts?" + query).json();
    }

    @Test
    void the_api_pages_through_them_fullest_first_and_finds_one() {
        JsonNode first = accounts("limit=50");
        assertThat(first.path("count").asInt()).isGreaterThan(HOMES);
        assertThat(first.path("items").size()).isEqualTo(50);
        assertThat(first.path("items").get(0).path("holder").asString()).isEqualTo("/many-25000");
        long last = first.path("items").get(49).path("used").asLong();
        assertThat(accounts("limit=50&from=50")
                        .path("items")
                        .get(0)
                        .path("used")
                        .asLong())
                .isLessThanOrEqualTo(last);
        JsonNode one = accounts("search=many-12345");
        assertThat(one.path("count").asInt()).isEqualTo(1);
        assertThat(one.path("items").get(0).path("used").asLong()).isEqualTo(123_450_000_000L);
    }

    @Test
    void the_page_and_what_needs_somebody_show_the_fullest() {
        try (Browser browser = new Browser(1280, 800).signIn("odile")) {
            browser.page.navigate("/limit");
            assertThat(browser.page.locator("#accounts tbody tr").count()).isEqualTo(100);
            assertThat(browser.page.locator("#accounts tbody tr").first().textContent())
                    .contains("homes/many-25000");
            browser.page.getByText("Emptier ones").click();
            browser.page.waitForURL("**from=100**");
            browser.page.locator("[name=search]").fill("many-10002");
            browser.page
                    .getByText("Show", new com.microsoft.playwright.Page.GetByTextOptions().setExact(true))
                    .click();
            browser.page.waitForURL("**search=many-10002**");
            assertThat(browser.page.locator("#accounts tbody tr").count()).isEqualTo(1);
            String look = browser.page.context().request().get("/look").text();
            assertThat(look).contains("homes/many-25000").doesNotContain("homes/many-10002");
            assertThat(look.length()).isLessThan(200_000);
        }
    }
}
