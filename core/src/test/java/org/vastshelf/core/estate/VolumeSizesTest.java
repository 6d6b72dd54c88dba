package org.vastshelf.core.estate;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import org.junit.jupiter.api.Test;
import org.vastshelf.core.unit.Bytes;

class VolumeSizesTest {

    private static final VolumeSizes SOLD = new VolumeSizes(Bytes.gib(128), Bytes.gib(256), Bytes.tib(4));

    @Test
    void whole_steps_within_the_bounds_can_be_had() {
        assertThat(SOLD.problem(Bytes.gib(256))).isEmpty();
        assertThat(SOLD.problem(Bytes.tib(4))).isEmpty();
        assertThat(SOLD.problem(Bytes.gib(128))).isPresent();
        assertThat(SOLD.problem(Bytes.tib(5))).isPresent();
        assertThat(SOLD.problem(Bytes.gib(300)))
                .contains("322,122,547,200 bytes, must be 256.00 GiB to 4.00 TiB in steps of 128.00 GiB");
        assertThat(VolumeSizes.ANY.problem(Bytes.of(Bytes.GIB + 1))).isEmpty();
    }

    @Test
    void a_volume_that_came_with_another_size_grows_by_whole_steps() {
        assertThat(SOLD.problem(Bytes.gib(300), Bytes.gib(428))).isEmpty();
        assertThat(SOLD.problem(Bytes.gib(300), Bytes.gib(400))).isPresent();
        assertThat(SOLD.problem(Bytes.tib(4), Bytes.gib(4_224))).isPresent();
    }

    @Test
    void growth_is_rounded_up_or_down_where_up_passes_a_ceiling() {
        assertThat(SOLD.grown(Bytes.gib(256), Bytes.gib(270), Bytes.tib(4))).isEqualTo(Bytes.gib(384));
        assertThat(SOLD.grown(Bytes.gib(256), Bytes.gib(500), Bytes.gib(511))).isEqualTo(Bytes.gib(384));
        assertThat(SOLD.grown(Bytes.gib(256), Bytes.gib(300), Bytes.gib(300))).isEqualTo(Bytes.gib(256));
        assertThat(SOLD.grown(Bytes.gib(3_968), Bytes.tib(5), Bytes.tib(8))).isEqualTo(Bytes.tib(4));
    }

    @Test
    void bounds_are_checked() {
        assertThatThrownBy(() -> new VolumeSizes(Bytes.ZERO, Bytes.gib(1), Bytes.tib(1)))
                .hasMessageContaining("step of volumes is 0");
        assertThatThrownBy(() -> new VolumeSizes(Bytes.gib(1), Bytes.tib(2), Bytes.tib(1)))
                .hasMessageContaining("are not possible");
    }
}
