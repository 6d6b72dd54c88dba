package org.vastshelf.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.sql.Connection;
import java.util.Base64;
import javax.sql.DataSource;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import tools.jackson.databind.JsonNode;

/** What is not let in, and what is written down about who was. */
class DoorTest {

    private static HttpResponse<String> send(String path, String body, String... headers) throws Exception {
        HttpRequest.Builder request =
                HttpRequest.newBuilder(URI.create(App.URL + path)).POST(HttpRequest.BodyPublishers.ofString(body));
        for (int i = 0; i < headers.length; i += 2) {
            request.header(headers[i], headers[i + 1]);
        }
        try (HttpClient client = HttpClient.newHttpClient()) {
            return client.send(request.build(), HttpResponse.BodyHandlers.ofString());
        }
    }

    private static String basic() {
        return "Basic "
                + Base64.getEncoder().encodeToString(("odile:" + App.PASSWORD).getBytes(StandardCharsets.UTF_8));
    }

    @ParameterizedTest
    @CsvSource({"Sec-Fetch-Site, cross-site", "Sec-Fetch-Site, same-site", "Origin, https://elsewhere.example"})
    void credentials_are_of_no_use_to_other_origins(String header, String value) throws Exception {
        HttpResponse<String> reply = send(
                "/api/v1/what-if", "{}", "Authorization", basic(), "Content-Type", "application/json", header, value);
        assertThat(reply.statusCode()).isEqualTo(403);
        assertThat(reply.body()).contains("pages of other origins");
    }

    @Test
    void a_body_beyond_its_bound_is_refused_with_the_bound() throws Exception {
        HttpResponse<String> reply = send(
                "/api/v1/layouts/compare",
                "x".repeat(3 << 20),
                "Authorization",
                basic(),
                "Content-Type",
                "application/json");
        assertThat(reply.statusCode()).isEqualTo(413);
        assertThat(reply.body()).contains("must be at most 2097152");
    }

    @Test
    void files_are_not_taken_from_whoever_has_not_signed_in() throws Exception {
        HttpResponse<String> reply =
                send("/desk/save", "--b\r\n\r\n--b--", "Content-Type", "multipart/form-data; boundary=b");
        assertThat(reply.statusCode()).isEqualTo(403);
        assertThat(reply.body()).contains("people who signed in");
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "{\"changes\":[null]} | changes[0] is missing or null",
                "{\"changes\":[{\"change\":\"SetAlarm\",\"volume\":null,\"percent\":5}]} | changes[0].volume is missing or null",
                "{\"changes\":[{\"change\":\"SetPoolReserve\",\"pool\":\"oak\",\"reserve\":null}]} | changes[0].reserve is missing or null",
                "{\"changes\":[{\"change\":\"DropLimit\",\"rule\":\"x\",\"more\":1}]} | changes[0].more is no part of it; the OpenAPI document names all",
            })
    void what_is_not_whole_is_refused_with_its_path_and_nothing_is_kept(String body, String detail) {
        App.Reply reply = App.post("odile", "/api/v1/orders", body);
        assertThat(reply.status()).isEqualTo(400);
        assertThat(reply.detail()).isEqualTo(detail);
    }

    private static JsonNode desk(String person, String operation, String path) {
        return App.post(
                        person,
                        "/api/v1/desk/operations",
                        "{\"person\":\"" + person + "\",\"share\":\"homes\",\"operation\":\"" + operation
                                + "\",\"path\":\"" + path + "\",\"bytes\":" + (operation.equals("WRITE") ? 5 : 0) + "}")
                .json();
    }

    @Test
    void nobody_opens_another_s_home() {
        assertThat(desk("suki", "WRITE", "/suki/mine.odt").path("allowed").asBoolean())
                .isTrue();
        for (String operation : new String[] {"READ", "WRITE", "DELETE"}) {
            assertThat(desk("pell", operation, "/suki/mine.odt").path("reason").asString())
                    .startsWith("Own folders of homes");
        }
        JsonNode listing =
                App.get("pell", "/api/v1/desk/listing?share=homes&person=pell").json();
        assertThat(listing.path("entries").toString()).doesNotContain("suki");
        JsonNode closed = App.get("pell", "/api/v1/desk/listing?share=homes&person=pell&path=/suki")
                .json();
        assertThat(closed.path("mayRead").asBoolean()).isFalse();
        assertThat(closed.path("clientSpace").isNull()).isTrue();
    }

    @Test
    void wrong_sign_ins_are_written_down() {
        App.get("no-such-person", "/api/v1/pools");
        assertThat(App.get("ines", "/api/v1/audit-lines?person=no-such-person&operation=SIGN-IN")
                        .text())
                .contains("name or password is wrong")
                .contains("REFUSED");
    }

    @Test
    void the_first_line_that_was_changed_is_named_and_the_record_is_whole_again_when_it_is_put_back() throws Exception {
        assertThat(verification("").path("whole").asBoolean()).isTrue();
        JsonNode noted = verification("");
        try (Connection connection = App.bean(DataSource.class).getConnection();
                var sql = connection.createStatement()) {
            sql.execute("UPDATE audit_line SET bytes = bytes + 1 WHERE number = 4711");
            JsonNode found = verification("");
            sql.execute("UPDATE audit_line SET bytes = bytes - 1 WHERE number = 4711");
            assertThat(found.path("whole").asBoolean()).isFalse();
            assertThat(found.path("text").asString()).startsWith("Line 4711 was changed");
        }
        String end = noted.path("number").asLong() + ":" + noted.path("hash").asString();
        assertThat(verification(end).path("whole").asBoolean()).isTrue();
        assertThat(verification(noted.path("number").asLong() + ":" + "0".repeat(64))
                        .path("text")
                        .asString())
                .contains("does not have the hash that was noted");
    }

    private static JsonNode verification(String noted) {
        return App.get("ines", "/api/v1/audit-lines/verification?noted=" + noted)
                .json();
    }
}
