package org.vastshelf.app.content;

import java.io.InputStream;
import java.time.Instant;
import java.util.function.Function;
import java.util.function.Predicate;
import org.vastshelf.core.content.Contents;
import org.vastshelf.core.gate.FileOperation;

/** Bytes that lie in cold stores, each object under its number. */
public interface FarBytes {

    /**
     * A part of what an object holds, read as it comes.
     *
     * @throws FarAway when its store does not give it
     */
    InputStream open(long number, long from, long length);

    /**
     * Notes that a file is read that has left.
     *
     * @throws FarAway when whoever reads it reads too many
     */
    void read(FileOperation operation, Contents away, Instant now);

    /**
     * Asked before a file comes back because somebody writes to it.
     *
     * @throws FarAway when it comes back by hand only
     */
    void mayComeBack(Contents away);

    /**
     * Keeps what an object holds here, for as long as it is wanted by what is done with it; part of the caller's
     * transaction.
     *
     * @param away contents of a file that has left
     * @throws FarAway when its store does not give it, or not what was handed over to it
     */
    <T> T near(Contents away, Function<Contents, T> use, Predicate<T> wanted);
}
