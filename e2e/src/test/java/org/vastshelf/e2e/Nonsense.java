package org.vastshelf.e2e;

import java.lang.reflect.ParameterizedType;
import java.lang.reflect.RecordComponent;
import java.lang.reflect.Type;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import java.util.function.Supplier;
import org.vastshelf.core.change.Change;
import tools.jackson.databind.json.JsonMapper;

/** Changes as nobody would write them: every kind that there is, with parts missing, mistyped, extreme or null. */
record Nonsense(Random lots, Supplier<String> names) {

    private static final JsonMapper JSON = new JsonMapper();
    private static final List<Class<?>> CHANGES = leaves(Change.class);
    private static final List<String> WRONG = List.of("null", "{}", "[]", "[null]", "\"x\"", "-1", "1e9", "true");
    private static final List<String> NUMBERS =
            List.of("0", "1", "2", "-5", "85", "4096", "109951162777600", "9223372036854775807");

    private static List<Class<?>> leaves(Class<?> type) {
        if (!type.isSealed()) {
            return List.of(type);
        }
        List<Class<?>> leaves = new ArrayList<>();
        for (Class<?> kind : type.getPermittedSubclasses()) {
            leaves.addAll(leaves(kind));
        }
        return leaves;
    }

    private <T> T one(List<T> list) {
        return list.get(lots.nextInt(list.size()));
    }

    String change() {
        if (lots.nextInt(30) == 0) {
            return "{\"change\":\"Nonsense\"}";
        }
        Class<?> kind = one(CHANGES);
        return parts(kind, "\"change\":\"" + kind.getSimpleName() + "\"", 0);
    }

    private String parts(Class<?> type, String first, int depth) {
        List<String> parts = new ArrayList<>();
        if (!first.isEmpty()) {
            parts.add(first);
        }
        for (RecordComponent part : type.getRecordComponents()) {
            if (lots.nextInt(8) > 0) {
                parts.add("\"" + part.getName() + "\":" + value(part.getGenericType(), depth + 1));
            }
        }
        return "{" + String.join(",", parts) + "}";
    }

    private String value(Type type, int depth) {
        if (depth > 6 || lots.nextInt(10) == 0) {
            return one(WRONG);
        }
        if (type instanceof ParameterizedType generic) {
            return generic.getRawType() == Optional.class
                    ? value(generic.getActualTypeArguments()[0], depth)
                    : several(generic, depth);
        }
        return type instanceof Class<?> known ? value(known, depth) : one(WRONG);
    }

    private String several(ParameterizedType generic, int depth) {
        Type[] of = generic.getActualTypeArguments();
        List<String> items = new ArrayList<>();
        for (int i = lots.nextInt(3); i > 0; i--) {
            String key = of.length > 1 ? JSON.writeValueAsString(names.get()) + ":" : "";
            items.add(key + value(of[of.length - 1], depth + 1));
        }
        String all = String.join(",", items);
        return of.length > 1 ? "{" + all + "}" : "[" + all + "]";
    }

    private String value(Class<?> type, int depth) {
        if (type.isEnum()) {
            return "\"" + ((Enum<?>) one(List.of(type.getEnumConstants()))).name() + "\"";
        }
        if (type == boolean.class) {
            return String.valueOf(lots.nextBoolean());
        }
        if (type.isPrimitive() || Number.class.isAssignableFrom(type)) {
            return one(NUMBERS);
        }
        if (type.isSealed()) {
            return parts(one(leaves(type)), "", depth);
        }
        if (!type.isRecord()) {
            return JSON.writeValueAsString(names.get());
        }
        // What is only one thing is mostly written as that thing: sizes, paths, names.
        return type.getRecordComponents().length == 1 && lots.nextBoolean()
                ? value(type.getRecordComponents()[0].getGenericType(), depth)
                : parts(type, "", depth);
    }
}
