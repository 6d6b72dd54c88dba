package org.vastshelf.app.kit;

import jakarta.servlet.http.HttpServletRequest;
import java.util.Arrays;
import java.util.Collection;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.function.Function;
import java.util.stream.Collectors;
import org.springframework.ui.Model;

/**
 * What was typed into a form, so that nothing of it is lost where it is refused.
 *
 * @param action the address that is asked for
 * @param sent whether it was sent; else it is part of the address
 * @param problem why it was refused; empty for not
 * @param field at which it was refused; empty for as a whole
 */
public record Typed(String action, boolean sent, Map<String, List<String>> values, String problem, String field) {

    private static final String KEY = "typed";
    private static final int LONGEST_ID = 60;

    public static Typed in(HttpServletRequest request) {
        return new Typed(
                request.getRequestURI(),
                request.getMethod().equals("POST"),
                request.getParameterMap().entrySet().stream()
                        .collect(Collectors.toMap(Map.Entry::getKey, e -> Arrays.asList(e.getValue()))),
                "",
                "");
    }

    public static Typed of(Model model) {
        return (Typed) Objects.requireNonNull(model.getAttribute(KEY), KEY);
    }

    /** Notes why what was typed is refused, for the page that shows it again. */
    public static void refuse(Model model, RuntimeException refused) {
        Typed typed = of(model);
        String field = refused instanceof AtField at ? at.field() : "";
        model.addAttribute(
                KEY, new Typed(typed.action, typed.sent, typed.values, String.valueOf(refused.getMessage()), field));
    }

    public boolean isRefused() {
        return !problem.isEmpty();
    }

    /** The fields of the form that is sent to an address, or to others by its further buttons. */
    public Fields at(String address, String... others) {
        boolean here = action.equals(address) || List.of(others).contains(action);
        return new Fields(address, here && sent, here ? values : Map.of(), here ? problem : "", here ? field : "");
    }

    /** What stands in the fields of one form: what was typed, else what is given here. */
    public record Fields(String action, boolean sent, Map<String, List<String>> values, String problem, String field) {

        private String value(String name, String given) {
            List<String> typed = values.get(name);
            return typed == null || typed.isEmpty() ? given : typed.getFirst();
        }

        private Field make(String type, String name, String label, String value, List<Field.Option> options) {
            boolean wrong = field.equals(name) && !problem.isEmpty();
            Field made = new Field(id(name), name, label, type, value, options, wrong ? problem : "");
            return wrong ? made.focused() : made;
        }

        /** Whether this form was sent and refused. */
        public boolean isTyped() {
            return sent;
        }

        /** All that was chosen under one name. */
        public List<String> chosen(String name) {
            return values.getOrDefault(name, List.of());
        }

        /** Makes it the field that the page begins with, unless another one is wrong. */
        public Field first(Field one) {
            return problem.isEmpty() ? one.focused() : one;
        }

        private String id(String name) {
            String form = action.replaceAll("[^A-Za-z0-9]+", "-");
            return "in" + form.substring(Math.max(0, form.length() - LONGEST_ID)) + "-" + name;
        }

        public Field text(String name, String label, String given) {
            return make("text", name, label, value(name, given), List.of()).with("autocomplete", "off");
        }

        /** Something that nobody is to read over a shoulder, and that is not kept in the page. */
        public Field secret(String name, String label) {
            return make("password", name, label, "", List.of()).with("autocomplete", "new-password");
        }

        public Field area(String name, String label, String given) {
            return make("textarea", name, label, value(name, given), List.of());
        }

        public Field number(String name, String label, long given) {
            return make("number", name, label, value(name, String.valueOf(given)), List.of());
        }

        public Field slider(String name, String label, long given) {
            return make("range", name, label, value(name, String.valueOf(given)), List.of());
        }

        public Field moment(String name, String label, String given) {
            return make("datetime-local", name, label, value(name, given), List.of())
                    .with("autocomplete", "off");
        }

        public Field day(String name, String label, String given) {
            return make("date", name, label, value(name, given), List.of()).with("autocomplete", "off");
        }

        public Field file(String name, String label) {
            return make("file", name, label, "", List.of());
        }

        public Field tick(String name, String label, boolean given) {
            boolean on = sent ? values.containsKey(name) : given;
            return make("tick", name, label, "true", List.of(new Field.Option("true", label, on)));
        }

        public <T> Field select(
                String name,
                String label,
                Collection<T> all,
                Function<T, String> key,
                Function<T, String> text,
                T given) {
            return make("select", name, label, "", options(name, all, key, text, key.apply(given)));
        }

        public Field select(String name, String label, Collection<String> all, String given) {
            return select(name, label, all, Function.identity(), Function.identity(), given);
        }

        public <T> Field radios(
                String name,
                String label,
                Collection<T> all,
                Function<T, String> key,
                Function<T, String> text,
                T given) {
            return make("radios", name, label, "", options(name, all, key, text, key.apply(given)));
        }

        private <T> List<Field.Option> options(
                String name, Collection<T> all, Function<T, String> key, Function<T, String> text, String given) {
            String chosen = value(name, given);
            return all.stream()
                    .map(one -> new Field.Option(
                            key.apply(one), text.apply(one), key.apply(one).equals(chosen)))
                    .toList();
        }
    }
}
