package org.vastshelf.app.config;

import static org.assertj.core.api.Assertions.assertThat;

import java.lang.reflect.Method;
import java.util.Arrays;
import java.util.Locale;
import java.util.stream.Stream;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import org.vastshelf.core.estate.DriveGroup;
import org.vastshelf.core.estate.Kind;
import org.vastshelf.core.estate.Kinds;
import tools.jackson.core.JacksonException;
import tools.jackson.databind.exc.UnrecognizedPropertyException;
import tools.jackson.databind.json.JsonMapper;

class JsonTest {

    private static final JsonMapper JSON = mapper();

    private static JsonMapper mapper() {
        JsonMapper.Builder builder = JsonMapper.builder();
        new Json().coreTypes().customize(builder);
        return builder.build();
    }

    static Stream<Method> told() {
        return Stream.concat(Kinds.ALL.stream().map(Kind::type), Stream.of(DriveGroup.class))
                .filter(Class::isRecord)
                .flatMap(type -> Arrays.stream(type.getDeclaredMethods()))
                .filter(method -> method.getName().startsWith("is")
                        && method.getParameterCount() == 0
                        && method.getReturnType() == boolean.class);
    }

    /** A definition that was written can be read, whatever was under way when it was. */
    @ParameterizedTest
    @MethodSource("told")
    void what_is_told_of_a_thing_beside_its_members_is_no_obstacle_when_it_is_read_back(Method told) {
        String name = told.getName().substring(2, 3).toLowerCase(Locale.ROOT)
                + told.getName().substring(3);
        try {
            JSON.readValue("{\"" + name + "\":true}", told.getDeclaringClass());
        } catch (JacksonException missing) {
            assertThat(missing).isNotInstanceOf(UnrecognizedPropertyException.class);
        }
    }
}
