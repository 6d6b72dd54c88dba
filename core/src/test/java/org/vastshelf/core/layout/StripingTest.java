package org.vastshelf.core.layout;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.Collections;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.IntRange;
import net.jqwik.api.constraints.Size;
import org.junit.jupiter.api.Test;
import org.vastshelf.core.estate.DriveKind;
import org.vastshelf.core.layout.LayoutAnswer.Possible;
import org.vastshelf.core.layout.Striping.Spot;
import org.vastshelf.core.unit.Bytes;

class StripingTest {

    private static final Bytes STRIP = Bytes.of(4);

    private static LayoutQuestion question(List<Integer> sizes) {
        return new LayoutQuestion(
                sizes.stream().map(Bytes::of).toList(), 0, Bytes.ZERO, Bytes.ZERO, DriveKind.SPINNING.rates());
    }

    private static Striping striping(Layout layout, List<Integer> sizes) {
        LayoutQuestion question = question(sizes);
        return new Striping(question.drives(), LayoutComparison.shape(layout, question), STRIP);
    }

    @Test
    void protection_moves_on_by_one_member_with_each_row() {
        Striping striping = striping(Layout.RAID_5, List.of(12, 12, 12));
        assertThat(striping.at(0, 0)).isEqualTo(new Spot.Protection(0));
        assertThat(striping.at(1, 0)).isEqualTo(new Spot.Data(0));
        assertThat(striping.at(2, 1)).isEqualTo(new Spot.Data(5));
        assertThat(striping.at(1, 4)).isEqualTo(new Spot.Protection(8));
        assertThat(striping.at(2, 4)).isEqualTo(new Spot.Data(8));
        assertThat(striping.at(0, 7)).isEqualTo(new Spot.Data(15));
        assertThat(striping.rowAt(0, 7)).isEqualTo(new Striping.Row(List.of(0, 1, 2), 1));
    }

    @Test
    void a_terrace_puts_its_bands_one_after_the_other_and_strands_what_nobody_shares() {
        Striping striping = striping(Layout.TERRACED_1, List.of(20, 4, 12));
        assertThat(striping.at(1, 0)).isEqualTo(new Spot.Data(0));
        assertThat(striping.rowAt(0, 0).members()).containsExactly(0, 1, 2);
        assertThat(striping.at(0, 4)).isEqualTo(new Spot.Data(8));
        assertThat(striping.at(2, 11)).isEqualTo(new Spot.Data(15));
        assertThat(striping.rowAt(2, 11)).isEqualTo(new Striping.Row(List.of(0, 2), 1));
        assertThat(striping.at(0, 12)).isEqualTo(new Spot.Nothing());
        assertThat(striping.at(1, 4)).isEqualTo(new Spot.Nothing());
    }

    @Property(tries = 300)
    void every_byte_of_data_lies_in_one_place_and_all_places_add_up(
            @ForAll Layout layout, @ForAll @Size(min = 1, max = 9) List<@IntRange(min = 1, max = 40) Integer> sizes) {
        LayoutQuestion question = question(sizes);
        if (!(LayoutComparison.answer(layout, question) instanceof Possible possible)) {
            return;
        }
        Striping striping = new Striping(question.drives(), possible.shape(), STRIP);
        Map<Long, List<Integer>> places = new HashMap<>();
        long protection = 0;
        long nothing = 0;
        for (int member = 0; member < sizes.size(); member++) {
            for (long offset = 0; offset < sizes.get(member); offset++) {
                switch (striping.at(member, offset)) {
                    case Spot.Data data ->
                        places.computeIfAbsent(data.address(), a -> new ArrayList<>())
                                .add(member);
                    case Spot.Protection row -> {
                        assertThat(row.rowBegins()).isLessThan(possible.data().value());
                        protection++;
                    }
                    case Spot.Nothing none -> nothing++;
                }
            }
        }
        assertThat(places).hasSize((int) possible.data().value());
        assertThat(Collections.max(places.keySet())).isEqualTo(possible.data().value() - 1);
        long copies = places.values().stream().mapToLong(p -> p.size() - 1L).sum();
        assertThat(copies + protection).isEqualTo(possible.protection().value());
        assertThat(nothing).isEqualTo(possible.stranded().value());
    }

    @Property(tries = 200)
    void a_row_can_be_read_without_as_many_members_as_it_can_spare(
            @ForAll Layout layout,
            @ForAll @Size(min = 2, max = 9) List<@IntRange(min = 1, max = 40) Integer> sizes,
            @ForAll @IntRange(min = 0, max = 39) int offset) {
        LayoutQuestion question = question(sizes);
        if (!(LayoutComparison.answer(layout, question) instanceof Possible possible)) {
            return;
        }
        Striping striping = new Striping(question.drives(), possible.shape(), STRIP);
        for (int member = 0; member < sizes.size(); member++) {
            Striping.Row row = striping.rowAt(member, offset);
            boolean holds = offset < sizes.get(member) && !(striping.at(member, offset) instanceof Spot.Nothing);
            assertThat(row.members().contains(member)).isEqualTo(holds);
            assertThat(row.spare())
                    .isLessThanOrEqualTo(Math.max(0, row.members().size() - 1));
            if (holds) {
                assertThat(row.spare()).isEqualTo(possible.survives());
            }
        }
    }
}
