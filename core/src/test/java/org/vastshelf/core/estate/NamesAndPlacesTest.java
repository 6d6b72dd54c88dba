package org.vastshelf.core.estate;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import org.vastshelf.core.Samples;

class NamesAndPlacesTest {

    @Test
    void names_stay_plain() {
        assertThat(Names.require("name", "press-2024.old_1")).isEqualTo("press-2024.old_1");
        assertThatThrownBy(() -> Names.require("name", " ")).hasMessage("name is empty, must be 1 to 40 characters");
        assertThatThrownBy(() -> Names.require("name", "x".repeat(200)))
                .hasMessage("name has 200 characters, must be at most 40");
        assertThatThrownBy(() -> Names.require("name", "<b>"))
                .hasMessage(
                        "name is '<b>', must be lower-case letters, digits, '.', '_' and '-', beginning with a letter"
                                + " or digit");
    }

    @ParameterizedTest
    @CsvSource({
        "10.20.0.0/16, 10.20.255.1, true",
        "10.20.0.0/16, 10.21.0.1, false",
        "0.0.0.0/0, 203.0.113.9, true",
        "10.20.4.7/32, 10.20.4.7, true",
        "10.20.4.7/32, 10.20.4.8, false",
        "2001:db8::/32, 2001:db8:1::5, true",
        "2001:db8::/32, 2001:db9::5, false",
        "10.0.0.0/8, 2001:db8::1, false",
    })
    void ranges_hold_their_addresses(String range, String address, boolean inside) {
        assertThat(new Cidr(range).contains(address)).isEqualTo(inside);
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "",
                "10.20.0.0",
                "10.20.0.0/33",
                "10.20.0.1/16",
                "host/8",
                "10.20.0.0/x",
                "300.1.1.1/8",
                "2001:db8::/129"
            })
    void what_is_no_range_is_refused(String text) {
        assertThatThrownBy(() -> new Cidr(text))
                .isInstanceOf(IllegalArgumentException.class)
                .hasMessageContaining(text)
                .hasMessageContaining("must");
    }

    @Test
    void paths_know_their_folders() {
        FilePath path = new FilePath("/cuts/2026/a.mov");
        assertThat(path.name()).isEqualTo("a.mov");
        assertThat(path.parent()).isEqualTo(new FilePath("/cuts/2026"));
        assertThat(path.ancestors())
                .containsExactlyElementsOf(List.of(FilePath.ROOT, new FilePath("/cuts"), new FilePath("/cuts/2026")));
        assertThat(path.isWithin(new FilePath("/cuts"))).isTrue();
        assertThat(path.isWithin(new FilePath("/cut"))).isFalse();
        assertThat(new FilePath("/cuts/")).isEqualTo(new FilePath("/cuts"));
    }

    @ParameterizedTest
    @ValueSource(strings = {"cuts", "/a//b", "/a/../b", "/./a", "/nul\0"})
    void paths_that_are_none_are_refused(String text) {
        assertThatThrownBy(() -> new FilePath(text))
                .isInstanceOf(IllegalArgumentException.class)
                .hasMessageContaining("must");
    }

    @Test
    void long_paths_are_refused_with_their_length() {
        assertThatThrownBy(() -> new FilePath("/" + "n".repeat(256)))
                .hasMessageEndingWith("of 256 bytes, must be at most 255");
        assertThatThrownBy(() -> new FilePath("/nnn".repeat(2_000)))
                .hasMessage("path has 8000 bytes, must be at most 4096");
    }

    @Test
    void nothing_is_found_under_no_name() {
        Estate estate = Samples.racked(List.of(1_000_000_000_000L));
        assertThat(estate.pools().get(null)).isNull();
        assertThat(estate.drives().get(null)).isNull();
        assertThat(estate.without(Kinds.DRIVE, "hill/1/1").drives().containsKey(null))
                .isFalse();
    }
}
