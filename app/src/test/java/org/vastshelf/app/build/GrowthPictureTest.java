package org.vastshelf.app.build;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.LocalDate;
import java.util.List;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import org.vastshelf.core.unit.Bytes;
import org.vastshelf.core.volume.GrowthSimulation.Day;

class GrowthPictureTest {

    private static Day day(int i, long used, long size, boolean grew) {
        return new Day(LocalDate.of(2026, 1, 30).plusDays(i), Bytes.gib(used), Bytes.gib(size), grew, used > size);
    }

    @Test
    void the_picture_of_growth_steps_where_the_rule_acted() {
        GrowthPicture picture =
                GrowthPicture.draw(List.of(day(0, 50, 100, false), day(1, 95, 120, true), day(2, 130, 120, false)));
        assertThat(picture.growths()).hasSize(1);
        assertThat(picture.fullDays()).isEqualTo(1);
        assertThat(picture.top()).isEqualTo(Bytes.gib(130));
        // A step has two points at its place: before and after.
        assertThat(picture.size().split(" ")).hasSize(4);
        assertThat(picture.used().split(" ")).hasSize(3);
        assertThat(picture.used()).startsWith("0,").endsWith("720,10");
        assertThat(picture.marks()).containsExactly(new GrowthPicture.Mark(720, "Feb"));
    }

    @Test
    void a_year_of_days_stays_within_the_picture() {
        GrowthPicture picture = GrowthPicture.draw(IntStream.range(0, 365)
                .mapToObj(i -> day(i, 50 + i, 500, false))
                .toList());
        assertThat(picture.used().split(" ")).hasSize(365).allSatisfy(point -> {
            String[] xy = point.split(",");
            assertThat(Integer.parseInt(xy[0])).isBetween(0, picture.width());
            assertThat(Integer.parseInt(xy[1])).isBetween(0, picture.height());
        });
        assertThat(picture.marks()).hasSize(12);
    }
}
