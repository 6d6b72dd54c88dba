package org.vastshelf.app.config;

import java.lang.reflect.InvocationTargetException;
import java.lang.reflect.RecordComponent;
import java.util.Collection;
import java.util.Map;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.vastshelf.core.estate.EstateDefinition;

/** Looks whether what was read from outside is whole: at every depth nothing is null that must not be. */
public final class Whole {

    private static final String OURS = "org.vastshelf.";

    private Whole() {}

    /**
     * Returns the value.
     *
     * @throws IllegalArgumentException naming the path of the first part that is missing
     */
    public static <T> T require(T value) {
        look(value, "");
        return value;
    }

    private static void look(Object value, String path) {
        switch (value) {
            case EstateDefinition definition ->
                definition.things().forEach((kind, things) -> here(things, kind.plural()));
            case Record record when record.getClass().getName().startsWith(OURS) -> parts(record, path);
            case Collection<?> list -> {
                int i = 0;
                for (Object item : list) {
                    here(item, path + "[" + i++ + "]");
                }
            }
            case Map<?, ?> map -> map.forEach((key, item) -> here(item, path + "[" + key + "]"));
            case Optional<?> optional -> optional.ifPresent(item -> here(item, path));
            default -> {}
        }
    }

    private static void parts(Record record, String path) {
        for (RecordComponent part : record.getClass().getRecordComponents()) {
            Object value = read(record, part);
            String name = path.isEmpty() ? part.getName() : path + "." + part.getName();
            boolean mayBeNull = part.getAnnotatedType().isAnnotationPresent(Nullable.class);
            if (value != null || !mayBeNull) {
                here(value, name);
            }
        }
    }

    private static Object read(Record record, RecordComponent part) {
        try {
            part.getAccessor().setAccessible(true);
            return part.getAccessor().invoke(record);
        } catch (IllegalAccessException | InvocationTargetException e) {
            throw new IllegalStateException(record.getClass() + " can't be looked at", e);
        }
    }

    private static void here(@Nullable Object value, String path) {
        if (value == null) {
            throw new IllegalArgumentException(path + " is missing or null");
        }
        look(value, path);
    }
}
