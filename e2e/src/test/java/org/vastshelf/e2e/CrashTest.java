package org.vastshelf.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.File;
import java.net.ServerSocket;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.file.Path;
import java.util.Base64;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Kills an application of its own, in the middle of an order, and starts it again. */
class CrashTest {

    @TempDir
    Path data;

    private int port;

    private Process start() throws Exception {
        Process process = new ProcessBuilder(List.of(
                        Path.of(System.getProperty("java.home"), "bin", "java").toString(),
                        "-Xmx700m",
                        "-cp",
                        System.getProperty("java.class.path"),
                        "org.vastshelf.app.VastShelfApplication",
                        "--server.port=" + port,
                        "--spring.datasource.url=" + App.database("vastshelf_crash"),
                        "--vastshelf.data=" + data))
                .redirectErrorStream(true)
                .redirectOutput(new File(data.toFile(), "out.log"))
                .start();
        for (int i = 0; i < 600 && process.isAlive(); i++) {
            try {
                if (send("GET", "/actuator/health/readiness", "").statusCode() == 200) {
                    return process;
                }
            } catch (java.io.IOException notYet) {
                Thread.sleep(200);
            }
            Thread.sleep(50);
        }
        throw new AssertionError("the application did not start; see " + data);
    }

    private HttpResponse<String> send(String method, String path, String body) throws Exception {
        HttpRequest request = HttpRequest.newBuilder(URI.create("http://127.0.0.1:" + port + path))
                .header("Authorization", "Basic " + Base64.getEncoder().encodeToString("odile:larkmoor".getBytes()))
                .header("Content-Type", "application/json")
                .method(method, HttpRequest.BodyPublishers.ofString(body))
                .build();
        try (HttpClient client = HttpClient.newHttpClient()) {
            return client.send(request, HttpResponse.BodyHandlers.ofString());
        }
    }

    @Test
    void an_order_that_was_killed_half_way_is_finished_by_the_next_start() throws Exception {
        try (ServerSocket socket = new ServerSocket(0)) {
            port = socket.getLocalPort();
        }
        Process first = start();
        send(
                "POST",
                "/api/v1/orders",
                "{\"changes\":[{\"change\":\"ComposePool\",\"name\":\"alder\",\"server\":\"dewpond\","
                        + "\"drives\":[\"dewpond/1/1\",\"dewpond/1/2\",\"dewpond/1/3\"],\"layout\":\"RAID_5\",\"spares\":0,"
                        + "\"surfaceCheck\":true}]}");
        assertThat(send("POST", "/api/v1/orders/1/carry-out", "").body()).contains("RUNNING");
        Thread.sleep(700);
        first.destroyForcibly().waitFor();
        Process second = start();
        try {
            assertThat(send("GET", "/api/v1/orders/1", "").body())
                    .contains("RUNNING")
                    .contains("Interrupted after 0 of 3 steps, went on at");
            send("POST", "/api/v1/time", "{\"hours\":24}");
            assertThat(send("GET", "/api/v1/orders/1", "").body())
                    .contains("DONE")
                    .contains("Finished.");
            assertThat(send("GET", "/api/v1/pools", "").body()).contains("alder");
        } finally {
            second.destroyForcibly().waitFor();
        }
    }
}
