package org.vastshelf.app.kit;

import java.util.function.Supplier;

/** What was typed was refused because of one field of its form. */
public final class AtField extends IllegalArgumentException {

    private final String field;

    public AtField(String field, String problem) {
        super(problem);
        this.field = field;
    }

    public String field() {
        return field;
    }

    /** What a field means; where it can't be read, the refusal says which field it was. */
    public static <T> T read(String field, Supplier<T> reading) {
        try {
            return reading.get();
        } catch (IllegalArgumentException refused) {
            throw new AtField(field, String.valueOf(refused.getMessage()));
        }
    }
}
