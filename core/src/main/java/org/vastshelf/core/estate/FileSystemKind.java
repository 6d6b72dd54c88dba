package org.vastshelf.core.estate;

/** Kinds of file system, by what they can do. */
public enum FileSystemKind {
    GUARDED("checksums, healing and snapshots", 384),
    SNAPPING("snapshots, no checksums", 320),
    LEAN("plain and lean, no snapshots", 256);

    private final String title;
    private final int metadataPerBlock;

    FileSystemKind(String title, int metadataPerBlock) {
        this.title = title;
        this.metadataPerBlock = metadataPerBlock;
    }

    public String title() {
        return title;
    }

    /** Bytes of metadata reckoned for each allocated block. */
    public int metadataPerBlock() {
        return metadataPerBlock;
    }

    public boolean keepsSnapshots() {
        return this != LEAN;
    }
}
