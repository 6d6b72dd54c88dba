package org.vastshelf.app.config;

import java.time.LocalDate;
import java.time.OffsetDateTime;
import java.time.ZoneOffset;
import java.time.temporal.ChronoUnit;
import java.util.Optional;
import org.vastshelf.core.estate.GrowthRule;
import org.vastshelf.core.time.Schedule;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.ObjectNode;

/**
 * Documents as they were written while rules were parts of what they govern: a pool's lift, a volume's growth, how often
 * a pool is scrubbed. Each is taken out of its document and becomes one of its own.
 */
public final class OldForms {

    private static final JsonMapper JSON = new JsonMapper();

    private OldForms() {}

    /** An estate's definition in its second version. */
    public static ObjectNode definition(ObjectNode first) {
        ArrayNode lifts = first.putArray("liftRules");
        first.path("pools").forEach(pool -> lift((ObjectNode) pool).ifPresent(lifts::add));
        ArrayNode growths = first.putArray("growthRules");
        first.path("volumes").forEach(volume -> growth((ObjectNode) volume).ifPresent(growths::add));
        ArrayNode scrubRules = first.putArray("scrubRules");
        first.path("scrubs").forEach(scrub -> scrubbing((ObjectNode) scrub).ifPresent(scrubRules::add));
        first.putArray("scrubs");
        first.put("version", 2);
        return first;
    }

    /** Takes the lift out of a pool; only one with a fast part that adds space keeps a rule. */
    public static Optional<ObjectNode> lift(ObjectNode pool) {
        JsonNode lift = pool.remove("lift");
        boolean fast = false;
        for (JsonNode group : pool.path("groups")) {
            fast |= group.path("part").asString("").equals("FAST");
        }
        boolean tiered = fast && !pool.path("fastAsCache").asBoolean(false);
        return tiered && lift != null && lift.isObject()
                ? Optional.of(lift(pool.path("name").asString(), lift))
                : Optional.empty();
    }

    /** A lift as a rule of its own. */
    public static ObjectNode lift(String pool, JsonNode lift) {
        ObjectNode rule = JSON.createObjectNode();
        rule.put("pool", pool);
        int days = lift.path("everyDays").asInt(1);
        rule.set("when", days == 0 ? JSON.nullNode() : days(days));
        rule.set("hours", lift.path("hours"));
        rule.set("limitMibps", lift.path("limitMibps"));
        return rule;
    }

    /** Lifts ran in the night after each day whose number since 1970 a rule's days divide. */
    private static ObjectNode days(int every) {
        long first = Math.ceilDiv(Schedule.BEGINNING.toLocalDate().toEpochDay(), every) * (long) every;
        return schedule(LocalDate.ofEpochDay(first + 1).atStartOfDay().toString(), "FREQ=DAILY;INTERVAL=" + every);
    }

    private static ObjectNode schedule(String from, String rule) {
        ObjectNode schedule = JSON.createObjectNode();
        schedule.put("from", from);
        schedule.put("rule", rule);
        return schedule;
    }

    /** Takes the growth out of a volume. */
    public static Optional<ObjectNode> growth(ObjectNode volume) {
        JsonNode growth = volume.remove("growth");
        return growth == null || !growth.isObject()
                ? Optional.empty()
                : Optional.of(growth(volume.path("name").asString(), growth));
    }

    /** Growth as a rule of its own. */
    public static ObjectNode growth(String volume, JsonNode growth) {
        ObjectNode rule = ((ObjectNode) growth).deepCopy();
        rule.put("volume", volume);
        rule.set("looks", schedule(Schedule.BEGINNING.toString(), GrowthRule.OFTEN.rule()));
        return rule;
    }

    /** Takes how often a pool is scrubbed out of what is known of its scrubs. */
    public static Optional<ObjectNode> scrubbing(ObjectNode scrub) {
        JsonNode days = scrub.remove("everyDays");
        return scrubbing(scrub.path("pool").asString(), days == null ? 0 : days.asInt(), scrub.path("last"));
    }

    /** Scrubs by a number of days, counted from the last one. */
    public static Optional<ObjectNode> scrubbing(String pool, int days, JsonNode last) {
        if (days == 0) {
            return Optional.empty();
        }
        String from = last.isString()
                ? OffsetDateTime.parse(last.asString())
                        .withOffsetSameInstant(ZoneOffset.UTC)
                        .toLocalDateTime()
                        .truncatedTo(ChronoUnit.MINUTES)
                        .toString()
                : Schedule.BEGINNING.toString();
        ObjectNode rule = JSON.createObjectNode();
        rule.put("pool", pool);
        rule.set("when", schedule(from, "FREQ=DAILY;INTERVAL=" + days));
        return Optional.of(rule);
    }
}
