package org.vastshelf.standins.scenario;

import org.vastshelf.core.catalogue.FileKind;
import org.vastshelf.core.content.Contents;

/** A file of a generated estate. Times are seconds since 1970. */
public record DemoFile(
        String name,
        Contents contents,
        String owner,
        String group,
        long modified,
        long accessed,
        long changed,
        FileKind kind) {

    public long bytes() {
        return contents.length();
    }
}
