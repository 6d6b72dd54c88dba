package org.vastshelf.standins.scenario;

import org.vastshelf.core.catalogue.FileKind;
import org.vastshelf.core.content.Contents;

/**
 * A file of a generated estate. Times are seconds since 1970.
 *
 * @param born how many snapshots of its volume had been taken when it was last saved
 */
public record DemoFile(
        String name,
        Contents contents,
        String owner,
        String group,
        long modified,
        long accessed,
        long changed,
        FileKind kind,
        int born) {

    /** One that is older than all snapshots. */
    public DemoFile(
            String name,
            Contents contents,
            String owner,
            String group,
            long modified,
            long accessed,
            long changed,
            FileKind kind) {
        this(name, contents, owner, group, modified, accessed, changed, kind, 0);
    }

    public long bytes() {
        return contents.length();
    }
}
