package org.vastshelf.app.kit;

import jakarta.servlet.http.HttpServletRequest;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.function.Function;
import java.util.stream.Collectors;
import org.springframework.web.util.UriComponentsBuilder;

/**
 * A table of any length, one page of it at a time. Sorting and finding are done here, over all rows, by parameters of
 * the address: {@code page} from 1, {@code sort}, {@code down}, {@code q}.
 *
 * @param rows those of this page
 * @param total all that were found
 * @param number of this page, from 1
 * @param sort key of the column by which it is sorted; empty for as it comes
 */
public record Listing<T>(
        List<T> rows, int total, int number, String sort, boolean down, String q, String address, List<Kept> kept) {

    public static final int PAGE = 100;
    private static final int LONGEST_SEARCH = 100;
    private static final List<String> OWN = List.of("page", "sort", "down", "q");

    /** A parameter of the address that is not the table's. */
    public record Kept(String name, String value) {}

    /** A column that can be sorted by. */
    public record Column<T>(String key, Comparator<T> order) {}

    /**
     * The page that a request asks for.
     *
     * @param text in which {@code q} is sought
     */
    @SafeVarargs
    public static <T> Listing<T> of(
            HttpServletRequest request, List<T> all, Function<T, String> text, Column<T>... columns) {
        String q = parameter(request, "q").strip();
        String sought = q.substring(0, Math.min(q.length(), LONGEST_SEARCH)).toLowerCase(Locale.ROOT);
        String sort = parameter(request, "sort");
        boolean down = parameter(request, "down").equals("true");
        Optional<Comparator<T>> order = Arrays.stream(columns)
                .filter(c -> c.key.equals(sort))
                .findFirst()
                .map(c -> down ? c.order.reversed() : c.order);
        List<T> found = sought.isEmpty()
                ? all
                : all.stream()
                        .filter(row -> text.apply(row).toLowerCase(Locale.ROOT).contains(sought))
                        .toList();
        List<T> sorted = order.map(by -> found.stream().sorted(by).toList()).orElse(found);
        int pages = Math.max(1, Math.ceilDiv(sorted.size(), PAGE));
        int number = Math.clamp(number(request), 1, pages);
        return new Listing<>(
                sorted.subList((number - 1) * PAGE, Math.min(sorted.size(), number * PAGE)),
                sorted.size(),
                number,
                order.isPresent() ? sort : "",
                down,
                q,
                request.getRequestURI(),
                kept(request));
    }

    /** The same page with its rows as they are shown. */
    public <R> Listing<R> map(Function<T, R> shown) {
        return mapAll(some -> some.stream().map(shown).toList());
    }

    /** The same where the rows of a page are looked up together. */
    public <R> Listing<R> mapAll(Function<List<T>, List<R>> shown) {
        return new Listing<>(shown.apply(rows), total, number, sort, down, q, address, kept);
    }

    private static String parameter(HttpServletRequest request, String name) {
        return Optional.ofNullable(request.getParameter(name)).orElse("");
    }

    private static int number(HttpServletRequest request) {
        String text = parameter(request, "page");
        return text.matches("[0-9]{1,8}") ? Integer.parseInt(text) : 1;
    }

    private static List<Kept> kept(HttpServletRequest request) {
        return request.getParameterMap().entrySet().stream()
                .filter(p -> !OWN.contains(p.getKey()) && !p.getValue()[0].isEmpty())
                .sorted(Map.Entry.comparingByKey())
                .map(p -> new Kept(p.getKey(), p.getValue()[0]))
                .collect(Collectors.toList());
    }

    public int pages() {
        return Math.max(1, Math.ceilDiv(total, PAGE));
    }

    /** Whether all rows that were found are on this page and none was sought. */
    public boolean isWhole() {
        return pages() == 1 && q.isEmpty();
    }

    public boolean isEmpty() {
        return rows.isEmpty();
    }

    /** Whether there is nothing at all, and nothing was sought. */
    public boolean isNone() {
        return total == 0 && q.isEmpty();
    }

    public boolean isFirst() {
        return number == 1;
    }

    public boolean isLast() {
        return number == pages();
    }

    /** Where another page of the same table is. */
    public String at(int other) {
        return link(sort, down, other);
    }

    /** Where the page before this one is. */
    public String before() {
        return at(number - 1);
    }

    /** Where the page behind this one is. */
    public String next() {
        return at(number + 1);
    }

    /** Marks what the browser can sort by itself, as all rows are there; null where they are not. */
    public @org.jspecify.annotations.Nullable String sortsHere() {
        return isWhole() ? "" : null;
    }

    /** Where the same rows are sorted by a column; upwards first. */
    public String by(String key) {
        return link(key, key.equals(sort) && !down, 1);
    }

    /** How a column is sorted, as ARIA says it; null for not at all. */
    public @org.jspecify.annotations.Nullable String sorted(String key) {
        return key.equals(sort) ? (down ? "descending" : "ascending") : null;
    }

    private String link(String by, boolean downwards, int page) {
        UriComponentsBuilder uri = UriComponentsBuilder.fromPath(address);
        kept.forEach(k -> uri.queryParam(k.name, "{" + k.name + "}"));
        Map<String, Object> values = kept.stream().collect(Collectors.toMap(Kept::name, Kept::value));
        values = new java.util.HashMap<>(values);
        if (!q.isEmpty()) {
            uri.queryParam("q", "{q}");
            values.put("q", q);
        }
        if (!by.isEmpty()) {
            uri.queryParam("sort", by);
            if (downwards) {
                uri.queryParam("down", "true");
            }
        }
        if (page > 1) {
            uri.queryParam("page", page);
        }
        return uri.encode().buildAndExpand(values).toUriString();
    }

    /** Which rows these are, such as "101 to 200 of 1,000". */
    public String said() {
        if (total == 0) {
            return "none found";
        }
        return isWhole()
                ? String.format(Locale.ROOT, "%,d", total)
                : String.format(
                        Locale.ROOT,
                        "%,d to %,d of %,d",
                        (number - 1) * PAGE + 1,
                        (number - 1) * PAGE + rows.size(),
                        total);
    }
}
