package org.vastshelf.app.security;

import java.util.List;
import org.springframework.http.HttpMethod;
import org.springframework.http.server.PathContainer;
import org.springframework.web.util.pattern.PathPattern;
import org.springframework.web.util.pattern.PathPatternParser;

/** Every route and who may take it; the first that matches holds, and what matches none is refused. */
public final class Routes {

    /** A route; {@code method} null for all. */
    public record Route(@org.jspecify.annotations.Nullable HttpMethod method, String pattern, Access access) {}

    private static final List<Route> ALL = List.of(
            any("/built/**", Access.OPEN),
            any("/sign-in", Access.OPEN),
            any("/favicon.svg", Access.OPEN),
            any("/favicon.ico", Access.OPEN),
            any("/error", Access.OPEN),
            get("/actuator/health/**", Access.OPEN),
            get("/actuator/prometheus", Access.READERS),
            get("/api/openapi.json", Access.EVERYBODY),
            post("/sign-out", Access.EVERYBODY),
            get("/", Access.EVERYBODY),
            any("/preferences", Access.EVERYBODY),
            get("/keys", Access.EVERYBODY),
            get("/events", Access.EVERYBODY),
            get("/find", Access.KEEPERS),
            get("/plank", Access.READERS),
            get("/drawer", Access.RUNNERS),
            any("/desk/**", Access.DESKS),
            any("/api/v1/desk/**", Access.DESKS),
            post("/api/v1/kept-bytes/looks", Access.RUNNERS),
            any("/api/v1/preferences", Access.EVERYBODY),
            get("/time", Access.EVERYBODY),
            post("/time", Access.RUNNERS),
            post("/api/v1/time", Access.RUNNERS),
            post("/api/v1/layouts/compare", Access.READERS),
            post("/api/v1/what-if", Access.READERS),
            post("/api/v1/pools/*/replacement", Access.READERS),
            post("/api/v1/volumes/*/growth-simulation", Access.READERS),
            post("/api/v1/reservations/offers", Access.READERS),
            post("/api/v1/forecasts/fill-date", Access.READERS),
            post("/api/v1/snapshots/hold", Access.READERS),
            post("/api/v1/snapshots/looks", Access.RUNNERS),
            post("/api/v1/volumes/*/snapshots", Access.RUNNERS),
            post("/api/v1/volumes/*/snapshots/delete", Access.RUNNERS),
            post("/api/v1/volumes/*/snapshots/*/lock", Access.RUNNERS),
            post("/api/v1/volumes/*/saving/begin", Access.RUNNERS),
            post("/api/v1/volumes/*/saving/stop", Access.RUNNERS),
            post("/api/v1/shares/*/snapshots/*/bring-back", Access.RUNNERS),
            post("/api/v1/schedules/preview", Access.READERS),
            post("/api/v1/replicas/plan", Access.READERS),
            post("/api/v1/tiering/plan", Access.READERS),
            post("/api/v1/tiering/**", Access.RUNNERS),
            post("/api/v1/retention/seal", Access.DESIGNERS),
            post("/api/v1/legal-holds", Access.RUNNERS),
            post("/api/v1/legal-holds/*", Access.RUNNERS),
            get("/api/v1/**", Access.READERS),
            post("/orders/*/carry-out", Access.RUNNERS),
            post("/orders/*/take-back", Access.RUNNERS),
            post("/orders/*/leave", Access.RUNNERS),
            post("/api/v1/orders/*/leave", Access.RUNNERS),
            post("/api/v1/orders/*/ready", Access.DESIGNERS),
            post("/api/v1/orders/*/reopen", Access.DESIGNERS),
            post("/build/pools/*/lift/run", Access.RUNNERS),
            get("/build/schedule", Access.DESIGNERS),
            post("/orders/*/pause", Access.RUNNERS),
            post("/orders/*/go-on", Access.RUNNERS),
            post("/api/v1/orders/*/pause", Access.RUNNERS),
            post("/api/v1/orders/*/go-on", Access.RUNNERS),
            post("/orders/*/confirm", Access.RUNNERS),
            post("/api/v1/orders/*/carry-out", Access.RUNNERS),
            post("/api/v1/orders/*/take-back", Access.RUNNERS),
            post("/api/v1/orders/*/confirm", Access.RUNNERS),
            post("/api/v1/orders", Access.DESIGNERS),
            post("/api/v1/definitions/**", Access.DESIGNERS),
            post("/api/v1/orders/*/strike", Access.DESIGNERS),
            post("/api/v1/orders/*/discard", Access.DESIGNERS),
            post("/orders/**", Access.DESIGNERS),
            get("/orders/**", Access.READERS),
            get("/look/folders/new", Access.RUNNERS),
            get("/look/folders/**", Access.READERS),
            post("/look/folders/**", Access.RUNNERS),
            post("/api/v1/catalogues/**", Access.RUNNERS),
            get("/look/notices", Access.READERS),
            get("/look/**", Access.KEEPERS),
            post("/foresee/*/*/history", Access.RUNNERS),
            post("/foresee/*/*/suppose", Access.DESIGNERS),
            post("/foresee/*/*/forget", Access.DESIGNERS),
            post("/foresee/orders/terms/*", Access.DESIGNERS),
            post("/foresee/orders/draft", Access.DESIGNERS),
            get("/foresee/orders", Access.READERS),
            get("/foresee/orders.csv", Access.READERS),
            get("/foresee/orders.ics", Access.READERS),
            get("/foresee/kept", Access.READERS),
            post("/api/v1/spaces/*/*/history", Access.RUNNERS),
            get("/foresee/**", Access.KEEPERS),
            any("/build/bench", Access.RUNNERS),
            post("/build/locate", Access.RUNNERS),
            post("/build/scrub", Access.RUNNERS),
            post("/api/v1/pools/*/scrub", Access.RUNNERS),
            post("/api/v1/pools/*/lifts", Access.RUNNERS),
            post("/build/rescan", Access.RUNNERS),
            post("/api/v1/bench", Access.RUNNERS),
            post("/api/v1/servers/*/rescan", Access.RUNNERS),
            post("/api/v1/drives/**", Access.RUNNERS),
            get("/build/new/**", Access.DESIGNERS),
            post("/build/compare", Access.DESIGNERS),
            post("/build/**", Access.DESIGNERS),
            get("/build/**", Access.READERS),
            get("/serve/new", Access.DESIGNERS),
            post("/serve/**", Access.DESIGNERS),
            get("/serve/**", Access.KEEPERS),
            get("/limit/new", Access.DESIGNERS),
            post("/limit/**", Access.DESIGNERS),
            get("/limit/**", Access.KEEPERS),
            post("/lighten/prices/*", Access.DESIGNERS),
            post("/lighten/measures/*/once", Access.DESIGNERS),
            post("/lighten/measures/*/away", Access.DESIGNERS),
            post("/lighten/rules", Access.DESIGNERS),
            post("/lighten/rules/*", Access.DESIGNERS),
            post("/lighten/rules/*/drop", Access.DESIGNERS),
            post("/lighten/volumes/*", Access.DESIGNERS),
            post("/lighten/volumes/*/drop", Access.DESIGNERS),
            post("/lighten/left/recall", Access.DESIGNERS),
            post("/lighten/left/rebuild", Access.DESIGNERS),
            post("/lighten/stores", Access.DESIGNERS),
            post("/lighten/stores/*", Access.DESIGNERS),
            post("/lighten/stores/*/drop", Access.DESIGNERS),
            post("/lighten/stores/*/keys", Access.DESIGNERS),
            post("/api/v1/cold-stores/*/keys", Access.DESIGNERS),
            post("/api/v1/cold-stores/*/check", Access.RUNNERS),
            post("/api/v1/cold-stores/*/comparisons", Access.RUNNERS),
            post("/api/v1/bench/store", Access.RUNNERS),
            post("/lighten/**", Access.RUNNERS),
            get("/lighten/**", Access.READERS),
            post("/protect/volumes/*", Access.RUNNERS),
            post("/protect/volumes/*/schedule", Access.DESIGNERS),
            post("/protect/volumes/*/schedule/drop", Access.DESIGNERS),
            get("/protect/volumes/*/schedule", Access.DESIGNERS),
            post("/protect/volumes/*/reserve", Access.DESIGNERS),
            post("/protect/volumes/*/reserve/drop", Access.DESIGNERS),
            post("/protect/pools/*/reserve", Access.DESIGNERS),
            post("/protect/pools/*/reserve/drop", Access.DESIGNERS),
            post("/protect/volumes/*/delete", Access.RUNNERS),
            post("/protect/snapshots/*/*/bring", Access.RUNNERS),
            post("/protect/snapshots/*/*/draft", Access.DESIGNERS),
            post("/protect/volumes/*/lock", Access.RUNNERS),
            post("/protect/shares/*", Access.DESIGNERS),
            post("/protect/shares/*/drop", Access.DESIGNERS),
            post("/protect/shares/*/mend", Access.DESIGNERS),
            post("/protect/clones", Access.DESIGNERS),
            post("/protect/clones/*", Access.DESIGNERS),
            post("/protect/pairs", Access.DESIGNERS),
            post("/protect/pairs/*", Access.DESIGNERS),
            post("/protect/pairs/*/left", Access.DESIGNERS),
            post("/protect/pairs/*/rehearsals", Access.DESIGNERS),
            post("/protect/retention", Access.DESIGNERS),
            post("/protect/retention/*", Access.DESIGNERS),
            post("/protect/holds", Access.RUNNERS),
            post("/protect/holds/*", Access.RUNNERS),
            get("/protect/**", Access.READERS),
            post("/trace/kept", Access.RUNNERS),
            get("/trace/**", Access.READERS));

    /** A route by which something is read. */
    private record Read(PathPattern pattern, Access access) {}

    private static final List<Read> READS = ALL.stream()
            .filter(route -> route.method == null || route.method == HttpMethod.GET)
            .map(route -> new Read(PathPatternParser.defaultInstance.parse(route.pattern), route.access))
            .toList();

    private Routes() {}

    public static List<Route> all() {
        return ALL;
    }

    /** Whether a role may read what is there, so that nobody is led to a page that is not for them. */
    public static boolean mayRead(Role role, String path) {
        PathContainer there = PathContainer.parsePath(path);
        return READS.stream()
                .filter(read -> read.pattern.matches(there))
                .findFirst()
                .filter(read ->
                        read.access == Access.OPEN || read.access.roles().contains(role))
                .isPresent();
    }

    private static Route any(String pattern, Access access) {
        return new Route(null, pattern, access);
    }

    private static Route get(String pattern, Access access) {
        return new Route(HttpMethod.GET, pattern, access);
    }

    private static Route post(String pattern, Access access) {
        return new Route(HttpMethod.POST, pattern, access);
    }
}
