package org.vastshelf.e2e;

import com.sun.net.httpserver.HttpExchange;
import com.sun.net.httpserver.HttpServer;
import java.io.IOException;
import java.io.OutputStream;
import java.io.UncheckedIOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.ServerSocket;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.time.Duration;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import java.util.concurrent.Executors;

/**
 * An object store that is not the embedded one: another maker's server in a process of its own, which can be killed and
 * held, behind a gate of HTTP that can answer in its place.
 */
final class OtherStore implements AutoCloseable {

    static final String BUCKET = "larder";
    private static final Set<String> OF_THE_CONNECTION =
            Set.of("connection", "content-length", "expect", "host", "upgrade", "transfer-encoding", "date");

    /** How the gate answers. */
    enum Gate {
        OPEN,
        BUSY,
        FULL
    }

    private final Path folder;
    private final int port = free();
    private final HttpClient client =
            HttpClient.newBuilder().version(HttpClient.Version.HTTP_1_1).build();
    private final HttpServer gate;
    private volatile Gate answers = Gate.OPEN;
    private Process process;

    OtherStore(Path folder) throws IOException, InterruptedException {
        this.folder = folder;
        gate = HttpServer.create(new InetSocketAddress(InetAddress.getLoopbackAddress(), 0), 50);
        gate.setExecutor(Executors.newCachedThreadPool());
        gate.createContext("/", this::answer);
        gate.start();
        start();
    }

    private static int free() {
        try (ServerSocket socket = new ServerSocket(0, 1, InetAddress.getLoopbackAddress())) {
            return socket.getLocalPort();
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    URI endpoint() {
        return URI.create("http://127.0.0.1:" + gate.getAddress().getPort());
    }

    void answers(Gate how) {
        answers = how;
    }

    void start() throws IOException, InterruptedException {
        process = new ProcessBuilder(
                        Path.of(System.getProperty("java.home"), "bin", "java").toString(),
                        "-Xmx256m",
                        "-jar",
                        Path.of("target", "s3", "s3mock-exec.jar")
                                .toAbsolutePath()
                                .toString(),
                        "--server.address=127.0.0.1",
                        "--server.port=" + free(),
                        "--http.port=" + port,
                        "--com.adobe.testing.s3mock.store.initial-buckets=" + BUCKET,
                        "--com.adobe.testing.s3mock.store.root=" + folder,
                        "--com.adobe.testing.s3mock.store.retain-files-on-exit=true")
                .redirectErrorStream(true)
                .redirectOutput(
                        folder.resolveSibling(folder.getFileName() + ".log").toFile())
                .start();
        HttpRequest any = HttpRequest.newBuilder(URI.create("http://127.0.0.1:" + port + "/"))
                .build();
        for (int i = 0; i < 600; i++) {
            try {
                client.send(any, HttpResponse.BodyHandlers.discarding());
                return;
            } catch (IOException notYet) {
                Thread.sleep(200);
            }
        }
        throw new IllegalStateException("the other store did not start");
    }

    void kill() throws InterruptedException {
        process.destroyForcibly().waitFor();
    }

    void hold() throws IOException, InterruptedException {
        signal("STOP");
    }

    void goOn() throws IOException, InterruptedException {
        signal("CONT");
    }

    private void signal(String name) throws IOException, InterruptedException {
        new ProcessBuilder("kill", "-" + name, String.valueOf(process.pid()))
                .start()
                .waitFor();
    }

    private void answer(HttpExchange asked) throws IOException {
        byte[] body = asked.getRequestBody().readAllBytes();
        boolean writes = Set.of("PUT", "POST").contains(asked.getRequestMethod());
        if (answers == Gate.BUSY) {
            refuse(asked, 503, "SlowDown");
        } else if (answers == Gate.FULL && writes) {
            refuse(asked, 507, "InsufficientStorage");
        } else {
            pass(asked, body);
        }
    }

    private static void refuse(HttpExchange asked, int status, String code) throws IOException {
        send(asked, status, ("<Error><Code>" + code + "</Code></Error>").getBytes(StandardCharsets.UTF_8));
    }

    private static void send(HttpExchange asked, int status, byte[] body) throws IOException {
        boolean head = asked.getRequestMethod().equals("HEAD");
        asked.sendResponseHeaders(status, head || body.length == 0 ? -1 : body.length);
        if (!head && body.length > 0) {
            try (OutputStream out = asked.getResponseBody()) {
                out.write(body);
            }
        }
        asked.close();
    }

    private void pass(HttpExchange asked, byte[] body) throws IOException {
        URI target = URI.create("http://127.0.0.1:" + port + asked.getRequestURI());
        HttpRequest.Builder request = HttpRequest.newBuilder(target)
                .timeout(Duration.ofMinutes(2))
                .method(asked.getRequestMethod(), HttpRequest.BodyPublishers.ofByteArray(body));
        asked.getRequestHeaders().forEach((name, values) -> {
            if (!OF_THE_CONNECTION.contains(name.toLowerCase(Locale.ROOT))) {
                values.forEach(value -> request.header(name, value));
            }
        });
        try {
            HttpResponse<byte[]> response = client.send(request.build(), HttpResponse.BodyHandlers.ofByteArray());
            response.headers().map().forEach((name, values) -> {
                if (!OF_THE_CONNECTION.contains(name.toLowerCase(Locale.ROOT)) && !name.startsWith(":")) {
                    asked.getResponseHeaders().put(name, List.copyOf(values));
                }
            });
            if (asked.getRequestMethod().equals("HEAD")) {
                response.headers()
                        .firstValue("content-length")
                        .ifPresent(length -> asked.getResponseHeaders().set("Content-Length", length));
            }
            send(asked, response.statusCode(), response.body());
        } catch (InterruptedException interrupted) {
            Thread.currentThread().interrupt();
            asked.close();
        } catch (IOException gone) {
            // As if nobody were there: the connection ends without an answer.
            asked.close();
        }
    }

    @Override
    public void close() throws InterruptedException {
        gate.stop(0);
        kill();
    }
}
