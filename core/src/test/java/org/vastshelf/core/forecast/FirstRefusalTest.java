package org.vastshelf.core.forecast;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.LocalDate;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.vastshelf.core.Samples;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.Kinds;
import org.vastshelf.core.forecast.FirstRefusal.By;

class FirstRefusalTest {

    private static final LocalDate DAY = LocalDate.of(2026, 3, 2);
    private static final Estate ESTATE = Estate.EMPTY.with(
            Kinds.VOLUME,
            List.of(Samples.volume("thin", "oak", 100, true), Samples.volume("thick", "oak", 100, false)));

    private static Optional<FirstRefusal> on(String volume, int limit, int full, int pool) {
        return FirstRefusal.on(
                ESTATE,
                volume,
                limit < 0 ? null : Map.entry("homes/suki", DAY.plusDays(limit)),
                full < 0 ? Map.of() : Map.of(volume, DAY.plusDays(full)),
                pool < 0 ? Map.of() : Map.of("oak", DAY.plusDays(pool)));
    }

    @Test
    void the_earliest_says_no_and_of_two_the_one_that_is_nearer_to_the_person() {
        assertThat(on("thin", 9, 8, 7)).contains(new FirstRefusal(By.POOL, "oak", DAY.plusDays(7)));
        assertThat(on("thin", 7, 7, 7)).contains(new FirstRefusal(By.LIMIT, "homes/suki", DAY.plusDays(7)));
        assertThat(on("thin", -1, 7, 7)).contains(new FirstRefusal(By.VOLUME, "thin", DAY.plusDays(7)));
        assertThat(on("thin", -1, -1, -1)).isEmpty();
    }

    @Test
    void a_thick_volume_has_its_room_whatever_becomes_of_the_pool() {
        assertThat(on("thick", 9, 8, 1)).contains(new FirstRefusal(By.VOLUME, "thick", DAY.plusDays(8)));
        assertThat(on("thick", -1, -1, 1)).isEmpty();
    }
}
