package org.vastshelf.app.store.migration;

import java.nio.charset.StandardCharsets;
import java.sql.Connection;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;
import java.sql.Timestamp;
import java.time.OffsetDateTime;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.List;
import org.flywaydb.core.api.migration.BaseJavaMigration;
import org.flywaydb.core.api.migration.Context;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;
import org.vastshelf.app.config.OldForms;
import org.vastshelf.app.store.Digests;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;
import tools.jackson.databind.node.ObjectNode;

/** Rules become things of their own, and progress becomes rows; in the estate, in drafts, in orders and in templates. */
@Component
public class V10__RulesOfTheirOwn extends BaseJavaMigration {

    private static final JsonMapper JSON = new JsonMapper();
    private static final String LIFT = "lift rule";
    private static final String GROWTH = "growth rule";
    private static final String SCRUBBING = "scrub rule";

    private record Row(String key, int position, ObjectNode body) {}

    @Override
    public void migrate(Context context) throws SQLException {
        Connection db = context.getConnection();
        estate(db);
        for (Row row : rows(db, "SELECT order_id, position, body FROM order_change")) {
            change(db, row);
        }
        for (Row row : rows(db, "SELECT order_id, position, body FROM order_step")) {
            update(db, "UPDATE order_step SET body = ? WHERE order_id = ? AND position = ?", step(row.body), row);
        }
        for (Row row : rows(db, "SELECT name, 0, body FROM volume_template")) {
            OldForms.growth((ObjectNode) row.body.path("volume"))
                    .ifPresent(rule -> row.body.putArray("rules").add(typed("rule", "GrowthRule", rule)));
            run(db, "UPDATE volume_template SET body = ? WHERE name = ?", JSON.writeValueAsString(row.body), row.key);
        }
    }

    private static void estate(Connection db) throws SQLException {
        for (Row row : things(db, "pool")) {
            rule(db, LIFT, row.key, OldForms.lift(row.body).orElse(null));
            put(db, "pool", row.key, row.body);
        }
        for (Row row : things(db, "volume")) {
            rule(db, GROWTH, row.key, OldForms.growth(row.body).orElse(null));
            put(db, "volume", row.key, row.body);
        }
        for (Row row : things(db, "scrub")) {
            rule(db, SCRUBBING, row.key, OldForms.scrubbing(row.body).orElse(null));
            if (row.body.path("begun").isString() || row.body.path("last").isString()) {
                run(
                        db,
                        "INSERT INTO scrub VALUES (?, ?, ?, ?, ?)",
                        row.key,
                        moment(row.body.path("begun")),
                        moment(row.body.path("last")),
                        row.body.path("healed").asLong(),
                        row.body.path("unhealed").asLong());
            }
        }
        for (Row row : things(db, "rebuild")) {
            run(
                    db,
                    "INSERT INTO rebuild VALUES (?, ?, ?, ?, ?, ?, ?)",
                    row.key,
                    row.body.path("pool").asString(),
                    row.body.path("failed").asString(),
                    row.body.path("todo").asLong(),
                    row.body.path("done").asLong(),
                    moment(row.body.path("asOf")),
                    row.body.path("number").asLong());
        }
        run(db, "DELETE FROM estate_object WHERE kind IN ('scrub', 'rebuild')");
    }

    /** A draft's change of a rule; a volume that was to grow by itself is followed by its rule. */
    private static void change(Connection db, Row row) throws SQLException {
        ObjectNode body = row.body;
        ObjectNode next = switch (body.path("change").asString("")) {
            case "SetScrub" ->
                rule(
                        SCRUBBING,
                        "ScrubRule",
                        body.path("pool").asString(),
                        OldForms.scrubbing(
                                        body.path("pool").asString(),
                                        body.path("everyDays").asInt(),
                                        JSON.nullNode())
                                .orElse(null));
            case "SetLift" ->
                rule(
                        LIFT,
                        "LiftRule",
                        body.path("pool").asString(),
                        OldForms.lift(body.path("pool").asString(), body.path("rule")));
            case "SetGrowth" ->
                rule(
                        GROWTH,
                        "GrowthRule",
                        body.path("volume").asString(),
                        body.path("rule").isObject()
                                ? OldForms.growth(body.path("volume").asString(), body.path("rule"))
                                : null);
            case "ApplyEstate" -> {
                OldForms.definition((ObjectNode) body.path("definition"));
                yield body;
            }
            case "ComposeVolume" -> {
                ObjectNode grows =
                        OldForms.growth((ObjectNode) body.path("volume")).orElse(null);
                if (grows != null) {
                    append(db, row.key, rule(GROWTH, "GrowthRule", "", grows));
                }
                yield body;
            }
            default -> body;
        };
        update(db, "UPDATE order_change SET body = ? WHERE order_id = ? AND position = ?", next, row);
    }

    private static void append(Connection db, String order, ObjectNode change) throws SQLException {
        run(
                db,
                "INSERT INTO order_change SELECT ?, MAX(position) + 1, 0, ? FROM order_change WHERE order_id = ?",
                order,
                JSON.writeValueAsString(change),
                order);
    }

    private static ObjectNode rule(String kind, String type, String governs, @Nullable ObjectNode rule) {
        ObjectNode change = JSON.createObjectNode();
        if (rule == null) {
            change.put("change", "DropRule");
            change.put("kind", kind);
            change.put("governs", governs);
        } else {
            change.put("change", "SetRule");
            change.set("rule", typed("rule", type, rule));
        }
        return change;
    }

    private static ObjectNode typed(String property, String type, ObjectNode body) {
        body.put(property, type);
        return body;
    }

    private static ObjectNode step(ObjectNode body) {
        return switch (body.path("step").asString("")) {
            case "SetScrub" -> scrub(body);
            case "ChangePool" ->
                changed(body, body.path("edit"), body.path("pool").asString());
            case "ChangeVolume" -> changed(body, (ObjectNode) body.path("before"), (ObjectNode) body.path("after"));
            case "DissolvePool" -> dissolved(body);
            case "RemoveVolume" -> removed(body);
            case "ApplyEstate" -> {
                OldForms.definition((ObjectNode) body.path("definition"));
                yield body;
            }
            default -> body;
        };
    }

    private static ObjectNode scrub(ObjectNode body) {
        String pool = body.path("pool").asString();
        return ruleStep(
                SCRUBBING,
                "ScrubRule",
                pool,
                OldForms.scrubbing(pool, body.path("before").asInt(), JSON.nullNode())
                        .orElse(null),
                OldForms.scrubbing(pool, body.path("everyDays").asInt(), JSON.nullNode())
                        .orElse(null));
    }

    private static ObjectNode changed(ObjectNode body, JsonNode edit, String pool) {
        return edit.path("edit").asString("").equals("SetLift")
                ? ruleStep(
                        LIFT,
                        "LiftRule",
                        pool,
                        OldForms.lift(pool, edit.path("before")),
                        OldForms.lift(pool, edit.path("next")))
                : body;
    }

    private static ObjectNode changed(ObjectNode body, ObjectNode before, ObjectNode after) {
        ObjectNode was = OldForms.growth(before).orElse(null);
        ObjectNode is = OldForms.growth(after).orElse(null);
        return before.equals(after)
                ? ruleStep(GROWTH, "GrowthRule", before.path("name").asString(), was, is)
                : body;
    }

    private static ObjectNode dissolved(ObjectNode body) {
        List<ObjectNode> rules = new ArrayList<>();
        OldForms.lift((ObjectNode) body.path("pool"))
                .map(r -> typed("rule", "LiftRule", r))
                .ifPresent(rules::add);
        if (body.path("scrub") instanceof ObjectNode scrub) {
            OldForms.scrubbing(scrub).map(r -> typed("rule", "ScrubRule", r)).ifPresent(rules::add);
        }
        body.putArray("rules").addAll(rules);
        return body;
    }

    private static ObjectNode removed(ObjectNode body) {
        OldForms.growth((ObjectNode) body.path("volume"))
                .ifPresent(rule -> body.putArray("rules").add(typed("rule", "GrowthRule", rule)));
        return body;
    }

    private static ObjectNode ruleStep(
            String kind, String type, String governs, @Nullable ObjectNode before, @Nullable ObjectNode after) {
        ObjectNode step = JSON.createObjectNode();
        step.put("step", "RuleStep");
        step.put("kind", kind);
        step.put("governs", governs);
        step.set("before", before == null ? JSON.nullNode() : typed("rule", type, before));
        step.set("after", after == null ? JSON.nullNode() : typed("rule", type, after));
        return step;
    }

    private static List<Row> things(Connection db, String kind) throws SQLException {
        return rows(db, "SELECT name, 0, body FROM estate_object WHERE kind = '" + kind + "'");
    }

    private static List<Row> rows(Connection db, String query) throws SQLException {
        List<Row> rows = new ArrayList<>();
        try (Statement statement = db.createStatement();
                ResultSet found = statement.executeQuery(query)) {
            while (found.next()) {
                rows.add(new Row(found.getString(1), found.getInt(2), (ObjectNode) JSON.readTree(found.getString(3))));
            }
        }
        return rows;
    }

    private static void rule(Connection db, String kind, String name, @Nullable ObjectNode rule) throws SQLException {
        if (rule != null) {
            put(db, kind, name, rule);
        }
    }

    private static void put(Connection db, String kind, String name, ObjectNode body) throws SQLException {
        run(
                db,
                "REPLACE INTO estate_object (kind, name, body, name_hash, version, gone) VALUES (?, ?, ?, ?, 0, 0)",
                kind,
                name,
                JSON.writeValueAsString(body),
                Digests.sixteen(name.getBytes(StandardCharsets.UTF_8)));
    }

    private static void update(Connection db, String sql, ObjectNode body, Row row) throws SQLException {
        run(db, sql, JSON.writeValueAsString(body), row.key, row.position);
    }

    private static void run(Connection db, String sql, @Nullable Object... values) throws SQLException {
        try (PreparedStatement statement = db.prepareStatement(sql)) {
            for (int i = 0; i < values.length; i++) {
                statement.setObject(i + 1, values[i]);
            }
            statement.executeUpdate();
        }
    }

    private static @Nullable Timestamp moment(JsonNode at) {
        return at.isString()
                ? Timestamp.valueOf(OffsetDateTime.parse(at.asString())
                        .withOffsetSameInstant(ZoneOffset.UTC)
                        .toLocalDateTime())
                : null;
    }
}
