package org.vastshelf.app.away;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.util.HashMap;
import java.util.Map;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.vastshelf.app.catalogue.FileRow;
import org.vastshelf.core.catalogue.FileKind;
import org.vastshelf.core.estate.ComeBack;
import org.vastshelf.core.estate.FilePath;

/** What objects say of themselves, and what others may have written there. */
class LabelsTest {

    private static final Instant LEFT = Instant.parse("2026-03-02T08:00:00Z");
    private static final FilePath PATH = new FilePath("/überblick/wärme 1.csv");

    private static Map<String, String> labels() {
        byte[] name = PATH.name().getBytes(StandardCharsets.UTF_8);
        AwayObject object = new AwayObject(
                7,
                "peat",
                "files/a0/a0",
                AwayObject.State.HELD,
                1,
                ObjectForm.BYTES,
                900,
                900,
                new byte[] {1, (byte) 0xfe},
                "",
                "öffice",
                PATH,
                new FileRow(name, 900, 4_096, "suki", "archive", -5, 20, 30, FileKind.of(PATH.name())),
                LEFT,
                3,
                new ComeBack(ComeBack.Manner.AFTER_READS, 2, 30),
                Optional.empty());
        return new HashMap<>(Labels.of(object, "here"));
    }

    @Test
    void what_was_written_is_read_again() {
        assertThat(labels().values()).allMatch(text -> text.chars().allMatch(c -> c > 31 && c < 127));
        AwayObject read = Labels.read(labels(), "peat", "files/a0/a0", 9).orElseThrow();
        assertThat(read.path()).isEqualTo(PATH);
        assertThat(read.share()).isEqualTo("öffice");
        assertThat(read.sha256()).containsExactly(1, 0xfe);
        assertThat(read.file().owner()).isEqualTo("suki");
        assertThat(read.file().modified()).isEqualTo(-5);
        assertThat(read.back()).isEqualTo(new ComeBack(ComeBack.Manner.AFTER_READS, 2, 30));
        assertThat(read.left()).isEqualTo(LEFT);
        assertThat(Labels.by(labels())).contains("here");
    }

    @Test
    void what_nothing_knows_stays_as_long_as_its_rule_keeps_what_is_deleted() {
        assertThat(Labels.isKept(labels(), Instant.parse("2026-03-05T07:59:59Z")))
                .isTrue();
        assertThat(Labels.isKept(labels(), Instant.parse("2026-03-05T08:00:00Z")))
                .isFalse();
        Map<String, String> atOnce = labels();
        atOnce.put("keep", "0");
        assertThat(Labels.isKept(atOnce, LEFT)).isFalse();
    }

    @Test
    void labels_of_other_making_make_no_file_and_stop_nothing() {
        assertThat(Labels.isKept(Map.of("by", "here"), LEFT)).isFalse();
        for (String label : labels().keySet()) {
            for (String text :
                    new String[] {"", " ", "§", "-1", "x y z", "99999999999999999999", Instant.MAX.toString()}) {
                Map<String, String> told = labels();
                told.put(label, text);
                assertThat(Labels.read(told, "peat", "k", 0)).as(label + text).isNotNull();
                assertThat(Labels.isKept(told, LEFT)).as(label + text).isIn(true, false);
            }
        }
        Map<String, String> last = labels();
        last.put("left", Instant.MAX.toString());
        last.put("keep", String.valueOf(Integer.MAX_VALUE));
        assertThat(Labels.isKept(last, LEFT)).isTrue();
        last.put("left", Instant.MIN.toString());
        assertThat(Labels.isKept(last, LEFT)).isFalse();
    }
}
