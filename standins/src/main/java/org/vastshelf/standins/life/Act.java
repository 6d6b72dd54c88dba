package org.vastshelf.standins.life;

import java.time.Instant;
import org.vastshelf.core.content.Contents;
import org.vastshelf.core.gate.FileOperation.Kind;

/**
 * Something that somebody does on a day of the demo.
 *
 * @param to where it moves or is copied to; empty for what stays
 * @param contents of what is saved; empty contents for everything else
 */
public record Act(Kind kind, String person, String path, String to, Contents contents, Instant at) {

    static Act save(LivingFile file) {
        return new Act(
                Kind.WRITE,
                file.owner().uid(),
                file.path(),
                "",
                file.contents(),
                Instant.ofEpochSecond(file.modified()));
    }
}
