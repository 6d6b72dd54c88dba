package org.vastshelf.app.road;

import static org.vastshelf.app.store.generated.Tables.CONTENT;
import static org.vastshelf.app.store.generated.Tables.CONTENT_PIECE;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.SequenceInputStream;
import java.io.UncheckedIOException;
import java.util.Enumeration;
import org.jooq.DSLContext;
import org.springframework.stereotype.Component;

/**
 * Keeps the contents of files that somebody saved, in the database and so in the transaction of the save: what was kept
 * for a save that did not happen, or stayed behind after another one, can't exist.
 */
@Component
public class ContentStore {

    private static final int PIECE = 1 << 20;

    private final DSLContext db;

    ContentStore(DSLContext db) {
        this.db = db;
    }

    /** Writes contents and returns their number; part of the caller's transaction. */
    long keep(InputStream contents, long bytes) throws IOException {
        long number = db.insertInto(CONTENT)
                .set(CONTENT.BYTES, bytes)
                .returningResult(CONTENT.NO)
                .fetchSingle()
                .value1();
        int position = 0;
        for (byte[] piece = contents.readNBytes(PIECE); piece.length > 0; piece = contents.readNBytes(PIECE)) {
            db.insertInto(CONTENT_PIECE).values(number, position++, piece).execute();
        }
        return number;
    }

    void remove(long number) {
        db.deleteFrom(CONTENT_PIECE).where(CONTENT_PIECE.CONTENT_NO.eq(number)).execute();
        db.deleteFrom(CONTENT).where(CONTENT.NO.eq(number)).execute();
    }

    /** Kept contents, read piece by piece; reading fails when another save replaced them meanwhile. */
    public InputStream open(Outcome.Content content) {
        return new SequenceInputStream(new Enumeration<>() {
            private long read;
            private int position;

            @Override
            public boolean hasMoreElements() {
                return read < content.bytes();
            }

            @Override
            public InputStream nextElement() {
                byte[] piece = piece(content, position++);
                read += piece.length;
                return new ByteArrayInputStream(piece);
            }
        });
    }

    private byte[] piece(Outcome.Content content, int position) {
        byte[] piece = db.select(CONTENT_PIECE.BYTES)
                .from(CONTENT_PIECE)
                .where(CONTENT_PIECE.CONTENT_NO.eq(content.number()), CONTENT_PIECE.POSITION.eq(position))
                .fetchOne(CONTENT_PIECE.BYTES);
        if (piece == null) {
            throw new IllegalStateException("the file was replaced while it was read, at piece " + position);
        }
        return piece;
    }

    /** Something that can be read from its beginning again, when a save is run again. */
    public interface Source {
        InputStream open() throws IOException;

        /** Keeps what it holds. */
        default long keep(ContentStore store, long bytes) {
            try (InputStream in = open()) {
                return store.keep(in, bytes);
            } catch (IOException e) {
                throw new UncheckedIOException("the file could not be read", e);
            }
        }
    }
}
