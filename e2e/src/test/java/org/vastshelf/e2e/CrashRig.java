package org.vastshelf.e2e;

import java.io.File;
import java.io.IOException;
import java.net.CookieManager;
import java.net.ServerSocket;
import java.net.URI;
import java.net.URLEncoder;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Base64;
import java.util.List;
import org.jspecify.annotations.Nullable;

/** An application in a process of its own, on a database of its own, that can be killed and started again. */
final class CrashRig implements AutoCloseable {

    private static final int SHOWN_LINES = 60;
    private static final int MOST_TRIES = 3;

    private final Path data;
    private final String database;
    private final List<String> options;
    private int port;
    private final HttpClient client = HttpClient.newHttpClient();
    private HttpClient browser = client;
    private @Nullable Process process;
    private volatile boolean killed;

    CrashRig(Path data, String database, String... options) throws IOException {
        this(data, App.database(database), Arrays.asList(options));
    }

    private CrashRig(Path data, String database, List<String> options) throws IOException {
        this.data = data;
        this.database = database;
        this.options = options;
        this.port = free();
    }

    private static int free() throws IOException {
        try (ServerSocket socket = new ServerSocket(0)) {
            return socket.getLocalPort();
        }
    }

    /** Another node on the same database and the same file servers. */
    CrashRig beside() throws IOException {
        return new CrashRig(data, database, options);
    }

    /** Where somebody took its port in the meantime it takes another. */
    void start() throws IOException, InterruptedException {
        for (int tries = 0; !launch(); tries++) {
            List<String> said = Files.readAllLines(data.resolve("out-" + port + ".log"));
            if (tries == MOST_TRIES || said.stream().noneMatch(line -> line.contains("already in use"))) {
                throw new AssertionError("the application did not start; it said at last: "
                        + String.join("\n", said.subList(Math.max(0, said.size() - SHOWN_LINES), said.size())));
            }
            port = free();
        }
    }

    private boolean launch() throws IOException, InterruptedException {
        List<String> command = new ArrayList<>(List.of(
                Path.of(System.getProperty("java.home"), "bin", "java").toString(),
                "-Xmx700m",
                "-XX:TieredStopAtLevel=1",
                "-cp",
                System.getProperty("java.class.path"),
                "org.vastshelf.app.VastShelfApplication",
                "--server.port=" + port,
                "--spring.datasource.url=" + database,
                "--spring.datasource.hikari.maximum-pool-size=16",
                "--vastshelf.data=" + data));
        command.addAll(options);
        process = new ProcessBuilder(command)
                .redirectErrorStream(true)
                .redirectOutput(new File(data.toFile(), "out-" + port + ".log"))
                .start();
        killed = false;
        for (int i = 0; i < 2_400 && process.isAlive(); i++) {
            try {
                if (send("GET", "/actuator/health/readiness", "").statusCode() == 200) {
                    return true;
                }
            } catch (IOException notYet) {
                Thread.sleep(100);
            }
            Thread.sleep(50);
        }
        return false;
    }

    /** As by kill -9. */
    void kill() throws InterruptedException {
        killed = true;
        if (process != null) {
            process.destroyForcibly().waitFor();
        }
    }

    boolean isKilled() {
        return killed;
    }

    HttpResponse<String> send(String method, String path, String body) throws IOException, InterruptedException {
        HttpRequest request = request(path)
                .header("Authorization", "Basic " + Base64.getEncoder().encodeToString("odile:larkmoor".getBytes()))
                .header("Content-Type", "application/json")
                .method(method, HttpRequest.BodyPublishers.ofString(body))
                .build();
        return client.send(request, HttpResponse.BodyHandlers.ofString());
    }

    /** Asks as the person who signed in at another node. */
    void withSessionOf(CrashRig other) {
        browser = other.browser;
    }

    /** The status of a page as a person who signed in at the door gets it. */
    int page(String path) throws IOException, InterruptedException {
        return browser.send(request(path).build(), HttpResponse.BodyHandlers.discarding())
                .statusCode();
    }

    void signIn() throws IOException, InterruptedException {
        browser = HttpClient.newBuilder().cookieHandler(new CookieManager()).build();
        String form = browser.send(request("/sign-in").build(), HttpResponse.BodyHandlers.ofString())
                .body();
        String token = form.replaceAll("(?s).*name=\"_csrf\"[^>]*value=\"([^\"]+)\".*", "$1");
        browser.send(
                request("/sign-in")
                        .header("Content-Type", "application/x-www-form-urlencoded")
                        .POST(HttpRequest.BodyPublishers.ofString("username=odile&password=larkmoor&_csrf="
                                + URLEncoder.encode(token, StandardCharsets.UTF_8)))
                        .build(),
                HttpResponse.BodyHandlers.discarding());
    }

    private HttpRequest.Builder request(String path) {
        return HttpRequest.newBuilder(URI.create("http://127.0.0.1:" + port + path));
    }

    String get(String path) throws IOException, InterruptedException {
        return send("GET", path, "").body();
    }

    String post(String path, String body) throws IOException, InterruptedException {
        return send("POST", path, body).body();
    }

    /** An order once it is in this state; the runner may be at work on it when the clock jumps. */
    String order(long id, String state) throws IOException, InterruptedException {
        String order = get("/api/v1/orders/" + id);
        for (int i = 0; i < 100 && !order.contains("\"state\":\"" + state + "\""); i++) {
            Thread.sleep(100);
            order = get("/api/v1/orders/" + id);
        }
        return order;
    }

    @Override
    public void close() throws InterruptedException {
        kill();
        client.close();
    }
}
