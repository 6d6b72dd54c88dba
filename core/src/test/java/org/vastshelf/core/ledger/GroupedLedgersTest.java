package org.vastshelf.core.ledger;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.stream.IntStream;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.IntRange;
import org.junit.jupiter.api.Test;
import org.vastshelf.core.Samples;
import org.vastshelf.core.estate.Drive;
import org.vastshelf.core.estate.DriveGroup;
import org.vastshelf.core.estate.DriveGroup.Part;
import org.vastshelf.core.estate.DriveState;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.PaceClass;
import org.vastshelf.core.estate.Pool;
import org.vastshelf.core.estate.Usage;
import org.vastshelf.core.layout.Layout;
import org.vastshelf.core.unit.Bytes;

/** Ledgers of pools with several groups, fast parts, caches and space that was not taken. */
class GroupedLedgersTest {

    private static final long TB = 1_000_000_000_000L;
    private static final List<Layout> OF_FOUR =
            List.of(Layout.RAID_0, Layout.RAID_1, Layout.RAID_10, Layout.RAID_5, Layout.RAID_6, Layout.TERRACED_2);

    private static Estate estate(List<Long> labels, Pool pool) {
        Estate racked = Samples.racked(labels);
        return racked.withPool(pool)
                .withDrives(racked.drives(pool.drives().toList()).stream()
                        .map(d -> d.in(pool.spares().contains(d.key()) ? DriveState.SPARE : DriveState.IN_USE))
                        .toList());
    }

    private static Pool pool(List<DriveGroup> groups, List<String> spares, Bytes reserve, boolean cache) {
        return new Pool(
                "oak",
                "hill",
                groups,
                spares,
                Bytes.gib(2),
                Bytes.of(Bytes.MIB),
                reserve,
                Bytes.ZERO,
                PaceClass.STEADY,
                cache);
    }

    @Property(tries = 300)
    void the_lines_lead_from_the_labels_to_the_free_bytes(
            @ForAll @IntRange(min = 1, max = 5) int groups, @ForAll boolean cache, @ForAll Random random) {
        int count = groups * 4 + 2;
        List<Long> labels = IntStream.range(0, count)
                .mapToObj(i -> (1 + random.nextInt(20)) * TB + random.nextInt(1_000_000))
                .toList();
        List<String> bays = Samples.bays(count);
        List<DriveGroup> made = new ArrayList<>();
        for (int g = 0; g < groups; g++) {
            List<String> members = bays.subList(g * 4, g * 4 + 4);
            Map<String, Bytes> counted = new HashMap<>();
            if (random.nextBoolean()) {
                counted.put(members.getFirst(), Bytes.of(TB / 2 + random.nextInt(1_000_000)));
            }
            Part part = g > 0 && random.nextInt(3) == 0 ? Part.FAST : Part.BULK;
            made.add(new DriveGroup(OF_FOUR.get(random.nextInt(OF_FOUR.size())), members, part, counted, false));
        }
        Pool pool = pool(made, bays.subList(count - 2, count), Bytes.gib(random.nextInt(500)), cache);
        Estate estate = estate(labels, pool);
        // Making a ledger whose lines do not add up throws; the label is the sum of what is on the drives.
        ByteLedger ledger = Ledgers.ofPool(estate, Usage.NONE, pool);
        long sum = labels.stream().mapToLong(l -> l).sum();
        assertThat(ledger.label().value()).isEqualTo(sum);
        assertThat(ledger.free()).isEqualTo(Ledgers.usable(estate, pool));
        assertThat(ledger.of(ByteKind.SPARE).value()).isEqualTo(labels.get(count - 2) + labels.get(count - 1));
        assertThat(Ledgers.ofEstate(estate, Usage.NONE).label().value()).isEqualTo(sum);
        if (!cache) {
            assertThat(ledger.lines()).noneMatch(l -> l.title().equals("read cache"));
        }
    }

    @Test
    void two_groups_of_three_and_a_cache_by_hand() {
        List<Long> labels = List.of(6 * TB, 6 * TB, 6 * TB, 8 * TB, 8 * TB, 8 * TB, 2 * TB, 2 * TB);
        List<String> bays = Samples.bays(8);
        Pool pool = pool(
                List.of(
                        DriveGroup.bulk(Layout.RAID_5, bays.subList(0, 3)),
                        DriveGroup.bulk(Layout.RAID_5, bays.subList(3, 6)),
                        new DriveGroup(Layout.RAID_1, bays.subList(6, 8), Part.FAST, Map.of(), false)),
                List.of(),
                Bytes.ZERO,
                true);
        Estate estate = estate(labels, pool);
        Bytes six = aligned(6 * TB);
        Bytes eight = aligned(8 * TB);
        Bytes two = aligned(2 * TB);
        ByteLedger ledger = Ledgers.ofPool(estate, Usage.NONE, pool);
        assertThat(ledger.free()).isEqualTo(six.times(2).plus(eight.times(2)));
        assertThat(ledger.of(ByteKind.PROTECTION)).isEqualTo(six.plus(eight).plus(two));
        assertThat(ledger.lines().stream()
                        .filter(l -> l.title().equals("read cache"))
                        .findFirst()
                        .orElseThrow()
                        .bytes())
                .isEqualTo(two);
        assertThat(pool.layoutTitle()).isEqualTo("2 × RAID 5 and RAID 1, fast");
        Pool tier = pool.withFast(false, pool.pace());
        assertThat(Ledgers.usable(estate, tier))
                .isEqualTo(six.times(2).plus(eight.times(2)).plus(two));
    }

    private static Bytes aligned(long label) {
        return Bytes.of(label).minus(Bytes.gib(2)).roundDownTo(Bytes.of(Bytes.MIB));
    }

    @Test
    void a_swapped_member_counts_as_before_and_the_rest_is_not_taken() {
        Estate racked = Samples.racked(List.of(6 * TB, 6 * TB, 6 * TB, 9 * TB));
        DriveGroup group = DriveGroup.bulk(Layout.RAID_5, Samples.bays(3));
        Drive old = racked.drives().get("hill/1/2");
        Drive next = racked.drives().get("hill/1/4");
        DriveGroup swapped = group.swapped(old, next);
        assertThat(swapped.members()).containsExactly("hill/1/1", "hill/1/4", "hill/1/3");
        assertThat(swapped.countedOf(next).value()).isEqualTo(6 * TB);
        assertThat(swapped.taken().countedOf(next).value()).isEqualTo(9 * TB);
        DriveGroup back = swapped.swapped(next, old);
        assertThat(back.counted()).isEmpty();
        Pool pool = pool(List.of(swapped), List.of(), Bytes.ZERO, false);
        ByteLedger ledger = Ledgers.ofPool(racked.withPool(pool), Usage.NONE, pool);
        assertThat(ledger.of(ByteKind.STRANDED).value()).isEqualTo(3 * TB);
        assertThat(ledger.label().value()).isEqualTo(21 * TB);
    }
}
