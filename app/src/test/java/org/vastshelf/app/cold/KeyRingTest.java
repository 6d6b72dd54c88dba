package org.vastshelf.app.cold;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.PosixFilePermissions;
import java.util.Base64;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

class KeyRingTest {

    private static final String OLD = Base64.getEncoder().encodeToString(new byte[32]);
    private static final String NEW =
            Base64.getEncoder().encodeToString("x".repeat(32).getBytes());

    @TempDir
    Path folder;

    @Test
    void what_is_sealed_is_opened_in_its_place_alone() {
        KeyRing ring = KeyRing.of(OLD);
        KeyRing.Sealed sealed = ring.seal("store a", "a secret");

        assertThat(new String(sealed.bytes())).doesNotContain("secret");
        assertThat(ring.open("store a", sealed)).contains("a secret");
        assertThat(ring.open("store b", sealed)).isEmpty();
        sealed.bytes()[20] ^= 1;
        assertThat(ring.open("store a", sealed)).isEmpty();
    }

    @Test
    void no_two_sealings_are_alike() {
        KeyRing ring = KeyRing.of(OLD);
        assertThat(ring.seal("a", "same").bytes())
                .isNotEqualTo(ring.seal("a", "same").bytes());
    }

    @Test
    void a_newer_key_seals_and_older_ones_still_open() {
        KeyRing.Sealed sealed = KeyRing.of(OLD).seal("a", "kept");
        KeyRing both = KeyRing.of(NEW + "," + OLD);

        assertThat(both.open("a", sealed)).contains("kept");
        assertThat(both.seal("a", "kept").with()).isEqualTo(both.newest()).isNotEqualTo(sealed.with());
        assertThat(KeyRing.of(NEW).open("a", sealed)).isEmpty();
    }

    @Test
    void the_file_is_made_once_and_for_its_owner_alone() throws IOException {
        Path file = folder.resolve("deep/key");
        String first = KeyRing.in(file).newest();

        assertThat(KeyRing.in(file).newest()).isEqualTo(first);
        assertThat(PosixFilePermissions.toString(Files.getPosixFilePermissions(file)))
                .isEqualTo("rw-------");
        assertThat(Files.list(file.getParent())).containsExactly(file);
    }

    @Test
    void keys_that_are_none_are_refused() {
        assertThatThrownBy(() -> KeyRing.of("c2hvcnQ=")).hasMessageContaining("has 5 bytes, must have 32");
        assertThatThrownBy(() -> KeyRing.of("?")).hasMessageContaining("is not in Base64");
    }
}
