package org.vastshelf.app.kit;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.when;

import jakarta.servlet.http.HttpServletRequest;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.springframework.ui.ConcurrentModel;
import org.springframework.ui.Model;

class TypedTest {

    private static final String GROW = "/build/volumes/film/grow";

    private static Model posted(String address, Map<String, String> typed) {
        return asked("POST", address, typed);
    }

    private static Model asked(String method, String address, Map<String, String> typed) {
        HttpServletRequest request = mock(HttpServletRequest.class);
        when(request.getMethod()).thenReturn(method);
        when(request.getRequestURI()).thenReturn(address);
        Map<String, String[]> parameters = new HashMap<>();
        typed.forEach((name, value) -> parameters.put(name, new String[] {value}));
        when(request.getParameterMap()).thenReturn(parameters);
        Model model = new ConcurrentModel();
        model.addAttribute("typed", Typed.in(request));
        return model;
    }

    @Test
    void what_was_typed_stands_in_its_own_form_and_in_no_other() {
        Typed typed = Typed.of(posted(GROW, Map.of("amount", "12 zebras")));
        assertThat(typed.at(GROW).text("amount", "Amount", "10 %").value()).isEqualTo("12 zebras");
        assertThat(typed.at("/build/volumes/film/pace")
                        .text("amount", "Amount", "10 %")
                        .value())
                .isEqualTo("10 %");
    }

    @Test
    void a_refusal_stands_at_its_field_and_is_read_out_with_it() {
        Model model = posted(GROW, Map.of("amount", "12 zebras"));
        Typed.refuse(model, new AtField("amount", "amount is '12 zebras', must be a size"));
        Field wrong = Typed.of(model).at(GROW).text("amount", "Amount", "10 %").hint("a size or %");
        assertThat(wrong.isWrong()).isTrue();
        assertThat(wrong.invalid()).isEqualTo("true");
        assertThat(wrong.describedBy()).isEqualTo(wrong.id() + "-wrong " + wrong.id() + "-hint");
        assertThat(wrong.attributes()).containsKey("autofocus");
        Field other = Typed.of(model).at(GROW).text("by", "By", "");
        assertThat(List.of(other.isWrong(), other.isHinted())).containsOnly(false);
        assertThat(other.describedBy()).isNull();
    }

    @Test
    void the_first_field_gives_way_to_one_that_is_wrong() {
        Model model = posted(GROW, Map.of());
        Typed.Fields before = Typed.of(model).at(GROW);
        assertThat(before.first(before.text("name", "Name", "")).attributes()).containsKey("autofocus");
        Typed.refuse(model, new AtField("amount", "no"));
        Typed.Fields after = Typed.of(model).at(GROW);
        assertThat(after.first(after.text("name", "Name", "")).attributes()).doesNotContainKey("autofocus");
    }

    @Test
    void a_tick_taken_away_stays_away_and_one_never_sent_stands_as_given() {
        assertThat(Typed.of(posted(GROW, Map.of("name", "x")))
                        .at(GROW)
                        .tick("thin", "thin", true)
                        .isChosen())
                .isFalse();
        assertThat(Typed.of(posted("/elsewhere", Map.of()))
                        .at(GROW)
                        .tick("thin", "thin", true)
                        .isChosen())
                .isTrue();
        Model shown = asked("GET", GROW, Map.of("scope", "oak"));
        assertThat(Typed.of(shown).at(GROW).tick("thin", "thin", true).isChosen())
                .isTrue();
    }

    @Test
    void the_same_name_in_two_forms_has_two_ids() {
        Typed typed = Typed.of(posted("/elsewhere", Map.of()));
        assertThat(typed.at(GROW).text("size", "Size", "").id())
                .isNotEqualTo(typed.at("/build/volumes/film/pace")
                        .text("size", "Size", "")
                        .id());
    }

    @Test
    void a_select_keeps_what_was_chosen_and_else_what_is_given() {
        Typed typed = Typed.of(posted(GROW, Map.of("by", "size")));
        assertThat(typed.at(GROW)
                        .select("by", "By", List.of("percent", "size"), "percent")
                        .options())
                .extracting(Field.Option::chosen)
                .containsExactly(false, true);
        assertThat(typed.at("/other")
                        .select("by", "By", List.of("percent", "size"), "percent")
                        .options())
                .extracting(Field.Option::chosen)
                .containsExactly(true, false);
    }

    @Test
    void reading_a_field_names_it_in_what_is_refused() {
        assertThat(AtField.read("size", () -> 7)).isEqualTo(7);
        assertThatThrownBy(() -> AtField.read("size", () -> {
                    throw new IllegalArgumentException("size is 'x'");
                }))
                .isInstanceOf(AtField.class)
                .hasMessage("size is 'x'")
                .extracting(refused -> ((AtField) refused).field())
                .isEqualTo("size");
    }
}
