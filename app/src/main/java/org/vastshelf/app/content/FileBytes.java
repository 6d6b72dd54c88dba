package org.vastshelf.app.content;

import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.util.function.Function;
import java.util.function.Predicate;
import org.springframework.beans.factory.ObjectProvider;
import org.springframework.stereotype.Component;
import org.vastshelf.core.content.Contents;
import org.vastshelf.core.content.Extent;
import org.vastshelf.core.content.FileStreams;
import org.vastshelf.core.content.StreamId;

/**
 * The bytes of files on simulated servers: those that somebody saved, those that a stand-in makes, and those that have
 * left. Those last are asked for only when somebody reads them, since who knows them needs this one.
 */
@Component
public class FileBytes {

    private final KeptStore kept;
    private final FileStreams streams;
    private final ObjectProvider<FarBytes> far;

    FileBytes(KeptStore kept, FileStreams streams, ObjectProvider<FarBytes> far) {
        this.kept = kept;
        this.streams = streams;
        this.far = far;
    }

    /** Something that can be read from its beginning again, when a save is run again. */
    public interface Source {
        InputStream open() throws IOException;
    }

    /** Keeps the bytes of a source; part of the caller's transaction. */
    public Contents keep(Source source) {
        return contents(kept(source));
    }

    /** Keeps the bytes of a source for as long as they are wanted by what is done with them. */
    public <T> T keep(Source source, Function<Contents, T> use, Predicate<T> wanted) {
        KeptStore.Kept saved = kept(source);
        T result = use.apply(contents(saved));
        if (saved.fresh() && !wanted.test(result)) {
            kept.remove(saved.number());
        }
        return result;
    }

    private static Contents contents(KeptStore.Kept saved) {
        return Contents.of(StreamId.kept(saved.number()), saved.bytes());
    }

    private KeptStore.Kept kept(Source source) {
        try (InputStream in = source.open()) {
            return kept.keep(in);
        } catch (IOException e) {
            throw new UncheckedIOException("the file could not be read", e);
        }
    }

    /**
     * What a stand-in client saves under a name of which only the length is known.
     *
     * @param number of the stream, by which the same save gives the same bytes
     */
    public Contents made(String name, long number, long bytes) {
        return Contents.of(streams.of(name, number), bytes);
    }

    /** A part of a file's bytes, made as they are read. */
    public InputStream open(Contents contents, long from, long length) {
        Contents part = contents.slice(from, length);
        // What has left is all one object: one request brings all that is read of it.
        if (part.extents().size() == 1 && part.isCold()) {
            Extent away = part.extents().getFirst();
            long number = away.stream().number();
            return new LateInput((at, bytes) -> far.getObject().open(number, at, bytes), away.offset(), away.length());
        }
        return new ContentsInput(part, this::read);
    }

    private void read(StreamId stream, long offset, byte[] into, int at, int length) {
        if (stream.isKept()) {
            kept.read(stream.number(), offset, into, at, length);
        } else {
            streams.read(stream, offset, into, at, length);
        }
    }
}
