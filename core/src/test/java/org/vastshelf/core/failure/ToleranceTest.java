package org.vastshelf.core.failure;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.Collections;
import java.util.HashSet;
import java.util.List;
import java.util.Random;
import java.util.Set;
import java.util.stream.IntStream;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.IntRange;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.vastshelf.core.layout.Layout;

class ToleranceTest {

    private static List<String> members(int count) {
        return IntStream.range(0, count).mapToObj(String::valueOf).toList();
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "RAID_0      | 4  | 1 | 0        | false | -1",
                "RAID_1      | 3  | 1 | 0,1      | true  | 0",
                "RAID_1      | 3  | 1 | 0,1,2    | false | -1",
                "RAID_10     | 6  | 1 | 0,2,4    | true  | 0",
                "RAID_10     | 6  | 1 | 0,1      | false | -1",
                "RAID_5      | 4  | 1 | 3        | true  | 0",
                "RAID_5      | 4  | 1 | 0,3      | false | -1",
                "RAID_6      | 5  | 1 | 0        | true  | 1",
                "RAID_TRIPLE | 6  | 1 | 0,1,2    | true  | 0",
                "RAID_50     | 8  | 2 | 0,4      | true  | 0",
                "RAID_50     | 8  | 2 | 0,1      | false | -1",
                "RAID_60     | 8  | 2 | 0,1,4,5  | true  | 0",
                "TERRACED_2  | 5  | 1 | 1,2      | true  | 0",
                "TERRACED_1  | 5  | 1 | 1,2      | false | -1",
            })
    void known_losses(String layout, int count, int groups, String gone, boolean survives, int further) {
        Set<String> set = Set.of(gone.split(","));
        Layout which = Layout.valueOf(layout);
        assertThat(Tolerance.survives(which, members(count), groups, set)).isEqualTo(survives);
        assertThat(Tolerance.furtherForCertain(which, members(count), groups, set))
                .isEqualTo(further);
    }

    @Property(tries = 500)
    void what_is_promised_for_certain_holds_for_any_drives_and_not_for_one_more(
            @ForAll Layout layout, @ForAll @IntRange(min = 4, max = 6) int half, @ForAll Random random) {
        int groups = 2;
        List<String> members = members(half * groups);
        List<String> order = new ArrayList<>(members);
        Collections.shuffle(order, random);
        Set<String> gone = new HashSet<>(order.subList(0, random.nextInt(3)));
        int further = Tolerance.furtherForCertain(layout, members, groups, gone);
        assertThat(further >= 0).isEqualTo(Tolerance.survives(layout, members, groups, gone));
        if (further < 0) {
            return;
        }
        List<String> left = order.stream().filter(m -> !gone.contains(m)).toList();
        Set<String> more = new HashSet<>(gone);
        more.addAll(left.subList(0, further));
        assertThat(Tolerance.survives(layout, members, groups, more)).isTrue();
        boolean someWorse = false;
        for (int from = 0; from < members.size(); from++) {
            Set<String> worse = new HashSet<>(gone);
            for (int i = 0; worse.size() < gone.size() + further + 1 && i < members.size(); i++) {
                worse.add(members.get((from + i) % members.size()));
            }
            someWorse |= !Tolerance.survives(layout, members, groups, worse);
        }
        assertThat(someWorse).as("one more than promised can lose data").isTrue();
    }
}
