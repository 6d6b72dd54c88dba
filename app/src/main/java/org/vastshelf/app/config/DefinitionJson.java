package org.vastshelf.app.config;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeSet;
import org.vastshelf.core.estate.EstateDefinition;
import org.vastshelf.core.estate.Kind;
import tools.jackson.core.JsonGenerator;
import tools.jackson.core.JsonParser;
import tools.jackson.databind.DeserializationContext;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.SerializationContext;
import tools.jackson.databind.ValueDeserializer;
import tools.jackson.databind.ValueSerializer;
import tools.jackson.databind.module.SimpleModule;
import tools.jackson.databind.node.ObjectNode;

/** An estate's definition as JSON: one list for each kind of thing. */
final class DefinitionJson {

    private static final Set<String> HEAD = Set.of("format", "version");

    private DefinitionJson() {}

    static SimpleModule module() {
        return new SimpleModule("definition")
                .addSerializer(EstateDefinition.class, new Writing())
                .addDeserializer(EstateDefinition.class, new Reading());
    }

    private static final class Writing extends ValueSerializer<EstateDefinition> {
        @Override
        public void serialize(EstateDefinition definition, JsonGenerator json, SerializationContext context) {
            json.writeStartObject();
            json.writeStringProperty("format", definition.format());
            json.writeNumberProperty("version", definition.version());
            for (Kind<?> kind : EstateDefinition.kinds()) {
                json.writeArrayPropertyStart(kind.plural());
                definition.all(kind).forEach(json::writePOJO);
                json.writeEndArray();
            }
            json.writeEndObject();
        }
    }

    private static final class Reading extends ValueDeserializer<EstateDefinition> {
        @Override
        public EstateDefinition deserialize(JsonParser parser, DeserializationContext context) {
            if (!(context.readTree(parser) instanceof ObjectNode given)) {
                throw new IllegalArgumentException("a definition must be a JSON object");
            }
            String format = given.path("format").asString("");
            int version = given.path("version").asInt(0);
            ObjectNode tree =
                    EstateDefinition.FORMAT.equals(format) && version == 1 ? OldForms.definition(given) : given;
            refuseUnknown(tree);
            Map<Kind<?>, List<?>> things = new HashMap<>();
            for (Kind<?> kind : EstateDefinition.kinds()) {
                things.put(kind, list(tree.path(kind.plural()), kind, context));
            }
            return new EstateDefinition(format, tree.path("version").asInt(0), things);
        }

        private static void refuseUnknown(ObjectNode tree) {
            Set<String> unknown = new TreeSet<>(tree.propertyNames());
            unknown.removeAll(HEAD);
            EstateDefinition.kinds().forEach(kind -> unknown.remove(kind.plural()));
            if (!unknown.isEmpty()) {
                throw new IllegalArgumentException("'" + unknown.iterator().next() + "' is not part of a definition");
            }
        }

        private static List<?> list(JsonNode nodes, Kind<?> kind, DeserializationContext context) {
            List<Object> list = new ArrayList<>();
            if (!nodes.isMissingNode() && !nodes.isArray()) {
                throw new IllegalArgumentException(kind.plural() + " must be a list");
            }
            for (JsonNode node : nodes) {
                if (node.isNull()) {
                    throw new IllegalArgumentException(kind.plural() + "[" + list.size() + "] is missing or null");
                }
                list.add(context.readTreeAsValue(node, kind.type()));
            }
            return list;
        }
    }
}
