package org.vastshelf.standins.life;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.zip.ZipEntry;
import java.util.zip.ZipInputStream;
import org.apache.tika.Tika;
import org.junit.jupiter.api.Test;

class RealFilesTest {

    private static final Tika TIKA = new Tika();

    private static byte[] named(String end) {
        return RealFiles.all().stream()
                .filter(f -> f.path().endsWith(end))
                .findFirst()
                .orElseThrow()
                .bytes();
    }

    private static Map<String, byte[]> unpacked(byte[] zip) throws IOException {
        Map<String, byte[]> parts = new LinkedHashMap<>();
        try (ZipInputStream in = new ZipInputStream(new ByteArrayInputStream(zip))) {
            for (ZipEntry entry = in.getNextEntry(); entry != null; entry = in.getNextEntry()) {
                parts.put(entry.getName(), in.readAllBytes());
            }
        }
        return parts;
    }

    @Test
    void music_lies_in_an_archive_in_an_archive() throws IOException {
        Map<String, byte[]> outer = unpacked(named("disk.zip"));
        Map<String, byte[]> inner = unpacked(outer.get("disk-c/backup.zip"));
        Map<String, byte[]> music = unpacked(inner.get("backup/tunes.zip"));
        assertThat(music).hasSize(3);
        music.values().forEach(track -> assertThat(TIKA.detect(track)).isEqualTo("audio/mpeg"));
        assertThat(TIKA.detect(inner.get("backup/letters.txt"))).isEqualTo("text/plain");
    }

    @Test
    void documents_are_documents_that_say_what_they_are_about() throws IOException {
        byte[] open = named("Moss walk.odt");
        assertThat(TIKA.detect(open)).isEqualTo("application/vnd.oasis.opendocument.text");
        Map<String, byte[]> parts = unpacked(open);
        assertThat(parts.keySet().iterator().next()).isEqualTo("mimetype");
        assertThat(new String(parts.get("content.xml"), StandardCharsets.UTF_8)).contains(">Moss walk</text:h>");
        byte[] word = named("Moss walk.docx");
        assertThat(TIKA.detect(word, "a.docx"))
                .isEqualTo("application/vnd.openxmlformats-officedocument.wordprocessingml.document");
        assertThat(new String(unpacked(word).get("word/document.xml"), StandardCharsets.UTF_8))
                .contains("Moss walk");
    }

    @Test
    void a_film_has_the_name_of_a_document() {
        assertThat(TIKA.detect(named("Agenda of the open day.docx"))).isEqualTo("video/mp4");
    }

    @Test
    void they_are_the_same_each_time_and_lie_at_places_of_their_own() {
        assertThat(RealFiles.all()).extracting(RealFile::path).doesNotHaveDuplicates();
        assertThat(named("disk.zip")).isEqualTo(named("disk.zip"));
        assertThat(RealFiles.all().stream().mapToLong(f -> f.bytes().length).sum())
                .isLessThan(4_000_000);
    }
}
