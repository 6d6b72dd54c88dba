package org.vastshelf.standins.life;

import org.vastshelf.core.catalogue.FileKind;
import org.vastshelf.core.content.Contents;

/** A file of the demo while its past is made up. Times are seconds since 1970. */
public final class LivingFile {

    private final String folder;
    private final String name;
    private final Contents contents;
    private final long born;
    private Staffer owner;
    private long modified;
    private long accessed;
    private boolean told;

    LivingFile(String folder, String name, Contents contents, Staffer owner, long modified) {
        this.folder = folder;
        this.name = name;
        this.contents = contents;
        this.owner = owner;
        this.born = modified;
        this.modified = modified;
        this.accessed = modified;
    }

    public String folder() {
        return folder;
    }

    public String name() {
        return name;
    }

    public String path() {
        return folder.equals("/") ? "/" + name : folder + "/" + name;
    }

    public Contents contents() {
        return contents;
    }

    public long bytes() {
        return contents.length();
    }

    public Staffer owner() {
        return owner;
    }

    /** When it was saved for the first time. */
    long born() {
        return born;
    }

    public long modified() {
        return modified;
    }

    /** When it was last saved, or a minute before something else. */
    long before(long seconds) {
        return Math.min(modified, seconds - 60);
    }

    public long accessed() {
        return accessed;
    }

    public FileKind kind() {
        return FileKind.of(name);
    }

    /** Somebody saved it again, as long as it was. */
    void rewritten(Staffer by, long seconds) {
        owner = by;
        modified = seconds;
        accessed = Math.max(accessed, seconds);
    }

    /** Its last save is part of the month's deeds already. */
    void told() {
        told = true;
    }

    boolean isTold() {
        return told;
    }

    /** Somebody read it. */
    void readAt(long seconds) {
        accessed = Math.max(accessed, seconds);
    }
}
