package org.vastshelf.core.saving;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.groups.Tuple.tuple;

import java.util.ArrayDeque;
import java.util.Arrays;
import java.util.Deque;
import java.util.List;
import java.util.SplittableRandom;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.LongRange;
import org.junit.jupiter.api.Test;
import org.vastshelf.core.catalogue.FileKind;
import org.vastshelf.core.saving.Breakdown.By;
import org.vastshelf.core.saving.Breakdown.Group;
import org.vastshelf.core.tier.AgeBand;

class BreakdownTest {

    private static final int BLOCK = 4_096;

    private static MeasuredFile file(FileKind kind, String folder, AgeBand age, int number) {
        return new MeasuredFile(kind.name(), folder, age.name(), 1_000 + number, folder + "/" + number);
    }

    private static void cut(Chunks chunks, MeasuredFile file, byte[] bytes) {
        new FileChunker(new Chunking.Fixed(BLOCK), Packer.NONE, chunks).<RuntimeException>file(file, source(bytes));
    }

    private static FileChunker.Source<RuntimeException> source(byte[] bytes) {
        int[] at = {0};
        return (into, from, wanted) -> {
            int read = Math.min(wanted, bytes.length - at[0]);
            System.arraycopy(bytes, at[0], into, from, read);
            at[0] += read;
            return read;
        };
    }

    private static byte[] random(long seed, int blocks) {
        byte[] bytes = new byte[blocks * BLOCK];
        new SplittableRandom(seed).nextBytes(bytes);
        return bytes;
    }

    private static Chunks talks() {
        Chunks chunks = new Chunks(0, Chunks.MOST);
        byte[] talk = random(1, 10);
        cut(chunks, file(FileKind.FILM, "/talks", AgeBand.OLDER, 0), talk);
        cut(chunks, file(FileKind.DOCUMENT, "/notes", AgeBand.MONTH, 1), random(2, 3));
        cut(chunks, file(FileKind.FILM, "/press", AgeBand.MONTH, 2), talk);
        byte[] half = random(3, 10);
        System.arraycopy(talk, 0, half, 0, 5 * BLOCK);
        cut(chunks, file(FileKind.FILM, "/press", AgeBand.MONTH, 3), half);
        byte[] twice = Arrays.copyOf(random(4, 2), 4 * BLOCK);
        System.arraycopy(twice, 0, twice, 2 * BLOCK, 2 * BLOCK);
        cut(chunks, file(FileKind.DOCUMENT, "/notes", AgeBand.MONTH, 4), twice);
        cut(chunks, file(FileKind.OTHER, "/notes", AgeBand.MONTH, 5), new byte[3 * BLOCK]);
        return chunks;
    }

    @Test
    void what_is_repeated_is_told_by_kind_folder_and_age() {
        Breakdown breakdown = talks().breakdown();
        assertThat(breakdown.of(By.KIND))
                .containsExactly(
                        new Group("FILM", 3, 30 * BLOCK, 15 * BLOCK, 0),
                        new Group("DOCUMENT", 2, 7 * BLOCK, 2 * BLOCK, 0),
                        new Group("OTHER", 1, 3 * BLOCK, 2 * BLOCK, 0));
        assertThat(breakdown.of(By.FOLDER))
                .extracting(Group::name, Group::repeated)
                .containsExactly(tuple("/press", 15L * BLOCK), tuple("/notes", 4L * BLOCK), tuple("/talks", 0L));
        assertThat(breakdown.of(By.AGE)).extracting(Group::name).containsExactly("MONTH", "OLDER");
    }

    @Test
    void who_shares_most_with_whom() {
        Chunks chunks = talks();
        List<Sharing.Shared> expected =
                List.of(new Sharing.Shared(1_000, 2, 15 * BLOCK, List.of("/press/2", "/press/3")));
        assertThat(chunks.sharing().most(5))
                .as("what repeats itself and what is zeros is nobody else's")
                .isEqualTo(expected);
        assertThat(chunks.sharing().most(5)).as("asked twice").isEqualTo(expected);
        assertThat(chunks.sharing().most(0)).isEmpty();
    }

    @Test
    void a_measurement_that_rested_goes_on_with_both() {
        Chunks chunks = talks();
        Deque<Long> kept = new ArrayDeque<>();
        chunks.write(kept::add);
        Chunks read = Chunks.read(kept::removeFirst);
        assertThat(kept).isEmpty();
        for (Chunks some : List.of(chunks, read)) {
            cut(some, file(FileKind.FILM, "/late", AgeBand.YEAR, 6), random(1, 10));
        }
        for (By by : By.values()) {
            assertThat(read.breakdown().of(by)).isEqualTo(chunks.breakdown().of(by));
        }
        assertThat(read.sharing().most(9)).isEqualTo(chunks.sharing().most(9)).hasSize(1);
        assertThat(read.sharing().most(1).getFirst().files()).isEqualTo(3);
    }

    @Property(tries = 60)
    void groups_add_up_to_the_whole(@ForAll @LongRange(min = 0, max = 1_000_000) long seed) {
        SplittableRandom random = new SplittableRandom(seed);
        Chunks chunks = new Chunks(0, Chunks.MOST);
        for (int i = 0; i < 40; i++) {
            FileKind kind = FileKind.values()[random.nextInt(FileKind.values().length)];
            AgeBand age = AgeBand.ALL.get(random.nextInt(AgeBand.ALL.size()));
            chunks.file(file(kind, "/" + random.nextInt(5), age, i));
            for (int j = random.nextInt(20); j > 0; j--) {
                int which = random.nextInt(60);
                int length = which == 0 ? BLOCK : 1_000 + which;
                if (which == 0) {
                    chunks.addZeros(length, () -> 10);
                } else {
                    chunks.add((long) which << 58 | which, which * 7L, length, () -> length / 2);
                }
            }
        }
        Savings savings = chunks.savings();
        for (By by : By.values()) {
            List<Group> groups = chunks.breakdown().of(by);
            assertThat(groups.stream().mapToLong(Group::files).sum()).isEqualTo(savings.files());
            assertThat(groups.stream().mapToLong(Group::bytes).sum()).isEqualTo(savings.bytes());
            assertThat(groups.stream().mapToLong(Group::repeated).sum()).isEqualTo(savings.savedBytes());
            assertThat(groups.stream().mapToLong(Group::packed).sum())
                    .isEqualTo(savings.uniqueBytes() - savings.packedBytes());
        }
        long shared = chunks.sharing().most(100).stream()
                .mapToLong(Sharing.Shared::bytes)
                .sum();
        assertThat(shared).isLessThanOrEqualTo(savings.savedBytes());
    }

    @Test
    void more_folders_than_are_told_apart_are_told_together() {
        Chunks chunks = new Chunks(0, Chunks.MOST);
        for (int i = 0; i < Breakdown.MOST_FOLDERS + 50; i++) {
            chunks.file(file(FileKind.OTHER, "/" + i, AgeBand.MONTH, i));
            chunks.add(i, i, 10, () -> 10);
        }
        assertThat(chunks.breakdown().of(By.FOLDER))
                .hasSize(Breakdown.MOST_FOLDERS + 1)
                .anySatisfy(group -> {
                    assertThat(group.name()).isEmpty();
                    assertThat(group.files()).isEqualTo(50);
                });
    }

    @Test
    void those_that_share_least_are_forgotten_first() {
        Sharing sharing = new Sharing();
        int files = Sharing.MOST + 5;
        for (int i = 0; i < files; i++) {
            sharing.file(file(FileKind.OTHER, "/", AgeBand.MONTH, i));
        }
        for (int i = 0; i < files; i++) {
            sharing.file(file(FileKind.OTHER, "/copy", AgeBand.MONTH, i));
            sharing.repeats(i, i == 3 ? 1_000_000 : 10 + i);
        }
        assertThat(sharing.most(files)).hasSizeBetween(Sharing.MOST / 2, Sharing.MOST);
        assertThat(sharing.most(2)).extracting(Sharing.Shared::bytes).containsExactly(1_000_000L, 10L + files - 1);
    }
}
