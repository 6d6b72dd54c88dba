package org.vastshelf.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.APIRequestContext;
import com.microsoft.playwright.Page;
import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import java.util.TreeSet;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import tools.jackson.databind.JsonNode;

/** Whoever keeps a share reads of that share, and not even the names of others. */
class KeeperTest {

    private static final Pattern HREF = Pattern.compile("<a [^>]*href=\"(/[^\"#]*)\"");

    private static List<String> names(String kind, String part) {
        List<String> names = new ArrayList<>();
        for (JsonNode item :
                App.get("odile", "/api/v1/" + kind + "?limit=1000").json().path("items")) {
            names.add((part.isEmpty() ? item : item.path(part)).path("name").asString());
        }
        return names;
    }

    @Test
    void no_page_of_a_keeper_names_another_space() {
        List<String> own = new ArrayList<>();
        for (JsonNode share :
                App.get("odile", "/api/v1/shares?limit=1000").json().path("items")) {
            for (JsonNode rule : share.path("access")) {
                if (rule.path("name").asString().equals("bram")
                        && rule.path("level").asString().equals("OWN")) {
                    own.add(share.path("name").asString());
                }
            }
        }
        assertThat(own).isNotEmpty();
        List<String> others = Stream.of(names("shares", ""), names("volumes", "volume"), names("pools", "pool"))
                .flatMap(List::stream)
                .filter(name -> !own.contains(name))
                .distinct()
                .toList();
        assertThat(others).hasSizeGreaterThan(8);
        List<String> paths = new ArrayList<>(List.of(
                "/look",
                "/foresee",
                "/foresee?show=shares",
                "/foresee?show=accounts",
                "/foresee/orders",
                "/foresee/kept",
                "/foresee/estate/whole",
                "/serve",
                "/limit",
                "/find?q="));
        others.forEach(name -> {
            paths.add("/look?scope=" + name);
            paths.add("/find?q=" + name);
            paths.add("/limit?rule=" + name + ":/&search=" + name);
            paths.add("/serve/shares/" + name);
            paths.add("/foresee/volume/" + name);
            paths.add("/foresee/pool/" + name);
            paths.add("/foresee/server/" + name);
            paths.add("/foresee/volume/" + name + "/suppose");
            paths.add("/foresee/volume/" + name + "/suppose/chart");
        });
        try (Browser browser = new Browser(1280, 800).signIn("bram")) {
            APIRequestContext request = browser.page.context().request();
            for (String path : paths) {
                String text = request.get(path)
                        .text()
                        .replaceAll("(?s)<head>.*?</head>", "")
                        .replaceAll("(?s)<script.*?</script>", "");
                for (String name : others) {
                    boolean asked = path.contains(name);
                    assertThat(asked || !text.matches("(?s).*\\b" + name + "\\b.*"))
                            .as("%s names %s", path, name)
                            .isTrue();
                }
            }
        }
    }

    @Test
    void a_space_that_is_not_theirs_is_as_if_it_were_not_there() {
        try (Browser browser = new Browser(1280, 800).signIn("bram")) {
            APIRequestContext request = browser.page.context().request();
            // What leads to a page that is not theirs is not told.
            assertThat(request.get("/look").text()).contains("herbarium").doesNotContain("/protect/pairs/");
            for (String path : List.of("/serve/shares/", "/foresee/volume/", "/foresee/pool/")) {
                var there = request.get(path + (path.endsWith("pool/") ? "oak" : "sequences"));
                var nowhere = request.get(path + "nowhere");
                assertThat(there.status()).isEqualTo(nowhere.status()).isEqualTo(404);
            }
            for (String path : List.of("/build", "/trace", "/orders", "/look/folders", "/look/notices", "/protect")) {
                assertThat(request.get(path).status()).as(path).isEqualTo(403);
            }
        }
    }

    /** What falls short is told, but not where only others can mend it. */
    @Test
    void what_wants_somebody_leads_keepers_only_where_they_may_go() {
        Drafts.carryOut("""
                {"change":"SetRule","rule":{"rule":"ProtectionGoal","share":"herbarium",
                "loseMinutes":15,"backMinutes":60,"against":["SITE"]}}""");
        try (Browser browser = new Browser(1280, 800).signIn("bram")) {
            browser.page.navigate("/look");
            assertThat(browser.page
                            .locator("table.attention tr", new Page.LocatorOptions().setHasText("lost, "))
                            .first()
                            .textContent())
                    .contains("Share herbarium", "ask an administrator");
            // Why it is behind may name a pool.
            assertThat(browser.page
                            .locator("table.attention tr", new Page.LocatorOptions().setHasText("Copy of herbarium"))
                            .textContent())
                    .containsPattern("is behind by [0-9]+ days\\s")
                    .contains("ask an administrator");
            List<Object> links = List.copyOf((List<?>) browser.page
                    .locator("table.attention a")
                    .evaluateAll("all => all.map(a => a.getAttribute('href'))"));
            for (Object link : links) {
                assertThat(browser.page
                                .context()
                                .request()
                                .get(String.valueOf(link))
                                .status())
                        .as("%s", link)
                        .isEqualTo(200);
            }
        } finally {
            Drafts.carryOut("{\"change\":\"DropRule\",\"kind\":\"protection goal\",\"governs\":\"herbarium\"}");
        }
    }

    /** The find box and the frame of a page know who asks. */
    @ParameterizedTest
    @ValueSource(strings = {"odile", "tomas", "ines", "bram", "suki"})
    void nobody_is_led_to_a_page_that_is_not_for_them(String who) {
        try (Browser browser = new Browser(1280, 800).signIn(who)) {
            APIRequestContext request = browser.page.context().request();
            Set<String> links = new TreeSet<>();
            for (String page : List.of("/", "/find?q=", "/find?q=e", "/find?q=s")) {
                HREF.matcher(request.get(page).text())
                        .results()
                        .forEach(link -> links.add(link.group(1).replace("&amp;", "&")));
            }
            assertThat(links).hasSizeGreaterThan(2);
            assertThat(links)
                    .allSatisfy(link -> assertThat(request.get(link).status()).isEqualTo(200));
        }
    }
}
