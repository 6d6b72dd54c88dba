package org.vastshelf.app.plank;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.LocalDate;
import java.util.List;
import java.util.Map;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.Kinds;
import org.vastshelf.core.estate.PaceClass;
import org.vastshelf.core.estate.Pool;
import org.vastshelf.core.estate.Usage;
import org.vastshelf.core.estate.Volume;
import org.vastshelf.core.unit.Bytes;

class PlankTest {

    private static Estate estate(int pools) {
        List<Pool> all = IntStream.range(0, pools)
                .mapToObj(i -> Pool.reservation("pool-" + i, "north", Bytes.tib(10L * (1 + i % 5)), PaceClass.STEADY))
                .toList();
        Volume volume = Volume.plain("film", "pool-0", Bytes.tib(15), true, 65_536, 85);
        return Estate.EMPTY.with(Kinds.POOL, all).withVolume(volume);
    }

    private static Plank draw(int pools) {
        Usage usage = new Usage(Map.of("film", new Usage.Held(Bytes.tib(9), Bytes.tib(1))));
        return Plank.draw(estate(pools), usage, Map.of(), Map.of(), Map.of(), LocalDate.of(2026, 3, 2), p -> true);
    }

    @ParameterizedTest
    @ValueSource(ints = {1, 5, 7, 40})
    void all_planks_have_one_scale(int pools) {
        List<Plank.PoolPicture> pictures = draw(pools).pools();
        assertThat(pictures).hasSize(pools).allSatisfy(p -> {
            double scale = (double) pictures.getFirst().end() / Bytes.tib(10).value();
            assertThat((double) p.end())
                    .isBetween(p.usable().value() * scale * 0.9 - 2, p.usable().value() * scale * 1.1 + 2);
            assertThat(p.slot()).isGreaterThanOrEqualTo(p.length());
        });
    }

    @Test
    void what_is_too_narrow_among_many_is_drawn_as_one() {
        Estate many = estate(1);
        for (int i = 0; i < 150; i++) {
            many = many.withVolume(Volume.plain("small-" + i, "pool-0", Bytes.gib(10), true, 65_536, 85));
        }
        Usage usage = new Usage(Map.of("small-3", new Usage.Held(Bytes.gib(5), Bytes.ZERO)));
        Plank.PoolPicture pool = Plank.draw(
                        many, usage, Map.of(), Map.of(), Map.of(), LocalDate.of(2026, 3, 2), p -> true)
                .pools()
                .getFirst();
        assertThat(pool.blocks()).hasSize(2);
        Plank.Block rest = pool.blocks().getLast();
        assertThat(rest.title()).isEqualTo("150 volumes of pool pool-0");
        assertThat(rest.size()).isEqualTo(Bytes.gib(1_500));
        assertThat(rest.used()).isEqualTo(Bytes.gib(5));
    }

    @Test
    void what_has_left_hangs_below_to_the_same_scale_and_all_names_make_room() {
        Usage usage = new Usage(Map.of("film", new Usage.Held(Bytes.tib(9), Bytes.tib(1))));
        List<Plank.PoolPicture> pools = Plank.draw(
                        estate(2),
                        usage,
                        Map.of("film", Bytes.tib(5)),
                        Map.of(),
                        Map.of(),
                        LocalDate.of(2026, 3, 2),
                        p -> true)
                .pools();
        Plank.Block film = pools.getFirst().blocks().getFirst();
        assertThat(film.away()).isEqualTo(Plank.BLOCK_HEIGHT / 3);
        assertThat(pools).allSatisfy(pool -> {
            assertThat(pool.depth()).isEqualTo(film.away());
            assertThat(pool.height()).isEqualTo(draw(1).pools().getFirst().height() + film.away());
        });
    }

    @Test
    void few_pools_fit_the_screen() {
        assertThat(draw(7).pools().stream().mapToInt(p -> p.slot() + 18).sum()).isLessThanOrEqualTo(1_300);
    }

    @Test
    void what_is_promised_beyond_the_end_hangs_over_it() {
        Plank.PoolPicture pool = draw(1).pools().getFirst();
        Plank.Block block = pool.blocks().getFirst();
        assertThat(pool.beyond()).isEqualTo(Bytes.tib(5));
        assertThat(block.beyondFrom()).isEqualTo(pool.end());
        assertThat(block.x() + block.width()).isGreaterThan(pool.end());
        assertThat(block.live()).isEqualTo(Math.round(9 / 15.0 * Plank.BLOCK_HEIGHT));
    }
}
