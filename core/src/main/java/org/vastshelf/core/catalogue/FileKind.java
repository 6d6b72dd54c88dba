package org.vastshelf.core.catalogue;

import java.util.HashMap;
import java.util.Locale;
import java.util.Map;

/** What sort of file a name says it is. The name may lie; content is judged elsewhere. */
public enum FileKind {
    PICTURE("pictures", "jpg jpeg png gif tif tiff bmp webp svg raw dng heic psd xcf"),
    FILM("films", "mov mp4 mkv avi mxf m4v webm mpg mpeg"),
    SOUND("sound", "wav mp3 flac ogg aac m4a aif"),
    DOCUMENT("documents", "doc docx odt pdf rtf txt md html htm xls xlsx ods csv ppt pptx odp tex ps"),
    DRAWING("drawings", "dwg dxf dgn skp ifc"),
    SEQUENCE("sequence data", "fastq fq fasta fa bam sam cram vcf fast5 pod5"),
    ARCHIVE("archives", "zip gz tar tgz bz2 xz zst 7z rar jar deb"),
    DATABASE("databases", "db sqlite ibd dbf mdb redo wal bak dump"),
    PROGRAM("programs", "so exe dll a o class py pl sh c h java js rb go rs"),
    RECORD("records", "log json jsonl xml yaml yml ini conf dat nc"),
    OTHER("other", "");

    private static final Map<String, FileKind> BY_ENDING = byEnding();

    private final String title;
    private final String endings;

    FileKind(String title, String endings) {
        this.title = title;
        this.endings = endings;
    }

    private static Map<String, FileKind> byEnding() {
        Map<String, FileKind> map = new HashMap<>();
        for (FileKind kind : values()) {
            for (String ending : kind.endings.split(" ")) {
                map.put(ending, kind);
            }
        }
        map.remove("");
        return map;
    }

    public static FileKind of(String name) {
        int dot = name.lastIndexOf('.');
        return dot < 0 || name.length() - dot > 10
                ? OTHER
                : BY_ENDING.getOrDefault(name.substring(dot + 1).toLowerCase(Locale.ROOT), OTHER);
    }

    public String title() {
        return title;
    }
}
