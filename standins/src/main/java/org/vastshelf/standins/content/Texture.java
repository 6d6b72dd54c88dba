package org.vastshelf.standins.content;

import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.HashMap;
import java.util.HexFormat;
import java.util.Locale;
import java.util.Map;
import org.vastshelf.core.content.StreamId;

/**
 * Kinds of files that the stand-in file servers hold: how one begins, so that a recogniser names it, and what follows.
 * What stands in the database are the numbers; they are never given out again.
 */
public enum Texture {
    PLAIN_TEXT(2, "txt md log tex", Body.PROSE, ""),
    WEB_PAGE(3, "html htm", Body.PROSE, "text:<!DOCTYPE html>\n<html><body><p>"),
    TABLE(4, "csv dat json xml", Body.READINGS, ""),
    GRID(5, "nc", Body.READINGS, "43444601"),
    READS(6, "fastq fq fasta fa", Body.BASES, ""),
    ALIGNMENT(7, "bam cram gz", Body.PACKED, "1F8B08040000000000FF0600424302"),
    DRAWING(8, "dwg", Body.DRAWING, "text:AC1032"),
    DRAWING_EXCHANGE(9, "dxf", Body.DRAWING, "text:  0\nSECTION\n  2\nHEADER\n  9\n$ACADVER\n  1\nAC1032\n"),
    SCAN(10, "tif tiff", Body.SCAN, "49492A0008000000"),
    PICTURE(11, "jpg jpeg", Body.PACKED, "FFD8FFE000104A46494600010100"),
    GRAPHIC(12, "png", Body.PACKED, "89504E470D0A1A0A0000000D49484452"),
    LAYERED_PICTURE(13, "psd", Body.SCAN, "384250530001"),
    FILM(14, "mp4 m4v", Body.PACKED, "0000001C667479706D70343200000000"),
    CUT(15, "mov", Body.PACKED, "00000014667479707174202000000000"),
    RUSH(16, "mxf", Body.PACKED, "060E2B34020501010D0102010102040083000078"),
    FILM_CONTAINER(17, "mkv", Body.PACKED, "1A45DFA393428288" + "6D6174726F736B61"),
    SOUND(18, "wav", Body.PACKED, "52494646FFFFFF7F57415645666D7420"),
    MUSIC(19, "mp3", Body.PACKED, "49443303000000000000"),
    PRINTABLE(20, "pdf", Body.PACKED, "text:%PDF-1.7\n"),
    LETTER(21, "odt", Body.PACKED, "open:text"),
    SPREADSHEET(22, "ods", Body.PACKED, "open:spreadsheet"),
    SLIDES(23, "odp", Body.PACKED, "open:presentation"),
    OFFICE(24, "docx xlsx pptx", Body.PACKED, "zip:[Content_Types].xml"),
    ARCHIVE(25, "zip", Body.PACKED, "zip:index.txt"),
    TABLE_SPACE(26, "ibd db sqlite", Body.PAGES, ""),
    WRITE_LOG(27, "wal redo", Body.PAGES, "377F0682"),
    BACKUP(28, "bak dump", Body.PACKED, ""),
    UNKNOWN(29, "", Body.PACKED, "");

    private static final Map<String, Texture> BY_ENDING = new HashMap<>();
    private static final Texture[] BY_NUMBER = new Texture[StreamId.MOST_TEXTURES];

    static {
        for (Texture texture : values()) {
            BY_NUMBER[texture.number] = texture;
            for (String ending : texture.endings.split(" ")) {
                BY_ENDING.put(ending, texture);
            }
        }
    }

    private final int number;
    private final String endings;
    private final Body body;
    private final byte[] beginning;

    Texture(int number, String endings, Body body, String beginning) {
        this.number = number;
        this.endings = endings;
        this.body = body;
        this.beginning = bytes(beginning);
    }

    private static byte[] bytes(String beginning) {
        int colon = beginning.indexOf(':');
        String rest = beginning.substring(colon + 1);
        return switch (beginning.substring(0, Math.max(0, colon))) {
            case "text" -> rest.getBytes(StandardCharsets.US_ASCII);
            case "zip" -> zipEntry(rest, "");
            case "open" -> zipEntry("mimetype", "application/vnd.oasis.opendocument." + rest);
            default -> HexFormat.of().parseHex(beginning);
        };
    }

    /** The local header of an archive's first entry, which is not packed. */
    private static byte[] zipEntry(String name, String contents) {
        String length = HexFormat.of().toHexDigits((byte) contents.length()) + "000000";
        String header = "504B0304" + "1400" + "0000" + "0000" + "0000" + "0000" + "00000000" + length + length
                + HexFormat.of().toHexDigits((byte) name.length()) + "00" + "0000";
        byte[] begin = HexFormat.of().parseHex(header);
        byte[] text = (name + contents).getBytes(StandardCharsets.US_ASCII);
        byte[] all = Arrays.copyOf(begin, begin.length + text.length);
        System.arraycopy(text, 0, all, begin.length, text.length);
        return all;
    }

    /** The one that files of this name have, by its ending. */
    public static Texture of(String name) {
        int dot = name.lastIndexOf('.');
        return dot < 0
                ? UNKNOWN
                : BY_ENDING.getOrDefault(name.substring(dot + 1).toLowerCase(Locale.ROOT), UNKNOWN);
    }

    static Texture of(StreamId stream) {
        Texture texture = BY_NUMBER[stream.texture()];
        if (texture == null) {
            throw new IllegalArgumentException("texture is " + stream.texture() + ", which no stand-in makes");
        }
        return texture;
    }

    /** A stream of this texture. */
    public StreamId stream(long number) {
        return new StreamId(this.number, number);
    }

    /** Bytes in a row that are made together, of which the first is at {@code page · 4,096}. */
    void make(long stream, long page, byte[] into) {
        body.make(stream, page, into);
        if (page == 0) {
            System.arraycopy(beginning, 0, into, 0, beginning.length);
        }
    }
}
