package org.vastshelf.core.change;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Collections;
import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.vastshelf.core.Samples;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.Usage;
import org.vastshelf.core.layout.Layout;
import org.vastshelf.core.ledger.Ledgers;
import org.vastshelf.core.unit.Bytes;

class PoolGrowthTest {

    private static final long TB = 1_000_000_000_000L;

    /** Four of twelve drives of 4 TB make a pool of RAID 6. */
    private static Estate estate() {
        Estate racked = Samples.racked(Collections.nCopies(12, 4 * TB));
        Plan plan = Planner.plan(
                racked,
                Usage.NONE,
                List.of(new PoolChange.ComposePool("oak", "hill", Samples.bays(4), Layout.RAID_6, 0, false, 1)));
        return plan.after();
    }

    @Test
    void the_fewest_drives_that_are_enough_become_a_further_group() {
        Estate estate = estate();
        Optional<Change> change =
                PoolGrowth.of(estate, Usage.NONE, estate.pools().get("oak"), Bytes.of(10 * TB));
        assertThat(change).get().isInstanceOfSatisfying(PoolChange.AddGroup.class, group -> {
            // Three drives of data are needed, and two of protection.
            assertThat(group.drives()).hasSize(5);
            assertThat(group.layout()).isEqualTo(Layout.RAID_6);
        });
        Estate grown =
                Planner.plan(estate, Usage.NONE, List.of(change.orElseThrow())).after();
        assertThat(Ledgers.usable(grown, grown.pools().get("oak")).value())
                .isGreaterThanOrEqualTo(
                        Ledgers.usable(estate, estate.pools().get("oak")).value() + 10 * TB);
    }

    @Test
    void too_few_drives_make_no_change() {
        Estate estate = estate();
        assertThat(PoolGrowth.of(estate, Usage.NONE, estate.pools().get("oak"), Bytes.of(100 * TB)))
                .isEmpty();
    }
}
