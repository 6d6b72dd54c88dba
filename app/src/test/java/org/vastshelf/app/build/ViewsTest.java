package org.vastshelf.app.build;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.LocalDate;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.vastshelf.app.kit.Field;
import org.vastshelf.app.kit.Figures;
import org.vastshelf.app.kit.LedgerTable;
import org.vastshelf.app.kit.Mark;
import org.vastshelf.app.kit.Typed;
import org.vastshelf.core.estate.Drive;
import org.vastshelf.core.estate.DriveState;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.Kinds;
import org.vastshelf.core.estate.Pool;
import org.vastshelf.core.estate.Usage;
import org.vastshelf.core.estate.Volume;
import org.vastshelf.core.unit.Bytes;
import org.vastshelf.core.unit.UnitSystem;
import org.vastshelf.standins.scenario.DemoEstate;

/** What pages say of the demo's estate. */
class ViewsTest {

    private static final Estate DEMO = DemoEstate.create();
    private static final Figures BINARY = new Figures(UnitSystem.BINARY);
    private static final Figures DECIMAL = new Figures(UnitSystem.DECIMAL);
    private static final Typed NOTHING = new Typed("/", false, Map.of(), "", "");

    private static PoolView pool(Figures fmt, Estate estate, String name) {
        return PoolView.of(
                fmt, estate, Usage.NONE, estate.pools().get(name), Optional.empty(), List.of(), Optional.empty());
    }

    @Test
    void a_pool_says_what_it_is_in_the_units_of_its_reader() {
        PoolView binary = pool(BINARY, DEMO, "oak");
        assertThat(binary.standing()).contains(Mark.fine("whole"));
        assertThat(binary.lead())
                .contains(" usable after drive reserve, alignment and pool reserve. Survives ")
                .contains("TiB")
                .doesNotContain(" TB");
        assertThat(pool(DECIMAL, DEMO, "oak").lead()).contains(" TB").doesNotContain("TiB of");
        assertThat(binary.rebuilds()).isEmpty();
        assertThat(binary.overCommitted()).isEmpty();
    }

    @Test
    void the_lines_of_a_ledger_give_its_sum() {
        for (String name : DEMO.pools().keySet()) {
            LedgerTable table = pool(BINARY, DEMO, name).ledger();
            long sum = table.rows().stream()
                    .filter(row -> !row.kind().equals("beyond"))
                    .mapToLong(row -> Long.parseLong(row.exact().replace(",", "")))
                    .sum();
            assertThat(sum)
                    .as(name)
                    .isEqualTo(Long.parseLong(table.whole().exact().replace(",", "")));
            assertThat(table.rows()).extracting(LedgerTable.Row::id).doesNotHaveDuplicates();
        }
    }

    @Test
    void a_reservation_says_what_it_costs() {
        Pool reserved = DEMO.pools().values().stream()
                .filter(Pool::isReservation)
                .findFirst()
                .orElseThrow();
        long tebibytes = reserved.reserved().value() / Bytes.TIB;
        String cost = BINARY.money(tebibytes * DEMO.terms(reserved).cents());
        PoolView view = pool(BINARY, DEMO, reserved.name());
        assertThat(view.lead()).contains(tebibytes + " TiB × ").contains(" = " + cost + " a month");
        assertThat(view.standing()).isEmpty();
        assertThat(view.groups()).isEmpty();
        assertThat(PoolForms.of(BINARY, NOTHING, DEMO, reserved).room()).hasSize(2);
    }

    @Test
    void a_failed_member_shows_in_the_mark_the_odds_and_its_group() {
        Pool oak = DEMO.pools().get("oak");
        Drive first = DEMO.drives().get(oak.members().getFirst());
        Estate hurt = DEMO.with(Kinds.DRIVE, List.of(first.in(DriveState.FAILED)));
        PoolView view = pool(BINARY, hurt, "oak");
        assertThat(view.standing()).contains(Mark.act("degraded"));
        assertThat(view.lead()).contains("once it is whole, and as it stands ").contains(" before that");
        PoolGroups.Row group = view.groups().orElseThrow().rows().getFirst();
        assertThat(group.members().getFirst().text()).endsWith("✕");
        assertThat(group.canLose()).isEqualTo("1");
    }

    @Test
    void promises_beyond_the_end_say_when_they_become_real() {
        Pool oak = DEMO.pools().get("oak");
        Estate over = DEMO.withVolume(Volume.plain("dream", "oak", Bytes.tib(900), true, 65_536, 85));
        PoolView view = PoolView.of(
                BINARY, over, Usage.NONE, oak, Optional.of(LocalDate.of(2027, 6, 14)), List.of(), Optional.empty());
        assertThat(view.overCommitted())
                .contains("are promised beyond its end. The promises become real about 14 Jun 2027");
        assertThat(pool(BINARY, over, "oak").overCommitted()).contains("does not reach what is there within ten years");
        assertThat(view.ledger().rows().getLast().kind()).isEqualTo("beyond");
    }

    @Test
    void a_volume_by_size_shows_the_multiplication_of_its_pace_in_tebibytes_for_everybody() {
        Volume volume = DEMO.volumes().values().stream()
                .filter(v -> !v.pace().byHand())
                .findFirst()
                .orElseThrow();
        for (Figures fmt : List.of(BINARY, DECIMAL)) {
            VolumeView view = VolumeView.of(fmt, DEMO, Usage.NONE, volume, List.of());
            assertThat(view.pace()).contains(" MiB/s, by size: ").contains(" TiB × ");
        }
    }

    @Test
    void only_what_a_pool_can_do_is_offered() {
        PoolForms oak = PoolForms.of(BINARY, NOTHING, DEMO, DEMO.pools().get("oak"));
        assertThat(oak.deeds()).extracting(f -> f.buttons().getFirst().text()).containsExactly("Dissolve it ∎");
        assertThat(oak.rules()).hasSize(1);
        assertThat(oak.drives()).isPresent();
        assertThat(oak.drives().orElseThrow().open()).isFalse();
    }

    @Test
    void drives_that_were_chosen_stay_chosen_when_their_form_is_refused() {
        Pool oak = DEMO.pools().get("oak");
        List<Drive> free = BuildController.unclaimed(DEMO, oak.server());
        Typed typed = new Typed(
                "/build/pools/oak/spares",
                true,
                Map.of("drives", List.of(free.getFirst().key())),
                "no",
                "");
        PoolForms.MoreDrives more =
                PoolForms.of(BINARY, typed, DEMO, oak).drives().orElseThrow();
        assertThat(more.open()).isTrue();
        assertThat(more.pick().drives().stream().filter(DrivePick.Choice::chosen))
                .extracting(DrivePick.Choice::key)
                .containsExactly(free.getFirst().key());
    }

    @Test
    void the_fields_of_a_volume_have_one_id_each() {
        VolumeForm form = new VolumeForm("", "oak", "1 TiB", true, 65_536, 85, null, false, "", "");
        assertThat(form.fields(BINARY, NOTHING, DEMO, Usage.NONE, List.of()))
                .extracting(Field::id)
                .doesNotHaveDuplicates()
                .hasSize(10);
    }
}
