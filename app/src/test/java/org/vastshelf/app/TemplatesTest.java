package org.vastshelf.app;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;

/** Templates place what the views of their pages have made; they neither decide nor compute nor speak. */
class TemplatesTest {

    private static final int LONGEST = 160;
    private static final Pattern EXPRESSION = Pattern.compile("\\s(?:th|hx):[a-z-]+=\"([^\"]*)\"");
    private static final Pattern QUOTED = Pattern.compile("'[^']*'");
    private static final Pattern DECIDES =
            Pattern.compile("\\?|==|!=|&gt;|&lt;|\\$\\{[^}]*(?: [-+*/%] |\\band\\b|\\bor\\b|[<>])");
    private static final Pattern SENTENCE = Pattern.compile("th:text=\"\\|(?![^ ]* ?\\$\\{[^}]*}\\|\")");

    static Stream<Path> templates() throws IOException {
        return Files.list(Path.of("src/main/resources/templates")).sorted();
    }

    @ParameterizedTest
    @MethodSource("templates")
    void no_line_is_long(Path template) throws IOException {
        assertThat(Files.readAllLines(template))
                .allSatisfy(line -> assertThat(line.length()).as(line).isLessThanOrEqualTo(LONGEST));
    }

    @ParameterizedTest
    @MethodSource("templates")
    void nothing_is_decided_or_said(Path template) throws IOException {
        String text = Files.readString(template);
        List<String> deciding = EXPRESSION
                .matcher(text)
                .results()
                .map(found -> QUOTED.matcher(found.group(1)).replaceAll("x"))
                .filter(expression -> DECIDES.matcher(expression).find())
                .toList();
        assertThat(deciding).isEmpty();
        assertThat(SENTENCE.matcher(text).results().map(found -> text.substring(found.start(), found.end() + 60)))
                .isEmpty();
    }

    /** One fragment makes a field with its label, its help and what is wrong with it. */
    @ParameterizedTest
    @MethodSource("templates")
    void every_field_is_made_by_the_one_fragment(Path template) throws IOException {
        List<String> own = List.of("fields.html", "signin.html", "frame.html", "listing.html");
        String text = Files.readString(template);
        if (own.contains(template.getFileName().toString())) {
            return;
        }
        assertThat(Pattern.compile("<input type=\"(?:text|number|datetime-local|password|file)\"|<textarea")
                        .matcher(text)
                        .find())
                .isFalse();
        long fieldsets = Pattern.compile("<fieldset(?![^>]*th:replace)")
                .matcher(text)
                .results()
                .count();
        assertThat(Pattern.compile("<legend").matcher(text).results().count()).isEqualTo(fieldsets);
    }
}
