package org.vastshelf.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import tools.jackson.databind.JsonNode;

class ApiTest {

    private static JsonNode layout(JsonNode answer, String name) {
        for (JsonNode layout : answer.path("layouts")) {
            if (layout.path("layout").asString().equals(name)) {
                return layout;
            }
        }
        throw new AssertionError(name + " is missing");
    }

    @Test
    void layouts_are_compared() {
        JsonNode answer = App.post("ines", "/api/v1/layouts/compare", """
                {"drives":[{"bytes":6000000000000,"count":3}],"spares":0,"driveReserveBytes":0,"alignBytes":1048576,
                "annualFailureRate":0.015,"unrecoverableReadErrorPerBit":1e-15,"rebuildMiBps":120}""").json();
        assertThat(answer.path("layouts").size()).isEqualTo(10);
        JsonNode raid5 = layout(answer, "RAID_5");
        assertThat(raid5.path("dataBytes").asLong()).isEqualTo(2 * (6_000_000_000_000L / 1_048_576 * 1_048_576));
        assertThat(raid5.path("reason").isNull()).isTrue();
        assertThat(layout(answer, "RAID_6").path("possible").asBoolean()).isFalse();
        assertThat(layout(answer, "RAID_6").path("reason").asString())
                .isEqualTo("RAID 6 needs at least 4 drives, 3 are taken; choose 1 more");
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "{\"drives\":[{\"bytes\":-5}]} | drives[0].bytes is -5, must be at least 1",
                "{\"drives\":[{\"bytes\":\"x\"}]} | drives[0].bytes is of another kind, must be a number",
                "{\"drives\":[{\"bytes\":5000000000,\"count\":0}]} | drives[0].count is 0, must be 1 to 1000",
                "{\"drives\":[]} | drives holds 0 drives, must be 1 to 1000",
                "{} | drives is missing, must list drives as {\"bytes\":…,\"count\":…}",
                "{\"drives\":[{\"bytes\":9000000000000000000}]} | drive is 9000000000000000000 bytes, must be at most 1000000000000000 bytes",
            })
    void impossible_drives_are_named(String body, String detail) {
        App.Reply reply = App.post("odile", "/api/v1/layouts/compare", body);
        assertThat(reply.status()).isEqualTo(400);
        assertThat(reply.detail()).isEqualTo(detail);
    }

    @Test
    void a_fill_date_is_forecast() {
        List<String> days = new ArrayList<>();
        for (int i = 0; i < 60; i++) {
            days.add("{\"day\":\"" + LocalDate.of(2026, 1, 1).plusDays(i) + "\",\"usedBytes\":"
                    + (1_000_000 + 5_000 * i) + "}");
        }
        String body = "{\"capacityBytes\":2000000,\"history\":[" + String.join(",", days) + "]}";
        JsonNode answer = App.post("odile", "/api/v1/forecasts/fill-date", body).json();
        assertThat(answer.path("likely").asString()).isEqualTo("2026-07-20");
        assertThat(answer.path("fullWithin").path("365").asDouble()).isEqualTo(1.0);
        String gap = "{\"capacityBytes\":2000000,\"history\":[" + days.get(0) + "," + days.get(5) + "]}";
        assertThat(App.post("odile", "/api/v1/forecasts/fill-date", gap).detail())
                .isEqualTo("history lacks 4 of 6 days, may lack at most one in 10");
        days.add(0, days.remove(30));
        days.remove(40);
        days.add(days.get(20));
        JsonNode mended = App.post(
                        "odile",
                        "/api/v1/forecasts/fill-date",
                        "{\"capacityBytes\":2000000,\"history\":[" + String.join(",", days) + "]}")
                .json();
        assertThat(mended.path("likely").asString()).isEqualTo("2026-07-20");
        List<String> kinds = new ArrayList<>();
        mended.path("findings").forEach(f -> kinds.add(f.path("kind").asString()));
        assertThat(kinds).contains("GAP", "REPEAT", "DISORDER");
    }

    @Test
    void a_space_s_history_from_before_is_brought_in_and_its_gaps_told() {
        StringBuilder table = new StringBuilder("day,used_gib\n");
        for (LocalDate day = LocalDate.of(2022, 12, 1); day.isBefore(LocalDate.of(2023, 3, 1)); day = day.plusDays(1)) {
            if (day.getDayOfMonth() != 9) {
                table.append(day)
                        .append(",")
                        .append(700 + day.getDayOfYear() % 90)
                        .append(".5\n");
            }
        }
        String path = "/api/v1/spaces/volume/plans/history";
        JsonNode report = App.post("odile", path, "text/csv", table.toString()).json();
        assertThat(report.path("first").asString()).isEqualTo("2022-12-01");
        assertThat(report.path("last").asString()).isGreaterThanOrEqualTo("2026-03-01");
        assertThat(report.path("days").asInt()).isEqualTo(92);
        assertThat(report.path("findings").findValuesAsString("kind")).containsOnly("GAP");
        assertThat(App.post("odile", path, "text/csv", "day,used_gib\n2027-01-01,3\n")
                        .detail())
                .startsWith("day is 2027-01-01, must be before today");
        assertThat(App.post("odile", path, "text/csv", "day,used_gib\n2019-01-01,3\n")
                        .detail())
                .contains("a gap may have at most 14");
        assertThat(App.post("odile", "/api/v1/spaces/volume/none/history", "text/csv", "day,used_gib\n")
                        .status())
                .isEqualTo(404);
        assertThat(App.post("ines", path, "text/csv", table.toString()).status())
                .isEqualTo(403);
    }

    @Test
    void audit_lines_are_paged_by_cursor_without_gap_or_repeat() {
        JsonNode first =
                App.get("ines", "/api/v1/audit-lines?limit=3&person=suki").json();
        String next = first.path("next").asString();
        JsonNode second = App.get("ines", "/api/v1/audit-lines?limit=3&person=suki&before=" + next)
                .json();
        assertThat(first.path("items").get(2).path("number").asLong()).isEqualTo(Long.parseLong(next));
        assertThat(second.path("items").get(0).path("number").asLong()).isLessThan(Long.parseLong(next));
        assertThat(App.get("ines", "/api/v1/audit-lines?limit=0").detail()).isEqualTo("limit is 0, must be 1 to 1000");
    }

    @Test
    void pools_are_listed_with_ledgers_that_add_up() {
        JsonNode pools = App.get("ines", "/api/v1/pools").json().path("items");
        assertThat(pools.size()).isGreaterThanOrEqualTo(7);
        for (JsonNode pool : pools) {
            long sum = 0;
            for (JsonNode line : pool.path("ledger").path("lines")) {
                sum += line.path("bytes").asLong();
            }
            assertThat(sum).isEqualTo(pool.path("ledger").path("label").asLong());
        }
    }

    @Test
    void an_order_with_data_on_a_drive_waits_to_be_confirmed() {
        String change =
                "{\"changes\":[{\"change\":\"ComposePool\",\"name\":\"hazel\",\"server\":\"fernhill\",\"drives\":"
                        + "[\"fernhill/3/11\",\"fernhill/3/12\"],\"layout\":\"RAID_1\",\"spares\":0,\"surfaceCheck\":false}]}";
        JsonNode draft = App.post("odile", "/api/v1/orders", change).json();
        long id = draft.path("order").path("id").asLong();
        App.Reply early = App.post("odile", "/api/v1/orders/" + id + "/carry-out", "");
        assertThat(early.status()).isEqualTo(409);
        assertThat(early.detail())
                .isEqualTo("To be confirmed first: Drive fernhill/3/12 holds 1.8 TB of an older pool named"
                        + " 'glasshouse-2021'; it will be gone");
        App.post("odile", "/api/v1/orders/" + id + "/confirm", "{\"key\":\"pool hazel: data fernhill/3/12\"}");
        assertThat(App.post("odile", "/api/v1/orders/" + id + "/carry-out", "").status())
                .isEqualTo(200);
        assertThat(App.post("odile", "/api/v1/orders/" + id + "/take-back", "").status())
                .isEqualTo(200);
        assertThat(Drafts.awaited(id, "TAKEN_BACK")).isEqualTo("TAKEN_BACK");
        assertThat(App.get("odile", "/api/v1/pools").text()).doesNotContain("hazel");
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "elm | The pool name 'elm' is taken",
                "new | There is no drive 'fernhill/9/9' on fernhill",
            })
    void a_draft_that_cannot_be_says_why(String name, String text) {
        JsonNode draft = App.post(
                        "odile",
                        "/api/v1/orders",
                        "{\"changes\":[{\"change\":\"ComposePool\",\"name\":\"" + name
                                + "\",\"server\":\"fernhill\",\"drives\":[\"fernhill/9/9\"],\"layout\":\"RAID_0\","
                                + "\"spares\":0,\"surfaceCheck\":false}]}")
                .json();
        assertThat(draft.path("checks").get(0).path("text").asString()).isEqualTo(text);
        long id = draft.path("order").path("id").asLong();
        assertThat(App.post("odile", "/api/v1/orders/" + id + "/carry-out", "").status())
                .isEqualTo(409);
    }

    @Test
    void names_of_any_shape_are_refused_at_the_door() {
        for (String name : List.of("", "x".repeat(200), "<b>bold</b>")) {
            App.Reply reply = App.post(
                    "odile",
                    "/api/v1/orders",
                    "{\"changes\":[{\"change\":\"ComposePool\",\"name\":\"" + name
                            + "\",\"server\":\"fernhill\",\"drives\":[],\"layout\":\"RAID_0\",\"spares\":0,"
                            + "\"surfaceCheck\":false}]}");
            assertThat(reply.status()).isEqualTo(400);
            assertThat(reply.detail()).startsWith("pool name ");
        }
    }

    @Test
    void a_change_without_a_needed_member_says_which() {
        App.Reply reply =
                App.post("odile", "/api/v1/orders", "{\"changes\":[{\"change\":\"ComposePool\",\"name\":\"x\"}]}");
        assertThat(reply.status()).isEqualTo(400);
        assertThat(reply.detail()).startsWith("changes[0].").contains("is missing or null");
    }

    @Test
    void a_file_user_acts_only_as_himself() {
        String body =
                "{\"person\":\"suki\",\"share\":\"film\",\"operation\":\"WRITE\",\"path\":\"/x.mov\",\"bytes\":1}";
        assertThat(App.post("pell", "/api/v1/desk/operations", body).status()).isEqualTo(403);
        JsonNode own = App.post("pell", "/api/v1/desk/operations", body.replace("suki", "pell"))
                .json();
        assertThat(own.path("allowed").asBoolean()).isFalse();
        assertThat(own.path("reason").asString()).isEqualTo("Access to film has no rule for Pell Arden");
    }

    @Test
    void a_listing_shows_what_was_saved_and_nothing_to_strangers() {
        String write = "{\"person\":\"suki\",\"share\":\"film\",\"operation\":\"WRITE\",\"path\":"
                + "\"/listing-test/a.mov\",\"bytes\":4321}";
        assertThat(App.post("suki", "/api/v1/desk/operations", write).status()).isEqualTo(200);
        String path = "/api/v1/desk/listing?share=film&path=/listing-test&person=";
        JsonNode seen = App.get("suki", path + "suki").json();
        assertThat(seen.path("entries").size()).isEqualTo(1);
        assertThat(seen.path("entries").get(0).path("name").asString()).isEqualTo("a.mov");
        assertThat(seen.path("entries").get(0).path("bytes").asLong()).isEqualTo(4_321);
        JsonNode hidden = App.get("pell", path + "pell").json();
        assertThat(hidden.path("mayRead").asBoolean()).isFalse();
        assertThat(hidden.path("entries").size()).isZero();
        assertThat(App.get("pell", path + "suki").status()).isEqualTo(403);
    }

    @Test
    void preferences_are_kept_and_others_than_the_known_are_refused() {
        assertThat(App.post("pell", "/api/v1/preferences", "{\"units\":\"decimal\"}")
                        .json()
                        .path("units")
                        .asString())
                .isEqualTo("DECIMAL");
        assertThat(App.get("pell", "/api/v1/preferences").json().path("theme").asString())
                .isEqualTo("light");
        assertThat(App.post("pell", "/api/v1/preferences", "{\"theme\":\"pink\"}")
                        .detail())
                .isEqualTo("theme is 'pink', must be light or dark");
        App.post("pell", "/api/v1/preferences", "{\"units\":\"binary\"}");
    }

    @Test
    void a_catalogue_goes_out_and_comes_back_as_csv() {
        String header = "path,bytes,allocated,owner,group,modified,accessed,changed,kind,counted\r\n";
        String line =
                "/a/b.txt,5,4096,ines,staff,2025-01-01T00:00:00Z,2025-01-02T00:00:00Z,2025-01-01T00:00:00Z,TEXT,1";
        App.Reply made = App.post("odile", "/api/v1/catalogues/by-api/files.csv", "text/csv", header + line + "\r\n");
        assertThat(made.status()).as(made.text()).isEqualTo(201);
        App.Reply again = App.get("odile", "/api/v1/catalogues/by-api/files.csv");
        assertThat(again.text().lines().skip(1)).hasSize(1).first().asString().startsWith("/a/b.txt,5,4096,ines,staff");
        App.Reply wrong = App.post(
                "odile", "/api/v1/catalogues/by-api2/files.csv", "text/csv", header + line.replace(",5,", ",five,"));
        assertThat(wrong.status()).isEqualTo(400);
        assertThat(wrong.detail()).contains("bytes").contains("five");
        App.post("odile", "/api/v1/catalogues/by-api/remove", "");
    }

    @Test
    void the_api_describes_itself() {
        JsonNode document = App.get("ines", "/api/openapi.json").json();
        assertThat(document.path("paths").has("/api/v1/layouts/compare")).isTrue();
        assertThat(document.path("info").path("title").asString()).isEqualTo("Vast Shelf");
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "{\"mishap\":\"DriveFails\",\"drive\":\"fernhill/9/9\"} | There is no drive 'fernhill/9/9'",
                "{\"mishap\":\"ClientLoad\",\"server\":\"fernhill\",\"percent\":96} | client load is 96 %, must be 0 to 95",
                "{\"mishap\":\"PowerCut\",\"server\":\"northbank\"} | There is no file server 'northbank' with hardware",
                "{\"mishap\":\"BlocksDamaged\",\"drive\":\"fernhill/1/1\",\"blocks\":0} | blocks is 0, must be 1 to 1000",
                "{\"mishap\":\"DriveBrought\",\"bay\":\"fernhill/1/1\",\"kind\":\"SPINNING\",\"size\":8000000000000} | Bay fernhill/1/1 holds a drive that is in use",
            })
    void mishaps_that_cannot_be_are_named(String body, String detail) {
        App.Reply reply = App.post("tomas", "/api/v1/bench", body);
        assertThat(reply.status()).isEqualTo(400);
        assertThat(reply.detail()).isEqualTo(detail);
    }

    @Test
    void damaged_blocks_are_found_and_healed_by_a_scrub() {
        App.post("tomas", "/api/v1/bench", "{\"mishap\":\"BlocksDamaged\",\"drive\":\"saltmarsh/1/2\",\"blocks\":5}");
        assertThat(App.post("tomas", "/api/v1/pools/reed/scrub", "").status()).isEqualTo(200);
        assertThat(App.post("tomas", "/api/v1/pools/reed/scrub", "").detail())
                .isEqualTo("A scrub of pool reed runs already");
        App.post("odile", "/api/v1/time", "{\"hours\":48}");
        assertThat(App.get("ines", "/api/v1/hardware-events").text())
                .contains("Scrub of pool reed is done: 5 damaged blocks healed");
        JsonNode scrub = App.get("ines", "/api/v1/scrubs")
                .json()
                .valueStream()
                .filter(s -> s.path("pool").asString().equals("reed"))
                .findFirst()
                .orElseThrow();
        assertThat(scrub.path("healed").asLong()).isEqualTo(5);
        assertThat(scrub.path("begun").isNull()).isTrue();
        assertThat(App.post("tomas", "/api/v1/pools/tern/scrub", "").detail())
                .isEqualTo("There is no pool 'tern' with drives to see");
    }

    @Test
    void a_server_without_power_serves_nothing_until_it_is_back() {
        App.post("tomas", "/api/v1/bench", "{\"mishap\":\"PowerCut\",\"server\":\"fernhill\"}");
        String write = "{\"person\":\"suki\",\"share\":\"film\",\"operation\":\"WRITE\",\"path\":"
                + "\"/power-test/a.mov\",\"bytes\":4321}";
        assertThat(App.post("suki", "/api/v1/desk/operations", write)
                        .json()
                        .path("reason")
                        .asString())
                .isEqualTo("File server fernhill is without power");
        App.post("tomas", "/api/v1/bench", "{\"mishap\":\"PowerBack\",\"server\":\"fernhill\"}");
        assertThat(App.post("suki", "/api/v1/desk/operations", write)
                        .json()
                        .path("allowed")
                        .asBoolean())
                .isTrue();
    }

    @Test
    void a_locate_light_goes_on_and_off() {
        App.post("tomas", "/api/v1/drives/fernhill/2/7/locate", "{\"on\":true}");
        assertThat(App.get("ines", "/api/v1/drives?limit=1000").text()).contains("\"locating\":true");
        App.post("tomas", "/api/v1/drives/fernhill/2/7/locate", "{\"on\":false}");
        assertThat(App.get("ines", "/api/v1/drives?limit=1000").text()).doesNotContain("\"locating\":true");
        assertThat(App.post("tomas", "/api/v1/drives/fernhill/9/7/locate", "{\"on\":true}")
                        .detail())
                .isEqualTo("There is no drive 'fernhill/9/7'");
    }

    @Test
    void an_order_is_paused_and_goes_on_where_it_was() {
        long id = App.post(
                        "odile",
                        "/api/v1/orders",
                        "{\"changes\":[{\"change\":\"RestartNode\",\"server\":\"fernhill\",\"node\":1}]}")
                .json()
                .path("order")
                .path("id")
                .asLong();
        assertThat(App.post("tomas", "/api/v1/orders/" + id + "/pause", "").detail())
                .isEqualTo("Order " + id + " is in work, must be running");
        assertThat(App.post("tomas", "/api/v1/orders/" + id + "/carry-out", "").detail())
                .isEqualTo("Order " + id + " is in odile's work, must be called ready first");
        assertThat(App.post("tomas", "/api/v1/orders/" + id + "/ready", "").status())
                .isEqualTo(403);
        App.post("odile", "/api/v1/orders/" + id + "/ready", "");
        assertThat(App.post("odile", "/api/v1/orders/" + id + "/strike", "{\"position\":0,\"struck\":true}")
                        .status())
                .isEqualTo(409);
        App.post("tomas", "/api/v1/orders/" + id + "/carry-out", "");
        assertThat(App.post("tomas", "/api/v1/orders/" + id + "/pause", "").status())
                .isEqualTo(200);
        App.post("odile", "/api/v1/time", "{\"hours\":5}");
        assertThat(Drafts.state(id)).isEqualTo("PAUSED");
        App.post("tomas", "/api/v1/orders/" + id + "/go-on", "");
        assertThat(Drafts.state(id)).isEqualTo("RUNNING");
        App.post("odile", "/api/v1/time", "{\"hours\":1}");
        assertThat(Drafts.awaited(id, "DONE")).isEqualTo("DONE");
    }

    @Test
    void a_volume_template_is_kept_and_used() {
        JsonNode estate = App.get("odile", "/api/v1/definitions/estate").json();
        JsonNode volume = null;
        for (JsonNode found : estate.path("volumes")) {
            volume = found.path("name").asString().equals("plans") ? found : volume;
        }
        App.Reply kept = App.post(
                "odile",
                "/api/v1/definitions/templates",
                "{\"name\":\"drawings\",\"volume\":" + volume + ",\"shares\":[],\"limits\":[]}");
        assertThat(kept.status()).as(kept.text()).isEqualTo(201);
        JsonNode order = App.post(
                        "odile",
                        "/api/v1/definitions/templates/drawings/use",
                        "{\"volume\":\"more-plans\",\"pool\":\"ash\"}")
                .json();
        assertThat(order.path("lines")
                        .get(0)
                        .path("change")
                        .path("volume")
                        .path("pool")
                        .asString())
                .isEqualTo("ash");
        App.post("odile", "/api/v1/orders/" + order.path("id").asLong() + "/discard", "");
        assertThat(App.post("odile", "/api/v1/definitions/templates/none/use", "{}")
                        .detail())
                .isEqualTo("There is no template 'none'");
    }
}
