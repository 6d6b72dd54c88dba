package org.vastshelf.e2e;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.List;
import java.util.stream.StreamSupport;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import tools.jackson.databind.JsonNode;

/** Questions over the API, which change nothing. */
class QuestionsTest {

    private static final long USABLE_OF_8_TB = (8_000_000_000_000L - 2_147_483_648L) / 1_048_576 * 1_048_576;

    private static List<JsonNode> list(JsonNode array) {
        return StreamSupport.stream(array.spliterator(), false).toList();
    }

    @Test
    void two_more_drives_add_their_usable_bytes_to_a_group_with_one_of_parity() {
        JsonNode answer = App.post(
                        "ines", "/api/v1/what-if", "{\"pool\":\"elm\",\"drives\":2,\"driveBytes\":8000000000000}")
                .json();
        assertThat(answer.path("usableAfter").asLong()
                        - answer.path("usableBefore").asLong())
                .isEqualTo(2 * USABLE_OF_8_TB);
        long sum = list(answer.path("after").path("lines")).stream()
                .mapToLong(l -> l.path("bytes").asLong())
                .sum();
        assertThat(sum).isEqualTo(answer.path("after").path("label").asLong());
        JsonNode dropped = App.post("ines", "/api/v1/what-if", "{\"pool\":\"elm\",\"drop\":[\"homes\"]}")
                .json();
        assertThat(dropped.path("usableAfter")).isEqualTo(dropped.path("usableBefore"));
        assertThat(App.get("ines", "/api/v1/volumes?limit=1000").text()).contains("\"homes\"");
    }

    @Test
    void all_pools_are_targets_or_say_why_not() {
        List<JsonNode> targets =
                list(App.get("ines", "/api/v1/volumes/herbarium/targets").json());
        int pools =
                App.get("ines", "/api/v1/pools?limit=1000").json().path("items").size();
        assertThat(targets).hasSize(pools - 1);
        JsonNode yew = targets.stream()
                .filter(t -> t.path("pool").asString().equals("yew"))
                .findFirst()
                .orElseThrow();
        assertThat(yew.path("problem").asString()).startsWith("has ").endsWith(" are needed");
    }

    @Test
    void a_replacement_is_told_stage_by_stage() {
        String swap = "{\"swaps\":[{\"old\":\"fernhill/1/9\",\"next\":\"fernhill/3/11\"}]}";
        List<JsonNode> stages =
                list(App.post("ines", "/api/v1/pools/elm/replacement", swap).json());
        assertThat(stages).hasSize(1);
        assertThat(stages.getFirst().path("data").asLong()).isEqualTo(5 * USABLE_OF_8_TB);
        assertThat(stages.getFirst().path("leastHours").asDouble())
                .isLessThan(stages.getFirst().path("mostHours").asDouble());
    }

    @Test
    void a_growth_rule_is_tried_on_the_last_year() {
        String rule = "{\"triggerPercent\":10,\"triggerBytes\":0,\"stepPercent\":20,\"ceiling\":60000000000000,"
                + "\"pause\":\"PT24H\"}";
        List<JsonNode> days = list(App.post("ines", "/api/v1/volumes/herbarium/growth-simulation", rule)
                .json());
        assertThat(days).hasSize(365);
        assertThat(days).allSatisfy(d -> assertThat(d.path("size").asLong()).isLessThanOrEqualTo(60_000_000_000_000L));
        assertThat(days).anyMatch(d -> d.path("grew").asBoolean());
    }

    @Test
    void block_fit_and_fast_part_come_from_the_files() {
        JsonNode fit = App.get("ines", "/api/v1/catalogues/fieldlogs/block-fit?kind=LEAN")
                .json();
        List<Long> slack = list(fit.path("lines")).stream()
                .map(l -> l.path("slack").asLong())
                .toList();
        assertThat(slack).hasSize(9).isSorted();
        List<JsonNode> curve =
                list(App.get("ines", "/api/v1/pools/ash/fast-part").json());
        assertThat(curve.getLast().path("served").asDouble()).isCloseTo(1, within(1e-9));
    }

    @Test
    void offers_begin_with_the_cheapest() {
        List<JsonNode> offers =
                list(App.post("ines", "/api/v1/reservations/offers", "{\"bytes\":10995116277760,\"mibps\":900}")
                        .json());
        List<Long> cents = new ArrayList<>();
        offers.forEach(o -> cents.add(o.path("cents").asLong()));
        assertThat(cents).hasSizeGreaterThan(1).isSorted();
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "what-if | {\"pool\":\"teak\"} | There is no pool 'teak'",
                "what-if | {\"pool\":\"oak\",\"drives\":100} | drives is 100, must be 0 to 99",
                "pools/oak/replacement | {\"swaps\":[{\"old\":\"x\",\"next\":\"y\"}]} | Drive 'x' can't be replaced by 'y'",
                "reservations/offers | {\"mibps\":5} | bytes is missing or 0, must be at least 1",
                "volumes/nix/growth-simulation | {\"triggerPercent\":10,\"triggerBytes\":0,\"stepPercent\":20,\"ceiling\":1,\"pause\":\"PT24H\"} | There is no volume 'nix'",
            })
    void what_cannot_be_answered_says_why(String path, String body, String detail) {
        App.Reply reply = App.post("odile", "/api/v1/" + path, body);
        assertThat(reply.status()).isEqualTo(400);
        assertThat(reply.detail()).isEqualTo(detail);
    }

    @Test
    void a_template_is_kept_and_removed() {
        JsonNode homes = App.get("odile", "/api/v1/volumes?limit=1000")
                .json()
                .path("items")
                .get(0)
                .path("volume");
        String body = "{\"name\":\"gone-soon\",\"volume\":" + homes + ",\"shares\":[],\"limits\":[]}";
        assertThat(App.post("odile", "/api/v1/definitions/templates", body).status())
                .isEqualTo(201);
        assertThat(App.get("odile", "/api/v1/definitions/templates").text()).contains("gone-soon");
        assertThat(App.post("odile", "/api/v1/definitions/templates/gone-soon/remove", "")
                        .status())
                .isEqualTo(204);
        assertThat(App.get("odile", "/api/v1/definitions/templates").text()).doesNotContain("gone-soon");
        assertThat(App.post("odile", "/api/v1/definitions/templates/gone-soon/remove", "")
                        .detail())
                .isEqualTo("There is no template 'gone-soon'");
    }
}
