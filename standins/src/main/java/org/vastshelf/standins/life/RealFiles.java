package org.vastshelf.standins.life;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.attribute.FileTime;
import java.time.Instant;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.zip.CRC32;
import org.apache.commons.compress.archivers.zip.ZipArchiveEntry;
import org.apache.commons.compress.archivers.zip.ZipArchiveOutputStream;
import org.vastshelf.core.content.StreamId;
import org.vastshelf.standins.content.GeneratedBytes;
import org.vastshelf.standins.content.Texture;

/** Files that have to be what they seem, because somebody will look into them: documents, and archives in archives. */
public final class RealFiles {

    private static final FileTime PACKED = FileTime.from(Instant.parse("2024-11-05T10:00:00Z"));
    private static final GeneratedBytes BYTES = new GeneratedBytes();
    private static final List<String> TOPICS = List.of(
            "Opening hours",
            "Volunteers' day",
            "Bench for the rock garden",
            "Loan of 40 sheets",
            "Heating of the fern" + " house",
            "Moss walk",
            "Shop returns",
            "Key list");

    private RealFiles() {}

    /** All of them, the same each time. */
    public static List<RealFile> all() {
        List<RealFile> files = new ArrayList<>();
        for (int i = 0; i < TOPICS.size(); i++) {
            String topic = TOPICS.get(i);
            LocalDate day = LocalDate.of(2024, 3, 4).plusWeeks(9L * i);
            files.add(new RealFile("office", "/board/papers/" + topic + ".odt", openText(topic, i), "odile", day));
            files.add(new RealFile("office", "/board/papers/" + topic + ".docx", wordText(topic, i), "odile", day));
        }
        files.add(new RealFile(
                "homes", "/lwren/From the old computer/disk.zip", nested(), "lwren", LocalDate.of(2024, 11, 5)));
        files.add(new RealFile(
                "office",
                "/events/Agenda of the open day.docx",
                bytes(Texture.FILM.stream(12), 640_000),
                "nhedge",
                LocalDate.of(2025, 5, 12)));
        return files;
    }

    private static byte[] bytes(StreamId stream, int length) {
        byte[] bytes = new byte[length];
        BYTES.read(stream, 0, bytes, 0, length);
        return bytes;
    }

    private static String text(int number) {
        return new String(bytes(Texture.PLAIN_TEXT.stream(900 + number), 3_000), StandardCharsets.US_ASCII);
    }

    private static byte[] utf8(String text) {
        return text.getBytes(StandardCharsets.UTF_8);
    }

    /** An OpenDocument text (ISO/IEC 26300): its kind first and unpacked, then its contents and what belongs to it. */
    private static byte[] openText(String title, int number) {
        Map<String, byte[]> parts = new LinkedHashMap<>();
        parts.put("mimetype", utf8("application/vnd.oasis.opendocument.text"));
        parts.put("content.xml", utf8("""
                <?xml version="1.0" encoding="UTF-8"?>
                <office:document-content xmlns:office="urn:oasis:names:tc:opendocument:xmlns:office:1.0"
                  xmlns:text="urn:oasis:names:tc:opendocument:xmlns:text:1.0" office:version="1.3"><office:body>
                <office:text><text:h text:outline-level="1">%s</text:h><text:p>%s</text:p></office:text>
                </office:body></office:document-content>""".formatted(title, text(number))));
        parts.put("META-INF/manifest.xml", utf8("""
                <?xml version="1.0" encoding="UTF-8"?>
                <manifest:manifest xmlns:manifest="urn:oasis:names:tc:opendocument:xmlns:manifest:1.0">
                <manifest:file-entry manifest:full-path="/"
                  manifest:media-type="application/vnd.oasis.opendocument.text"/>
                <manifest:file-entry manifest:full-path="content.xml" manifest:media-type="text/xml"/>
                </manifest:manifest>"""));
        return zip(parts);
    }

    /** A word-processing document of Office Open XML (ISO/IEC 29500) with the least that belongs to one. */
    private static byte[] wordText(String title, int number) {
        Map<String, byte[]> parts = new LinkedHashMap<>();
        parts.put("[Content_Types].xml", utf8("""
                <?xml version="1.0" encoding="UTF-8"?>
                <Types xmlns="http://schemas.openxmlformats.org/package/2006/content-types">
                <Default Extension="rels" ContentType="application/vnd.openxmlformats-package.relationships+xml"/>
                <Override PartName="/word/document.xml"
                  ContentType="application/vnd.openxmlformats-officedocument.wordprocessingml.document.main+xml"/>
                </Types>"""));
        parts.put("_rels/.rels", utf8("""
                <?xml version="1.0" encoding="UTF-8"?>
                <Relationships xmlns="http://schemas.openxmlformats.org/package/2006/relationships">
                <Relationship Id="r1" Target="word/document.xml"
                  Type="http://schemas.openxmlformats.org/officeDocument/2006/relationships/officeDocument"/>
                </Relationships>"""));
        parts.put("word/document.xml", utf8("""
                <?xml version="1.0" encoding="UTF-8"?>
                <w:document xmlns:w="http://schemas.openxmlformats.org/wordprocessingml/2006/main"><w:body>
                <w:p><w:r><w:t>%s</w:t></w:r></w:p><w:p><w:r><w:t>%s</w:t></w:r></w:p>
                </w:body></w:document>""".formatted(title, text(number))));
        return zip(parts);
    }

    /** Music in an archive in an archive. */
    private static byte[] nested() {
        Map<String, byte[]> music = new LinkedHashMap<>();
        for (int track = 1; track <= 3; track++) {
            music.put("music/track %02d.mp3".formatted(track), bytes(Texture.MUSIC.stream(track), 400_000));
        }
        Map<String, byte[]> inner = new LinkedHashMap<>();
        inner.put("backup/tunes.zip", zip(music));
        inner.put("backup/letters.txt", utf8(text(40)));
        Map<String, byte[]> outer = new LinkedHashMap<>();
        outer.put("disk-c/backup.zip", zip(inner));
        outer.put("readme.txt", utf8("What was on the old computer."));
        return zip(outer);
    }

    private static byte[] zip(Map<String, byte[]> parts) {
        ByteArrayOutputStream bytes = new ByteArrayOutputStream();
        try (ZipArchiveOutputStream zip = new ZipArchiveOutputStream(bytes)) {
            for (Map.Entry<String, byte[]> part : parts.entrySet()) {
                ZipArchiveEntry entry = new ZipArchiveEntry(part.getKey());
                entry.setTime(PACKED);
                if (part.getKey().equals("mimetype")) {
                    stored(entry, part.getValue());
                }
                zip.putArchiveEntry(entry);
                zip.write(part.getValue());
                zip.closeArchiveEntry();
            }
        } catch (IOException inMemory) {
            throw new UncheckedIOException(inMemory);
        }
        return bytes.toByteArray();
    }

    private static void stored(ZipArchiveEntry entry, byte[] bytes) {
        CRC32 sum = new CRC32();
        sum.update(bytes);
        entry.setMethod(ZipArchiveEntry.STORED);
        entry.setSize(bytes.length);
        entry.setCrc(sum.getValue());
    }
}
