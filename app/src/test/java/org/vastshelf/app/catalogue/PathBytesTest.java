package org.vastshelf.app.catalogue;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class PathBytesTest {

    @Test
    void any_bytes_come_back_as_they_were() {
        Random random = new Random(5);
        for (int run = 0; run < 2_000; run++) {
            byte[] path = new byte[random.nextInt(60)];
            random.nextBytes(path);
            assertThat(PathBytes.parse(PathBytes.shown(path))).isEqualTo(path);
        }
    }

    @ParameterizedTest
    @CsvSource({"grün.jpg, grün.jpg", "a\\b, a\\x5Cb", "back\\x41, back\\x5Cx41"})
    void plain_text_is_shown_as_it_is(String name, String shown) {
        assertThat(PathBytes.shown(name.getBytes(StandardCharsets.UTF_8))).isEqualTo(shown);
        assertThat(new String(PathBytes.parse(shown), StandardCharsets.UTF_8)).isEqualTo(name);
    }

    @Test
    void children_of_the_root_have_one_slash() {
        assertThat(new String(PathBytes.child(PathBytes.of("/"), PathBytes.of("a"))))
                .isEqualTo("/a");
        assertThat(new String(PathBytes.child(PathBytes.of("/a"), PathBytes.of("b"))))
                .isEqualTo("/a/b");
    }
}
