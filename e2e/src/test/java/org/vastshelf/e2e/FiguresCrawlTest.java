package org.vastshelf.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayDeque;
import java.util.Deque;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.regex.Pattern;
import org.junit.jupiter.api.Test;
import org.vastshelf.app.kit.Figures;
import org.vastshelf.core.unit.UnitSystem;

/** One figure has one value, wherever it stands and in whichever units it is read, and its text is that value. */
class FiguresCrawlTest {

    private static final String FIGURES =
            "() => Array.from(document.querySelectorAll('[data-figure]')).map(f => [f.dataset.figure,"
                    + " f.dataset.value, f.textContent.trim()])";
    private static final String LINKS = "() => Array.from(document.querySelectorAll('main a[href^=\"/\"], .plank"
            + " a[href^=\"/\"], .verbs a')).map(a => a.getAttribute('href').split('#')[0])";
    private static final Set<String> LEFT_OUT = Set.of("/orders", "/trace", "/desk");

    /** Snapshots of a volume, say: what holds of some holds of all. */
    private static final Pattern NUMBERED = Pattern.compile("(.*/)[0-9]+");

    private static final int ALIKE = 4;

    private record Seen(String page, String value) {}

    private static boolean isRead(String link) {
        return !link.contains("?")
                && !link.contains(".csv")
                && !link.contains(".ics")
                && !link.contains("/new")
                && !link.startsWith("/build/drives/")
                && LEFT_OUT.stream().noneMatch(link::startsWith);
    }

    /** All figures of all pages that can be reached. */
    @SuppressWarnings("unchecked")
    private static Map<String, Seen> crawl(Browser browser, UnitSystem units) {
        Map<String, Seen> seen = new TreeMap<>();
        Figures figures = new Figures(units);
        Set<String> known = new HashSet<>(Set.of("/look"));
        Map<String, Integer> alike = new HashMap<>();
        Deque<String> open = new ArrayDeque<>(known);
        while (!open.isEmpty()) {
            String page = open.pop();
            browser.page.navigate(page);
            browser.page.waitForSelector(".plank[data-fresh]");
            for (List<String> figure : (List<List<String>>) browser.page.evaluate(FIGURES)) {
                String key = figure.get(0);
                long value = Long.parseLong(figure.get(1));
                assertThat(figure.get(2))
                        .as("%s on %s is %d bytes", key, page, value)
                        .isIn(figures.size(value), figures.large(value));
                Seen before = seen.putIfAbsent(key, new Seen(page, figure.get(1)));
                assertThat(before == null || before.value.equals(figure.get(1)))
                        .as("%s is %s on %s and %s", key, figure.get(1), page, before)
                        .isTrue();
            }
            ((List<String>) browser.page.evaluate(LINKS))
                    .stream()
                            .filter(FiguresCrawlTest::isRead)
                            .filter(known::add)
                            .filter(link -> !NUMBERED.matcher(link).matches()
                                    || alike.merge(NUMBERED.matcher(link).replaceAll("$1"), 1, Integer::sum) <= ALIKE)
                            .forEach(open::add);
        }
        return seen;
    }

    @Test
    void every_page_says_the_same_in_both_systems() {
        Awaited.forecasts();
        try (Browser browser = new Browser(1280, 800).signIn("ines")) {
            Map<String, Seen> binary = crawl(browser, UnitSystem.BINARY);
            App.post("ines", "/api/v1/preferences", "{\"units\":\"decimal\",\"theme\":\"light\"}");
            Map<String, Seen> decimal = crawl(browser, UnitSystem.DECIMAL);
            assertThat(binary).hasSizeGreaterThan(60);
            assertThat(values(decimal)).isEqualTo(values(binary));
            sumsAddUp(values(binary));
        } finally {
            App.post("ines", "/api/v1/preferences", "{\"units\":\"binary\",\"theme\":\"light\"}");
        }
    }

    private static Map<String, Long> values(Map<String, Seen> seen) {
        Map<String, Long> values = new HashMap<>();
        seen.forEach((key, figure) -> values.put(key, Long.parseLong(figure.value)));
        return values;
    }

    /** What a volume holds is its live files and its snapshots; with what is free it is the size, or beyond it. */
    private static void sumsAddUp(Map<String, Long> values) {
        List<String> volumes = values.keySet().stream()
                .filter(key -> key.startsWith("volume ") && key.endsWith(" free"))
                .map(key -> key.substring(0, key.length() - " free".length()))
                .toList();
        assertThat(volumes).hasSizeGreaterThan(5);
        assertThat(volumes).allSatisfy(volume -> {
            long held =
                    values.getOrDefault(volume + " live files", 0L) + values.getOrDefault(volume + " snapshots", 0L);
            assertThat(values.get(volume + " used")).as(volume).isEqualTo(held);
            assertThat(values.get(volume + " size")).as(volume).isEqualTo(held + values.get(volume + " free"));
        });
    }
}
