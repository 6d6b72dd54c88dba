package org.vastshelf.app.build;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.stream.LongStream;
import org.junit.jupiter.api.Test;
import org.vastshelf.app.kit.Figures;
import org.vastshelf.app.kit.LedgerPicture;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.Usage;
import org.vastshelf.core.layout.DriveRates;
import org.vastshelf.core.layout.Layout;
import org.vastshelf.core.layout.LayoutQuestion;
import org.vastshelf.core.ledger.ByteLedger;
import org.vastshelf.core.ledger.Ledgers;
import org.vastshelf.core.unit.Bytes;
import org.vastshelf.core.unit.UnitSystem;
import org.vastshelf.standins.scenario.DemoEstate;

class PicturesTest {

    private static final Estate DEMO = DemoEstate.create();

    @Test
    void every_bay_is_drawn_inside_its_front_and_none_twice() {
        for (String server : DEMO.servers().keySet()) {
            for (BayPicture front : BayPicture.of(DEMO, server)) {
                assertThat(front.bays()).hasSize(front.enclosure().bays());
                assertThat(front.bays()).allSatisfy(bay -> {
                    assertThat(bay.x() + 58).isLessThanOrEqualTo(front.width());
                    assertThat(bay.y() + bay.height()).isLessThan(front.height());
                    assertThat(bay.y()).isGreaterThanOrEqualTo(0);
                });
                assertThat(front.bays().stream().map(b -> b.x() + "/" + (b.y() + b.height())))
                        .doesNotHaveDuplicates();
            }
        }
    }

    @Test
    void a_bay_says_what_its_drive_is() {
        List<BayPicture.Bay> first = BayPicture.of(DEMO, "fernhill").get(0).bays();
        List<BayPicture.Bay> second = BayPicture.of(DEMO, "fernhill").get(1).bays();
        List<BayPicture.Bay> third = BayPicture.of(DEMO, "fernhill").get(2).bays();
        assertThat(List.of(
                        first.get(0).label(),
                        first.get(14).label(),
                        first.get(15).label()))
                .containsExactly("oak", "spare", "empty");
        assertThat(second.get(6).state()).isEqualTo("ailing");
        assertThat(third).allMatch(BayPicture.Bay::isFree);
    }

    @Test
    void ledger_segments_join_without_gap_and_fill_the_bar() {
        ByteLedger ledger = Ledgers.ofEstate(DEMO, Usage.NONE);
        LedgerPicture picture = LedgerPicture.draw(ledger, ledger.label(), 780);
        int end = 0;
        for (LedgerPicture.Segment segment : picture.segments()) {
            assertThat(segment.x()).isEqualTo(end);
            end = segment.x() + segment.width();
        }
        assertThat(end).isEqualTo(780);
    }

    @Test
    void bars_of_layouts_share_one_length_and_bands_reach_the_floor() {
        LayoutQuestion question = LayoutQuestion.withDefaults(
                LongStream.of(12, 12, 12, 20, 20, 20)
                        .mapToObj(tb -> Bytes.of(tb * 1_000_000_000_000L))
                        .toList(),
                0,
                new DriveRates(0.015, 1e-15, 120));
        Comparison comparison = compared(question, Layout.TERRACED_2);
        assertThat(comparison.rows()).hasSize(10);
        comparison.rows().stream()
                .filter(LayoutRow::isPossible)
                .map(LayoutRow::answer)
                .forEach(answer -> {
                    assertThat(answer.dataBar() + answer.protectionBar() + answer.strandedBar())
                            .isBetween(110, 114);
                    assertThat(answer.strandedFrom()).isEqualTo(answer.dataBar() + answer.protectionBar());
                });
        assertThat(comparison.bands()).hasSize(1);
        BandsPicture bands = comparison.bands().getFirst();
        assertThat(bands.texts()).hasSize(2);
        assertThat(bands.cells()).hasSize(6 + 3);
        assertThat(bands.cells().getFirst().y() + bands.cells().getFirst().height())
                .isEqualTo(148);
        assertThat(bands.cells().subList(6, 9)).allMatch(cell -> cell.x() >= 3 * 42);
        assertThat(bands.cells().stream().filter(cell -> cell.letter().equals("P")))
                .hasSize(4);
        assertThat(compared(question, Layout.RAID_6).bands()).isEmpty();
    }

    private static Comparison compared(LayoutQuestion question, Layout layout) {
        return Comparison.of(new Figures(UnitSystem.BINARY), List.of(), List.of(), question, layout, 1);
    }
}
