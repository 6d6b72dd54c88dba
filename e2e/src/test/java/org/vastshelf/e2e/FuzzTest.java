package org.vastshelf.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.APIRequestContext;
import com.microsoft.playwright.APIResponse;
import com.microsoft.playwright.options.RequestOptions;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Random;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.Test;
import org.springframework.web.bind.annotation.RequestMethod;
import org.springframework.web.servlet.mvc.method.annotation.RequestMappingHandlerMapping;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/**
 * Nonsense on every route: bodies made of the OpenAPI document with parts that are null, missing, mistyped, extreme or
 * strange, and forms with the same. Whatever comes, nobody gets an error of the server, and all pages still answer.
 */
class FuzzTest {

    private static final int CALLS = Integer.getInteger("vastshelf.fuzz", 1_000);
    private static final long SEED = Long.getLong("vastshelf.seed", 20_260_302L);
    private static final JsonMapper JSON = new JsonMapper();
    private static final List<String> NAMES = List.of(
            "oak",
            "elm",
            "film",
            "homes",
            "office",
            "fernhill",
            "northbank",
            "fernhill/1/1",
            "fernhill/3/2",
            "odile",
            "suki",
            "7",
            "1",
            "nothing",
            "a".repeat(900),
            "{x}",
            "%0d%0aX:1",
            "../..",
            "ü",
            "'\"<b>",
            "RAID_5",
            "WRITE",
            "10.20.0.0/16",
            "/",
            "/suki",
            "/a/" + "b".repeat(200),
            "1 TiB",
            "-1",
            "1e9",
            "");

    private static final int AT_ONCE = 3;

    private final ThreadLocal<Random> lots = new ThreadLocal<>();
    private final JsonNode document = App.get("odile", "/api/openapi.json").json();
    private final List<String> failures = java.util.Collections.synchronizedList(new ArrayList<>());

    private <T> T one(List<T> list) {
        return list.get(lots.get().nextInt(list.size()));
    }

    /** A value for a schema, more often than not of the right kind. */
    private String value(JsonNode schema, int depth) {
        if (lots.get().nextInt(12) == 0 || depth > 5) {
            return one(List.of(
                    "null",
                    "{}",
                    "[]",
                    "[null]",
                    "true",
                    "-1",
                    "0",
                    "1e400",
                    "9223372036854775807",
                    "1.5",
                    "\"\"",
                    "\"x\"",
                    "{\"a\":null}"));
        }
        if (schema.has("$ref")) {
            return value(document.at(schema.path("$ref").asString().substring(1)), depth + 1);
        }
        for (String choice : List.of("oneOf", "anyOf", "allOf")) {
            if (schema.has(choice) && !schema.path(choice).isEmpty()) {
                return value(
                        schema.path(choice)
                                .get(lots.get().nextInt(schema.path(choice).size())),
                        depth + 1);
            }
        }
        if (schema.has("enum")) {
            return "\""
                    + schema.path("enum")
                            .get(lots.get().nextInt(schema.path("enum").size()))
                            .asString() + "\"";
        }
        return switch (schema.path("type").asString()) {
            case "array" -> {
                List<String> items = new ArrayList<>();
                for (int i = lots.get().nextInt(4); i > 0; i--) {
                    items.add(value(schema.path("items"), depth + 1));
                }
                yield "[" + String.join(",", items) + "]";
            }
            case "object" -> object(schema, depth);
            case "integer" ->
                one(List.of("0", "1", "2", "-5", "100", "1000000000000", "9223372036854775807", "3000000000"));
            case "number" -> one(List.of("0", "0.5", "-1", "1e308", "1"));
            case "boolean" -> one(List.of("true", "false"));
            default -> JSON.writeValueAsString(one(NAMES));
        };
    }

    private String object(JsonNode schema, int depth) {
        if (!schema.has("properties")) {
            return new Nonsense(lots.get(), () -> one(NAMES)).change();
        }
        List<String> parts = new ArrayList<>();
        schema.path("properties").propertyStream().forEach(part -> {
            if (lots.get().nextInt(10) > 0) {
                parts.add("\"" + part.getKey() + "\":" + value(part.getValue(), depth + 1));
            }
        });
        if (lots.get().nextInt(12) == 0) {
            parts.add("\"unheardOf\":1");
        }
        return "{" + String.join(",", parts) + "}";
    }

    private String filled(String path) {
        String filled = path;
        while (filled.contains("{")) {
            String name = one(NAMES);
            String safe =
                    java.net.URLEncoder.encode(name.isEmpty() ? "x" : name, java.nio.charset.StandardCharsets.UTF_8);
            filled = filled.replaceFirst(
                    "\\{[^}]*}", java.util.regex.Matcher.quoteReplacement(safe.replace("+", "%20")));
        }
        return filled;
    }

    /** Nonsense may have set the object store of the bench to refuse, which others of these tests would suffer from. */
    @AfterAll
    static void answersAgain() {
        App.post("odile", "/api/v1/bench/store", "{\"manner\":\"ANSWERS\"}");
    }

    @Test
    void nonsense_gets_an_answer_and_leaves_everything_standing() throws InterruptedException {
        List<Thread> threads = new ArrayList<>();
        for (int i = 0; i < AT_ONCE; i++) {
            long seed = SEED + i;
            threads.add(Thread.ofPlatform().start(() -> {
                lots.set(new Random(seed));
                calls(CALLS * 3 / 5 / AT_ONCE);
            }));
        }
        lots.set(new Random(SEED - 1));
        forms();
        for (Thread thread : threads) {
            thread.join();
        }
        assertThat(failures.stream().limit(40)).isEmpty();
        pagesAnswer();
    }

    private void calls(int count) {
        List<Map.Entry<String, JsonNode>> paths =
                document.path("paths").propertyStream().toList();
        for (int i = 0; i < count; i++) {
            var path = one(paths);
            var verb = one(path.getValue().propertyStream().toList());
            String target = filled(path.getKey());
            // Moving the clock by nonsense would only make the test long.
            if (path.getKey().equals("/api/v1/time")) {
                continue;
            }
            JsonNode body = verb.getValue().at("/requestBody/content/application~1json/schema");
            String text = body.isMissingNode() ? "" : value(body, 0);
            App.Reply reply =
                    verb.getKey().equals("get") ? App.get("odile", target + query()) : App.post("odile", target, text);
            if (reply.status() >= 500) {
                failures.add(verb.getKey() + " " + target + " " + text + " → " + reply.status());
            }
        }
    }

    private String query() {
        return lots.get().nextInt(3) > 0
                ? ""
                : "?"
                        + one(List.of("limit", "after", "before", "person", "share", "path", "kind", "noted", "from"))
                        + "="
                        + java.net.URLEncoder.encode(one(NAMES), java.nio.charset.StandardCharsets.UTF_8);
    }

    private void forms() {
        List<String> routes = new ArrayList<>();
        App.bean("requestMappingHandlerMapping", RequestMappingHandlerMapping.class)
                .getHandlerMethods()
                .keySet()
                .forEach(info -> {
                    if (info.getMethodsCondition().getMethods().contains(RequestMethod.POST)) {
                        routes.addAll(info.getPatternValues());
                    }
                });
        routes.removeIf(r -> r.startsWith("/api") || r.equals("/time") || r.equals("/sign-out"));
        routes.sort(null);
        try (Browser browser = new Browser(800, 600).signIn("odile")) {
            browser.page.navigate("/build/bench");
            String token = browser.page.locator("input[name=_csrf]").first().inputValue();
            APIRequestContext http = browser.page.context().request();
            for (int i = 0; i < CALLS * 2 / 5; i++) {
                String route = filled(one(routes));
                RequestOptions options = RequestOptions.create()
                        .setMaxRedirects(0)
                        .setHeader("Content-Type", "application/x-www-form-urlencoded")
                        .setData(form(token));
                if (lots.get().nextInt(20) == 0) {
                    options.setHeader("Content-Type", "multipart/form-data").setHeader("X-CSRF-TOKEN", token);
                }
                APIResponse reply = http.post(route, options);
                if (reply.status() >= 500) {
                    failures.add("form " + route + " → " + reply.status());
                }
                reply.dispose();
            }
        }
    }

    private String form(String token) {
        StringBuilder form = new StringBuilder("_csrf=" + token);
        for (String field : List.of(
                "name",
                "pool",
                "volume",
                "share",
                "person",
                "path",
                "size",
                "server",
                "number",
                "node",
                "drive",
                "drives",
                "layout",
                "spares",
                "rule",
                "kind",
                "percent",
                "position",
                "struck",
                "key",
                "yes",
                "units",
                "theme",
                "limit",
                "reserve",
                "days",
                "hours",
                "stopAt",
                "access",
                "exports",
                "smb",
                "ownFolders")) {
            if (lots.get().nextInt(3) > 0) {
                form.append('&')
                        .append(field)
                        .append('=')
                        .append(java.net.URLEncoder.encode(one(NAMES), java.nio.charset.StandardCharsets.UTF_8));
            }
        }
        return form.toString();
    }

    /** Also for the administrator, whose drafts are full of nonsense by now. */
    private static void pagesAnswer() {
        for (String who : List.of("odile", "tomas", "ines", "bram", "pell")) {
            try (Browser browser = new Browser(800, 600).signIn(who)) {
                for (String page : List.of(
                        "/look",
                        "/build",
                        "/serve",
                        "/limit",
                        "/trace",
                        "/foresee",
                        "/orders",
                        "/desk",
                        "/build/bench",
                        "/build/definitions",
                        "/build/pools/oak",
                        "/serve/new",
                        "/build/new/volume")) {
                    assertThat(browser.page.context().request().get(page).status())
                            .as(page + " for " + who)
                            .isLessThan(500);
                }
            }
        }
    }
}
