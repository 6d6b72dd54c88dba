package org.vastshelf.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.stream.StreamSupport;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import tools.jackson.databind.JsonNode;

/** What snapshots hold, what schedules keep and what a pair would be like, asked over the API. */
class ProtectQuestionsTest {

    private static final String PREVIEW = "/api/v1/schedules/preview";

    private static JsonNode asked(String path, String body) {
        App.Reply reply = App.post("ines", path, body);
        assertThat(reply.status()).as(reply.text()).isEqualTo(200);
        return reply.json();
    }

    private static String[] texts(JsonNode list) {
        return StreamSupport.stream(list.spliterator(), false)
                .map(JsonNode::asString)
                .toArray(String[]::new);
    }

    @Test
    void snapshots_hold_what_died_after_them() {
        JsonNode hold = asked(
                "/api/v1/snapshots/hold",
                "{\"versions\":[{\"born\":\"2026-03-01T08:00:00Z\",\"died\":\"2026-03-02T12:00:00Z\",\"bytes\":100},"
                        + "{\"born\":\"2026-03-02T00:00:00Z\",\"died\":\"2026-03-02T00:00:01Z\",\"bytes\":7},"
                        + "{\"born\":\"2026-03-01T08:00:00Z\",\"died\":null,\"bytes\":5000},"
                        + "{\"born\":\"2026-03-01T08:00:00Z\",\"died\":\"2026-03-03T00:00:00Z\",\"bytes\":30}],"
                        + "\"snapshots\":[\"2026-03-02T00:00:00Z\",\"2026-03-02T20:00:00Z\"],\"delete\":[0]}");
        assertThat(hold.path("heldBytes").asLong()).isEqualTo(137);
        assertThat(hold.path("heldAloneBytes").get(0).asLong()).isEqualTo(107);
        assertThat(hold.path("heldAloneBytes").get(1).asLong()).isZero();
        assertThat(hold.path("freedBytes").asLong()).isEqualTo(107);
    }

    @Test
    void a_schedule_keeps_to_the_clock_on_the_wall_and_its_keep_rule() {
        JsonNode day = asked(
                PREVIEW,
                "{\"rule\":\"FREQ=HOURLY;INTERVAL=6\",\"zone\":\"Europe/London\",\"from\":\"2026-03-28T00:00:00Z\","
                        + "\"until\":\"2026-03-29T17:00:00Z\",\"keep\":{\"newest\":1,\"daily\":2}}");
        assertThat(texts(day.path("runs")))
                .containsExactly(
                        "2026-03-28T00:00:00Z",
                        "2026-03-28T06:00:00Z",
                        "2026-03-28T12:00:00Z",
                        "2026-03-28T18:00:00Z",
                        "2026-03-29T00:00:00Z",
                        "2026-03-29T05:00:00Z",
                        "2026-03-29T11:00:00Z",
                        "2026-03-29T17:00:00Z");
        assertThat(texts(day.path("kept"))).containsExactly("2026-03-28T18:00:00Z", "2026-03-29T17:00:00Z");
        JsonNode skipped = asked(
                PREVIEW,
                "{\"rule\":\"FREQ=DAILY\",\"zone\":\"Europe/London\",\"from\":\"2026-03-28T01:30:00Z\","
                        + "\"until\":\"2026-03-30T12:00:00Z\",\"keep\":{}}");
        assertThat(texts(skipped.path("runs")))
                .containsExactly("2026-03-28T01:30:00Z", "2026-03-29T01:30:00Z", "2026-03-30T00:30:00Z");
        assertThat(skipped.path("kept")).isEmpty();
        JsonNode month = asked(
                PREVIEW,
                "{\"rule\":\"FREQ=MONTHLY;BYMONTHDAY=-1\",\"zone\":\"UTC\",\"from\":\"2028-01-31T22:00:00Z\","
                        + "\"until\":\"2028-03-31T22:00:00Z\",\"keep\":{\"monthly\":2}}");
        assertThat(texts(month.path("runs")))
                .containsExactly("2028-01-31T22:00:00Z", "2028-02-29T22:00:00Z", "2028-03-31T22:00:00Z");
    }

    @Test
    void a_pair_is_possible_or_says_what_would_be_needed() {
        JsonNode inStep = asked(
                "/api/v1/replicas/plan",
                "{\"bytes\":1073741824,\"dailyChangeBytes\":1,\"linkMibps\":1,\"roundTripMillis\":4,"
                        + "\"mode\":\"IN_STEP\",\"intervalMinutes\":null}");
        assertThat(inStep.path("addedMillisPerWrite64KiB").asDouble()).isEqualTo(66.5);
        assertThat(inStep.path("greatestLossMinutes").isNull()).isTrue();
        JsonNode never = asked(
                "/api/v1/replicas/plan",
                "{\"bytes\":0,\"dailyChangeBytes\":99999999999999,\"linkMibps\":1,\"roundTripMillis\":4,"
                        + "\"mode\":\"BY_INTERVAL\",\"intervalMinutes\":15}");
        assertThat(never.path("possible").asBoolean()).isFalse();
        assertThat(never.path("reason").asString()).contains("MiB/s");
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "snapshots/hold|{\"versions\":[],\"snapshots\":[\"2026-03-02T00:00:00Z\",\"2026-03-02T00:00:00Z\"]}"
                        + "|snapshots[1] is 2026-03-02T00:00:00Z, must be after",
                "snapshots/hold|{\"versions\":[],\"snapshots\":[],\"delete\":[0]}|delete[0] is 0",
                "snapshots/hold|{\"versions\":[{\"born\":\"x\",\"bytes\":1}],\"snapshots\":[]}|versions[0].born is 'x'",
                "snapshots/hold|{\"versions\":[{\"born\":\"2026-03-02T00:00:00Z\"}],\"snapshots\":[]}|versions[0].bytes",
                "schedules/preview|{\"rule\":\"FREQ=MINUTELY\",\"zone\":\"UTC\",\"from\":\"2026-01-01T00:00:00Z\","
                        + "\"until\":\"2027-01-01T00:00:00Z\",\"keep\":{}}|more than 100000 times",
                "schedules/preview|{\"rule\":\"FREQ=DAILY\",\"zone\":\"Moon\",\"from\":\"2026-01-01T00:00:00Z\","
                        + "\"until\":\"2027-01-01T00:00:00Z\",\"keep\":{}}|zone is 'Moon'",
                "schedules/preview|{\"rule\":\"FREQ=DAILY\",\"zone\":\"UTC\",\"from\":\"2026-01-01T00:00:00Z\","
                        + "\"until\":\"2027-01-01T00:00:00Z\",\"keep\":{\"weekly\":-1}}|keep.weekly is -1",
                "replicas/plan|{\"bytes\":1,\"dailyChangeBytes\":1,\"linkMibps\":0,\"roundTripMillis\":4,"
                        + "\"mode\":\"IN_STEP\"}|linkMibps is 0.0",
                "replicas/plan|{\"bytes\":1,\"dailyChangeBytes\":1,\"linkMibps\":1,\"roundTripMillis\":4,"
                        + "\"mode\":\"BY_INTERVAL\"}|intervalMinutes is null",
            })
    void what_can_not_be_is_refused_with_its_place(String path, String body, String detail) {
        App.Reply reply = App.post("ines", "/api/v1/" + path, body);
        assertThat(reply.status()).isEqualTo(400);
        assertThat(reply.detail()).contains(detail);
    }
}
