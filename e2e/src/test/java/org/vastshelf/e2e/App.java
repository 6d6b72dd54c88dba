package org.vastshelf.e2e;

import java.io.IOException;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Base64;
import org.springframework.boot.SpringApplication;
import org.springframework.context.ConfigurableApplicationContext;
import org.vastshelf.app.VastShelfApplication;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** The application with the demo, started once for all tests of this module, on its own database. */
final class App {

    static final String PASSWORD = "larkmoor";
    static final Path TREES = folder();
    private static final JsonMapper JSON = new JsonMapper();
    private static final HttpClient HTTP = HttpClient.newHttpClient();
    private static final ConfigurableApplicationContext CONTEXT = start();
    static final String URL = "http://127.0.0.1:" + CONTEXT.getEnvironment().getProperty("local.server.port");

    private App() {}

    private static Path folder() {
        try {
            return Files.createTempDirectory("vastshelf-trees").toRealPath();
        } catch (IOException e) {
            throw new IllegalStateException(e);
        }
    }

    /** The test database server's address; {@code ./shelf test} sets it. */
    static String database(String name) {
        String server = System.getenv("VASTSHELF_TEST_DB");
        if (server == null) {
            throw new IllegalStateException("VASTSHELF_TEST_DB is not set; run ./shelf test");
        }
        return server + name + "?createDatabaseIfNotExist=true";
    }

    private static ConfigurableApplicationContext start() {
        return SpringApplication.run(
                VastShelfApplication.class,
                "--server.port=0",
                "--spring.datasource.url=" + database("vastshelf_e2e"),
                "--vastshelf.data=" + TREES.resolveSibling(TREES.getFileName() + "-data"),
                "--vastshelf.scan-roots=" + TREES + ",/usr/share/doc",
                "--vastshelf.rush-files=60",
                "--logging.level.root=error");
    }

    static <T> T bean(Class<T> type) {
        return CONTEXT.getBean(type);
    }

    static <T> T bean(String name, Class<T> type) {
        return CONTEXT.getBean(name, type);
    }

    record Reply(int status, String text) {
        JsonNode json() {
            return JSON.readTree(text);
        }

        String detail() {
            return json().path("detail").asString();
        }
    }

    static Reply get(String who, String path) {
        return send(request(who, path).GET().build());
    }

    static Reply post(String who, String path, String body) {
        return post(who, path, "application/json", body);
    }

    static Reply post(String who, String path, String type, String body) {
        return send(request(who, path)
                .header("Content-Type", type)
                .POST(HttpRequest.BodyPublishers.ofString(body))
                .build());
    }

    /** Sends bytes. */
    static Reply send(String who, String method, String path, byte[] body) {
        return send(request(who, path)
                .method(method, HttpRequest.BodyPublishers.ofByteArray(body))
                .build());
    }

    /** Asks for a part of a download, if it is still in the given state. */
    static HttpResponse<byte[]> part(String who, String path, String range, String onlyIf) throws Exception {
        HttpRequest.Builder request = request(who, path).header("Range", range);
        if (!onlyIf.isEmpty()) {
            request.header("If-Range", onlyIf);
        }
        return HTTP.send(request.build(), HttpResponse.BodyHandlers.ofByteArray());
    }

    private static HttpRequest.Builder request(String who, String path) {
        HttpRequest.Builder builder = HttpRequest.newBuilder(URI.create(URL + path));
        if (!who.isEmpty()) {
            byte[] pair = (who + ":" + PASSWORD).getBytes(StandardCharsets.UTF_8);
            builder.header("Authorization", "Basic " + Base64.getEncoder().encodeToString(pair));
        }
        return builder;
    }

    private static Reply send(HttpRequest request) {
        try {
            HttpResponse<String> response = HTTP.send(request, HttpResponse.BodyHandlers.ofString());
            return new Reply(response.statusCode(), response.body());
        } catch (IOException e) {
            throw new IllegalStateException(e);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new IllegalStateException(e);
        }
    }
}
