package org.vastshelf.standins;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.vastshelf.core.audit.AuditLine;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.Share;
import org.vastshelf.core.estate.Usage;
import org.vastshelf.core.forecast.History;
import org.vastshelf.core.ledger.Ledgers;
import org.vastshelf.core.unit.Bytes;
import org.vastshelf.standins.scenario.DemoAudit;
import org.vastshelf.standins.scenario.DemoEstate;
import org.vastshelf.standins.scenario.DemoFiles;
import org.vastshelf.standins.scenario.DemoHistory;

class ScenarioTest {

    private static final List<String> PEOPLE = List.of("bram", "pell", "suki");

    private static List<DemoFiles.DemoFolder> files(String share) {
        List<DemoFiles.DemoFolder> folders = new ArrayList<>();
        DemoFiles.of(share, PEOPLE, folders::add);
        return folders;
    }

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

    @Test
    void the_same_share_always_gets_the_same_files() {
        assertThat(files("film")).isEqualTo(files("film"));
        long total = files("film").stream()
                .flatMap(f -> f.files().stream())
                .mapToLong(DemoFiles.DemoFile::bytes)
                .sum();
        assertThat(total).isBetween(Bytes.tib(14).value() - 100, Bytes.tib(14).value());
    }

    @Test
    void suki_is_at_her_limit() {
        long held = files("homes").stream()
                .filter(f -> f.path().startsWith("/suki/"))
                .flatMap(f -> f.files().stream())
                .mapToLong(DemoFiles.DemoFile::bytes)
                .sum();
        assertThat(Bytes.gib(150).value() - held).isBetween(0L, 10_000L);
    }

    @Test
    void history_is_three_years_without_a_gap_and_ends_with_today() {
        History history = History.of(DemoHistory.of("herbarium", Bytes.tib(33)));
        assertThat(history.used()).hasSize(1_095);
        assertThat(history.used().getLast()).isEqualTo(Bytes.tib(33));
    }

    @Test
    void audit_lines_are_numbered_and_in_order() {
        List<AuditLine> lines = new ArrayList<>();
        DemoAudit.lines(PEOPLE, 2_000, lines::add);
        for (int i = 1; i < lines.size(); i++) {
            assertThat(lines.get(i).number()).isEqualTo(lines.get(i - 1).number() + 1);
            assertThat(lines.get(i).at()).isAfterOrEqualTo(lines.get(i - 1).at());
        }
    }
}
