package org.vastshelf.app.kit;

import java.util.List;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;

/**
 * A form of a few fields, with its question and its buttons.
 *
 * @param action where it is sent to
 * @param legend what it is about
 * @param note what else is to be known; empty for nothing
 */
public record Form(String action, String legend, List<Field> fields, List<Button> buttons, String note) {

    /**
     * What sends a form.
     *
     * @param name of the parameter that it adds; null for none
     * @param action where else it sends the form to; null for where the form says
     */
    public record Button(
            String text,
            @Nullable String name,
            @Nullable String value,
            @Nullable String action) {

        public static Button of(String text) {
            return new Button(text, null, null, null);
        }

        public static Button of(String text, String name, String value) {
            return new Button(text, name, value, null);
        }

        public static Button to(String action, String text) {
            return new Button(text, null, null, action);
        }
    }

    public static Form of(String action, String legend, Field... fields) {
        return new Form(action, legend, List.of(fields), List.of(), "");
    }

    public Form button(Button button) {
        return new Form(
                action,
                legend,
                fields,
                Stream.concat(buttons.stream(), Stream.of(button)).toList(),
                note);
    }

    public Form button(String text) {
        return button(Button.of(text));
    }

    public Form with(Field more) {
        return new Form(
                action, legend, Stream.concat(fields.stream(), Stream.of(more)).toList(), buttons, note);
    }

    public Form note(String text) {
        return new Form(action, legend, fields, buttons, text);
    }

    public boolean isNoted() {
        return !note.isEmpty();
    }
}
