package org.vastshelf.e2e;

import jakarta.servlet.FilterChain;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.net.CookieManager;
import java.net.URI;
import java.net.URLEncoder;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.Base64;
import java.util.Collections;
import java.util.List;
import java.util.Locale;
import java.util.concurrent.atomic.AtomicInteger;
import org.jooq.ExecuteContext;
import org.jooq.ExecuteListener;
import org.jooq.ExecuteListenerProvider;
import org.jooq.impl.DefaultExecuteListenerProvider;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.condition.EnabledIfSystemProperty;
import org.junit.jupiter.api.io.TempDir;
import org.springframework.boot.SpringApplication;
import org.springframework.boot.web.servlet.FilterRegistrationBean;
import org.springframework.context.ConfigurableApplicationContext;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.springframework.core.Ordered;
import org.springframework.web.filter.OncePerRequestFilter;
import org.vastshelf.app.VastShelfApplication;
import org.vastshelf.app.foresee.ForecastKeeping;

/**
 * Size, statements and server's time of every page on the large estate; run by ./shelf bench pages. Wanted of each: at
 * most 150 kB, 30 statements and 150 ms (median, on a quiet machine).
 */
@EnabledIfSystemProperty(named = "vastshelf.bench", matches = "true")
class PagesBench {

    private static final int ROUNDS = 7;
    private static final int MOST_BYTES = 150_000;
    private static final int MOST_STATEMENTS = 30;
    private static final double MOST_MILLIS = 150;
    private static final List<String> PAGES = List.of(
            "/look",
            "/look?scope=volume-0007",
            "/look/folders",
            "/look/notices",
            "/look/folders/homes",
            "/look/folders/archive",
            "/build",
            "/build?scope=hall-a",
            "/build/pools/hall-a-pool-1",
            "/build/pools/hall-a-pool-1/replace",
            "/build/volumes/homes",
            "/build/volumes/volume-0007",
            "/build/volumes/volume-0007/move",
            "/build/drives/hall-a/1/1",
            "/build/new/pool",
            "/build/new/volume",
            "/build/new/reservation",
            "/build/what-if",
            "/build/definitions",
            "/build/bench",
            "/serve",
            "/serve/shares/homes",
            "/serve/new",
            "/limit",
            "/limit?scope=homes",
            "/limit/new",
            "/trace",
            "/foresee",
            "/foresee?show=shares",
            "/foresee?show=accounts",
            "/foresee/orders",
            "/foresee/kept",
            "/protect",
            "/protect/volumes/volume-0007",
            "/lighten",
            "/lighten/prices",
            "/lighten/rules",
            "/lighten/left",
            "/lighten/stores",
            "/lighten/leaving/homes",
            "/lighten/shares/homes",
            "/lighten/volumes/volume-0007",
            "/foresee/volume/volume-0007",
            "/foresee/volume/volume-0007/suppose?project=3+TiB",
            "/foresee/volume/volume-0007/chart",
            "/foresee/pool/hall-a-pool-1",
            "/orders",
            "/desk",
            "/desk?share=homes&person=p00001",
            "/plank?verb=/look",
            "/drawer",
            "/find?q=volume",
            "/api/v1/volumes",
            "/api/v1/shares",
            "/api/v1/accounts?share=homes");

    private static final ThreadLocal<AtomicInteger> STATEMENTS = ThreadLocal.withInitial(AtomicInteger::new);
    private static volatile int statements;
    private static volatile double millis;
    private static final String BASIC =
            "Basic " + Base64.getEncoder().encodeToString("odile:larkmoor".getBytes(StandardCharsets.UTF_8));
    private static HttpClient browser;

    /** Counts and times what a request asks of the application. */
    @Configuration
    static class Measuring {

        @Bean
        ExecuteListenerProvider counting() {
            return new DefaultExecuteListenerProvider(new ExecuteListener() {
                @Override
                public void executeStart(ExecuteContext context) {
                    STATEMENTS.get().incrementAndGet();
                }
            });
        }

        @Bean
        FilterRegistrationBean<OncePerRequestFilter> timing() {
            FilterRegistrationBean<OncePerRequestFilter> bean =
                    new FilterRegistrationBean<>(new OncePerRequestFilter() {
                        @Override
                        protected void doFilterInternal(
                                HttpServletRequest request, HttpServletResponse response, FilterChain chain)
                                throws IOException, jakarta.servlet.ServletException {
                            STATEMENTS.get().set(0);
                            long begin = System.nanoTime();
                            chain.doFilter(request, response);
                            millis = (System.nanoTime() - begin) / 1e6;
                            statements = STATEMENTS.get().get();
                        }
                    });
            bean.setOrder(Ordered.HIGHEST_PRECEDENCE);
            return bean;
        }
    }

    private static void signIn(String url) throws IOException, InterruptedException {
        browser = HttpClient.newBuilder().cookieHandler(new CookieManager()).build();
        String form = browser.send(
                        HttpRequest.newBuilder(URI.create(url + "/sign-in")).build(),
                        HttpResponse.BodyHandlers.ofString())
                .body();
        String token = form.replaceAll("(?s).*name=\"_csrf\"[^>]*value=\"([^\"]+)\".*", "$1");
        String filled = "username=odile&password=larkmoor&_csrf=" + URLEncoder.encode(token, StandardCharsets.UTF_8);
        browser.send(
                HttpRequest.newBuilder(URI.create(url + "/sign-in"))
                        .header("Content-Type", "application/x-www-form-urlencoded")
                        .POST(HttpRequest.BodyPublishers.ofString(filled))
                        .build(),
                HttpResponse.BodyHandlers.discarding());
    }

    private record Line(String page, int status, int bytes, int statements, double millis) {
        boolean keeps() {
            return bytes <= MOST_BYTES && statements <= MOST_STATEMENTS && millis <= MOST_MILLIS;
        }
    }

    @Test
    void every_page_of_the_large_estate(@TempDir Path data) throws Exception {
        SpringApplication application = new SpringApplication(VastShelfApplication.class, Measuring.class);
        long begin = System.nanoTime();
        try (ConfigurableApplicationContext context = application.run(
                "--server.port=0",
                "--spring.datasource.url=" + System.getenv("VASTSHELF_TEST_DB")
                        + "vastshelf_large?createDatabaseIfNotExist=true",
                "--vastshelf.large=true",
                "--vastshelf.data=" + data,
                "--logging.level.root=error")) {
            System.out.printf(Locale.ROOT, "started in %.0f s%n", (System.nanoTime() - begin) / 1e9);
            String url = "http://127.0.0.1:" + context.getEnvironment().getProperty("local.server.port");
            signIn(url);
            table("as it was started", url);
            begin = System.nanoTime();
            context.getBean(ForecastKeeping.class).catchUp(Duration.ofMinutes(10));
            System.out.printf(Locale.ROOT, "all forecasts in %.0f s%n", (System.nanoTime() - begin) / 1e9);
            table("with all forecasts", url);
        }
    }

    private static void table(String when, String url) throws IOException, InterruptedException {
        List<Line> lines = new ArrayList<>();
        for (String page : PAGES) {
            lines.add(line(url, page));
        }
        System.out.printf(
                Locale.ROOT, "%n%s%n%-45s %6s %9s %10s %9s%n", when, "page", "status", "bytes", "statements", "ms");
        lines.forEach(l -> System.out.printf(
                Locale.ROOT,
                "%-45s %6d %,9d %10d %9.1f%s%n",
                l.page,
                l.status,
                l.bytes,
                l.statements,
                l.millis,
                l.keeps() ? "" : "  beyond"));
        System.out.printf(
                "%d of %d pages beyond%n",
                lines.stream().filter(l -> !l.keeps()).count(), lines.size());
    }

    private static Line line(String url, String page) throws IOException, InterruptedException {
        HttpRequest request = HttpRequest.newBuilder(URI.create(url + page))
                .timeout(Duration.ofMinutes(5))
                .header(page.startsWith("/api") ? "Authorization" : "X-None", BASIC)
                .build();
        List<Double> times = new ArrayList<>();
        HttpResponse<byte[]> response = null;
        for (int round = 0; round < ROUNDS; round++) {
            response = browser.send(request, HttpResponse.BodyHandlers.ofByteArray());
            times.add(millis);
            if (millis > 2_000) {
                break;
            }
        }
        Collections.sort(times);
        return new Line(page, response.statusCode(), response.body().length, statements, times.get(times.size() / 2));
    }
}
