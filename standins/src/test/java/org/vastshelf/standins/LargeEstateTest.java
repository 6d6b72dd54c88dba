package org.vastshelf.standins;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import org.junit.jupiter.api.Test;
import org.vastshelf.core.estate.Arrival;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.EstateDefinition;
import org.vastshelf.core.estate.Kinds;
import org.vastshelf.core.estate.Rescan;
import org.vastshelf.core.estate.Usage;
import org.vastshelf.core.failure.PoolState;
import org.vastshelf.core.forecast.History;
import org.vastshelf.core.ledger.ByteLedger;
import org.vastshelf.core.ledger.Ledgers;
import org.vastshelf.core.unit.Bytes;
import org.vastshelf.standins.scenario.DemoDock;
import org.vastshelf.standins.scenario.DemoEstate;
import org.vastshelf.standins.scenario.LargeEstate;
import org.vastshelf.standins.scenario.LargeFiles;
import org.vastshelf.standins.scenario.LargeHistory;

class LargeEstateTest {

    private static final Estate LARGE = LargeEstate.create();

    @Test
    void it_is_as_large_as_promised_and_the_same_each_time() {
        assertThat(LARGE.enclosures()).hasSize(40);
        assertThat(LARGE.drives()).hasSize(960);
        assertThat(LARGE.pools()).hasSize(60);
        assertThat(LARGE.volumes()).hasSize(1_000);
        assertThat(LargeEstate.create()).isEqualTo(LARGE);
    }

    @Test
    void every_pool_is_whole_and_its_ledger_adds_up_to_the_labels() {
        ByteLedger all = Ledgers.ofEstate(LARGE, Usage.NONE);
        long labels = LARGE.drives().values().stream()
                .mapToLong(d -> d.label().value())
                .sum();
        assertThat(all.label().value()).isEqualTo(labels);
        assertThat(LARGE.pools().values())
                .allSatisfy(p -> assertThat(PoolState.of(LARGE, p).standing()).isEqualTo(PoolState.Standing.WHOLE));
    }

    @Test
    void its_shares_hold_two_million_files_that_fit_on_their_volumes() {
        long[] files = new long[1];
        LARGE.volumes().values().forEach(volume -> {
            long[] bytes = new long[1];
            LargeFiles.of(
                    volume,
                    folder -> folder.files().forEach(file -> {
                        files[0]++;
                        bytes[0] += volume.allocatedBytes(file.bytes());
                    }));
            assertThat(bytes[0])
                    .as(volume.name())
                    .isPositive()
                    .isLessThan(volume.size().value());
        });
        assertThat(files[0]).isBetween(1_990_000L, 2_010_000L);
    }

    @Test
    void a_volume_s_past_ends_with_what_it_holds() {
        List<History.DayUse> days = LargeHistory.of("volume-0007", Bytes.tib(2));
        assertThat(days).hasSize(1_095);
        assertThat(days.getLast().used()).isEqualTo(Bytes.tib(2));
        assertThat(History.of(days).last()).isEqualTo(days.getLast().day());
    }

    @Test
    void it_survives_being_written_down() {
        assertThat(EstateDefinition.of(LARGE).toEstate()).isEqualTo(LARGE);
    }

    @Test
    void a_rescan_finds_what_stands_beside_and_forgets_what_went() {
        Estate demo = DemoEstate.create();
        Estate seen = Rescan.merged(demo, "fernhill", DemoDock.seenBy("fernhill"));
        assertThat(seen.arrivals().keySet()).containsExactlyInAnyOrder("fernhill/4", "fernhill/5");
        assertThat(seen.arrivals().values().stream().filter(Arrival::isReady)).hasSize(1);
        assertThat(seen.arrivals().values())
                .allSatisfy(a -> assertThat(a.drives()).hasSize(a.enclosure().bays()));
        assertThat(seen.drives()).as("nothing is taken in").isEqualTo(demo.drives());
        assertThat(Rescan.merged(seen, "fernhill", List.of()).arrivals()).isEmpty();
        Estate known =
                seen.with(Kinds.ENCLOSURE, seen.arrivals().get("fernhill/4").enclosure());
        assertThat(Rescan.merged(known, "fernhill", DemoDock.seenBy("fernhill")).arrivals())
                .containsOnlyKeys("fernhill/5");
    }
}
