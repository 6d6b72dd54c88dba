package org.vastshelf.standins;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.LocalDate;
import org.junit.jupiter.api.Test;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.Share;
import org.vastshelf.core.estate.Usage;
import org.vastshelf.core.forecast.History;
import org.vastshelf.core.ledger.Ledgers;
import org.vastshelf.core.unit.Bytes;
import org.vastshelf.standins.scenario.DemoEstate;
import org.vastshelf.standins.scenario.DemoHistory;

class ScenarioTest {

    @Test
    void about_four_hundred_terabytes_of_drives_and_ledgers_that_add_up() {
        Estate estate = DemoEstate.create();
        Bytes drives =
                Bytes.sum(estate.drives().values().stream().map(d -> d.label()).toList());
        assertThat(drives.value()).isBetween(380_000_000_000_000L, 480_000_000_000_000L);
        Bytes reserved = estate.pools().get("tern").reserved();
        assertThat(Ledgers.ofEstate(estate, Usage.NONE).label()).isEqualTo(drives.plus(reserved));
    }

    @Test
    void every_share_stands_on_a_volume_and_every_member_in_a_bay() {
        Estate estate = DemoEstate.create();
        assertThat(estate.shares().values().stream().map(Share::volume)).allMatch(estate.volumes()::containsKey);
        assertThat(estate.pools().values().stream().flatMap(p -> p.members().stream()))
                .allMatch(estate.drives()::containsKey)
                .doesNotHaveDuplicates();
    }

    /** It is there for somebody to find. */
    @Test
    void one_share_is_out_of_every_client_s_reach() {
        assertThat(DemoEstate.create().shares().values().stream()
                        .filter(s -> !s.smb() && s.exports().isEmpty()))
                .singleElement()
                .satisfies(s -> assertThat(s.name()).isEqualTo("germination"));
    }

    @Test
    void history_is_three_years_without_a_gap_and_leads_to_the_known_day() {
        LocalDate until = LocalDate.of(2026, 1, 30);
        History history = History.of(DemoHistory.of("herbarium", until, Bytes.tib(33), 0.2));
        assertThat(history.used()).hasSize(1_095 - 30);
        assertThat(history.used().getLast()).isEqualTo(Bytes.tib(33));
    }
}
