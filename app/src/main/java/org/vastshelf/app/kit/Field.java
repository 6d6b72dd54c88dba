package org.vastshelf.app.kit;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;

/**
 * A field of a form: what it is called, what stands in it, what helps with it, and what is wrong with it.
 *
 * @param id unique on its page
 * @param type of an HTML input; or "select", "textarea", "radios" or "tick"
 * @param options of a select or of radios
 * @param wrong why what stands in it was refused; empty for nothing
 * @param width a class of the style sheet
 * @param attributes further ones, as HTML has them
 */
public record Field(
        String id,
        String name,
        String label,
        String type,
        String value,
        List<Option> options,
        String hint,
        String wrong,
        String width,
        Map<String, String> attributes) {

    /** What can be chosen. */
    public record Option(String value, String text, boolean chosen) {}

    Field(String id, String name, String label, String type, String value, List<Option> options, String wrong) {
        this(id, name, label, type, value, options, "", wrong, "", Map.of());
    }

    /** A help that is read out with the field. */
    public Field hint(String text) {
        return new Field(id, name, label, type, value, options, text, wrong, width, attributes);
    }

    public Field width(String css) {
        return new Field(id, name, label, type, value, options, hint, wrong, css, attributes);
    }

    public Field with(String attribute, Object content) {
        Map<String, String> more = new LinkedHashMap<>(attributes);
        more.put(attribute, String.valueOf(content));
        return new Field(id, name, label, type, value, options, hint, wrong, width, more);
    }

    public Field between(long least, long most) {
        return with("min", least).with("max", most);
    }

    Field focused() {
        return with("autofocus", "autofocus");
    }

    public boolean isSelect() {
        return type.equals("select");
    }

    public boolean isArea() {
        return type.equals("textarea");
    }

    public boolean isTick() {
        return type.equals("tick");
    }

    public boolean isRadios() {
        return type.equals("radios");
    }

    public boolean isInput() {
        return !isSelect() && !isArea() && !isTick() && !isRadios();
    }

    public boolean isChosen() {
        return options.stream().anyMatch(Option::chosen);
    }

    public boolean isHinted() {
        return !hint.isEmpty();
    }

    public boolean isWrong() {
        return !wrong.isEmpty();
    }

    /** As ARIA has it; null for not. */
    public @Nullable String invalid() {
        return isWrong() ? "true" : null;
    }

    /** Which texts say more about it, for assistive technology; null for none. */
    public @Nullable String describedBy() {
        String ids = Stream.of(isWrong() ? id + "-wrong" : "", isHinted() ? id + "-hint" : "")
                .filter(text -> !text.isEmpty())
                .collect(Collectors.joining(" "));
        return ids.isEmpty() ? null : ids;
    }
}
