package org.vastshelf.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.springframework.http.HttpMethod;
import org.springframework.http.server.PathContainer;
import org.springframework.web.bind.annotation.RequestMethod;
import org.springframework.web.servlet.mvc.method.annotation.RequestMappingHandlerMapping;
import org.springframework.web.util.pattern.PathPatternParser;
import org.vastshelf.app.security.Access;
import org.vastshelf.app.security.Role;
import org.vastshelf.app.security.Routes;

/** Walks all routes with all roles. */
class RoutesTest {

    private static final Map<Role, String> PEOPLE = Map.of(
            Role.ADMINISTRATOR, "odile",
            Role.OPERATOR, "tomas",
            Role.AUDITOR, "ines",
            Role.KEEPER, "bram",
            Role.FILE_USER, "pell");

    private record Handled(RequestMethod method, String path) {}

    private static List<Handled> handled() {
        List<Handled> all = new ArrayList<>();
        App.bean("requestMappingHandlerMapping", RequestMappingHandlerMapping.class)
                .getHandlerMethods()
                .forEach((info, method) -> {
                    if (method.getBeanType().getName().startsWith("org.vastshelf")) {
                        info.getPatternValues()
                                .forEach(path -> info.getMethodsCondition()
                                        .getMethods()
                                        .forEach(verb ->
                                                all.add(new Handled(verb, path.replaceAll("\\{[a-z]+}", "7")))));
                    }
                });
        return all;
    }

    private static Access access(Handled handled) {
        PathContainer path = PathContainer.parsePath(handled.path);
        return Routes.all().stream()
                .filter(r -> r.method() == null || r.method().equals(HttpMethod.valueOf(handled.method.name())))
                .filter(r ->
                        PathPatternParser.defaultInstance.parse(r.pattern()).matches(path))
                .map(Routes.Route::access)
                .findFirst()
                .orElseThrow(() -> new AssertionError(handled + " has no role"));
    }

    @Test
    void every_handler_has_a_route_with_a_role() {
        assertThat(handled())
                .hasSizeGreaterThan(60)
                .allSatisfy(h -> assertThat(access(h)).isNotNull());
    }

    @Test
    void api_routes_let_in_exactly_the_roles_they_name() {
        for (Handled handled : handled()) {
            if (!handled.path.startsWith("/api/v1")) {
                continue;
            }
            for (Role role : Role.values()) {
                int status = call(handled, PEOPLE.get(role));
                boolean may = access(handled).roles().contains(role);
                assertThat(status != 403).as(handled + " as " + role).isEqualTo(may);
                assertThat(status).isNotIn(401, 500);
            }
            assertThat(call(handled, "")).as(handled + " as nobody").isEqualTo(401);
        }
    }

    private static int call(Handled handled, String who) {
        return handled.method == RequestMethod.GET
                ? App.get(who, handled.path).status()
                : App.post(who, handled.path, "{}").status();
    }

    @Test
    void pages_let_in_exactly_the_roles_they_name() {
        for (Role role : Role.values()) {
            try (Browser browser = new Browser(800, 600).signIn(PEOPLE.get(role))) {
                for (Handled handled : handled()) {
                    if (handled.method == RequestMethod.GET
                            && !handled.path.startsWith("/api")
                            && !handled.path.equals("/events")) {
                        int status = browser.page
                                .context()
                                .request()
                                .get(handled.path)
                                .status();
                        boolean may = access(handled) == Access.OPEN
                                || access(handled).roles().contains(role);
                        assertThat(status != 403).as(handled + " as " + role).isEqualTo(may);
                        assertThat(status).as(handled + " as " + role).isNotEqualTo(500);
                    }
                }
            }
        }
    }

    @Test
    void nobody_posts_to_a_page_without_its_token() {
        try (Browser browser = new Browser(800, 600).signIn("odile")) {
            assertThat(browser.page.context().request().post("/time").status()).isEqualTo(403);
        }
    }

    @Test
    void a_wrong_password_is_refused_and_repeats_are_slowed_without_locking_anybody_out() {
        long begun;
        try (Browser browser = new Browser(800, 600)) {
            begun = System.nanoTime();
            for (int i = 0; i < 8; i++) {
                browser.page.navigate("/sign-in");
                browser.page.fill("[name=username]", "ines");
                browser.page.fill("[name=password]", "wrong");
                browser.page.keyboard().press("Enter");
                browser.page.waitForURL("**/sign-in?error");
            }
            assertThat(browser.page.locator("[role=alert]").textContent()).isEqualTo("Name or password is wrong");
        }
        // 0.25 + 0.5 + 1 s before the sixth, seventh and eighth try.
        assertThat(System.nanoTime() - begun).isGreaterThan(1_700_000_000L);
        assertThat(App.get("ines", "/api/v1/pools").status()).isEqualTo(200);
    }
}
