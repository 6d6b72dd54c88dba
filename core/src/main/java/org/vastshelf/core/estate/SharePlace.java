package org.vastshelf.core.estate;

/** A folder of a share, with all that lies below it. */
public record SharePlace(String share, FilePath folder) {

    /** Whether a file or a folder lies there. */
    public boolean holds(String other, FilePath path) {
        return share.equals(other) && path.isWithin(folder);
    }

    /** Whether some file may lie in both. */
    public boolean meets(SharePlace other) {
        return holds(other.share, other.folder) || other.holds(share, folder);
    }

    @Override
    public String toString() {
        return share + ":" + folder;
    }
}
