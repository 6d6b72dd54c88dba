package org.vastshelf.app.kit;

import java.time.LocalDate;
import java.time.format.DateTimeParseException;
import java.util.Optional;
import org.jspecify.annotations.Nullable;

/** Days as they are typed. */
public final class Days {

    private Days() {}

    /**
     * The day that was typed in a field.
     *
     * @throws AtField when there is none, or it is not one
     */
    public static LocalDate read(String field, @Nullable String text) {
        return typed(field, text)
                .orElseThrow(() -> new AtField(field, "date is missing, must be typed like 2033-03-31"));
    }

    /** The day that was typed, if one was. */
    public static Optional<LocalDate> typed(String field, @Nullable String text) {
        if (text == null || text.isBlank()) {
            return Optional.empty();
        }
        try {
            return Optional.of(LocalDate.parse(text.strip()));
        } catch (DateTimeParseException unreadable) {
            throw new AtField(field, "date is '" + text.strip() + "', must be like 2033-03-31");
        }
    }
}
