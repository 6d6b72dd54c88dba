package org.vastshelf.app.road;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.vastshelf.core.snapshot.BlockLives;
import org.vastshelf.core.snapshot.BlockLives.Run;

class LivesCodeTest {

    @Test
    void blocks_as_old_as_their_entry_take_no_room() {
        assertThat(LivesCode.write(new Lived(7, BlockLives.of(640, 7)))).isEmpty();
        assertThat(LivesCode.read(new byte[0], 7, 640)).isEqualTo(BlockLives.of(640, 7));
        assertThat(LivesCode.read(new byte[0], 7, 0)).isEqualTo(BlockLives.NONE);
    }

    @Test
    void a_renamed_file_remembers_that_its_blocks_are_older() {
        byte[] code = LivesCode.write(new Lived(300, BlockLives.of(129, 2)));
        assertThat(code).containsExactly(0x81, 1, 2);
        assertThat(LivesCode.read(code, 300, 129)).isEqualTo(BlockLives.of(129, 2));
    }

    @Test
    void whatever_was_written_is_read() {
        Random random = new Random(3);
        for (int i = 0; i < 500; i++) {
            BlockLives lives = BlockLives.of(1 + random.nextInt(1 << random.nextInt(30)), random.nextInt(5));
            for (int edit = random.nextInt(20); edit > 0; edit--) {
                long from = random.nextLong(lives.blocks() + 2);
                lives = lives.written(from, from + 1 + random.nextInt(500), random.nextInt(100_000));
            }
            int born = random.nextInt(6);
            byte[] code = LivesCode.write(new Lived(born, lives));
            assertThat(LivesCode.read(code, born, lives.blocks())).isEqualTo(lives);
        }
    }

    @Test
    void neighbours_of_one_birth_are_one() {
        assertThat(new BlockLives(List.of(new Run(2, 1), new Run(0, 5), new Run(3, 1))).runs())
                .containsExactly(new Run(5, 1));
    }
}
