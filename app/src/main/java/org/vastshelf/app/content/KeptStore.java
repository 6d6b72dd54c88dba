package org.vastshelf.app.content;

import static org.vastshelf.app.store.generated.Tables.KEPT;
import static org.vastshelf.app.store.generated.Tables.KEPT_PIECE;
import static org.vastshelf.app.store.generated.Tables.KEPT_USE;

import java.io.IOException;
import java.io.InputStream;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.util.Collection;
import java.util.Optional;
import org.jooq.DSLContext;
import org.jooq.impl.DSL;
import org.springframework.dao.DuplicateKeyException;
import org.springframework.stereotype.Component;
import org.vastshelf.app.store.Transactions;

/**
 * Keeps bytes that somebody saved, once for each contents, in the database and so in the transaction of the save: what
 * was kept for a save that did not happen can't exist. Who refers to them is counted by rows that are added, so that
 * nobody waits for another who saves the same.
 */
@Component
public class KeptStore {

    static final int PIECE = 1 << 20;

    private final DSLContext db;

    KeptStore(DSLContext db) {
        this.db = db;
    }

    /**
     * Bytes that are kept.
     *
     * @param number by which they are found
     * @param fresh whether nobody had kept them before
     */
    public record Kept(long number, long bytes, boolean fresh) {}

    /**
     * Writes bytes piece by piece, or finds that they are kept already; nobody removes them before the transaction has
     * ended.
     */
    public Kept keep(InputStream in) throws IOException {
        MessageDigest digest = sha256();
        long number = db.insertInto(KEPT)
                .set(KEPT.BYTES, 0L)
                .set(KEPT.USES, 0L)
                .returningResult(KEPT.NO)
                .fetchSingle()
                .value1();
        long bytes = 0;
        int position = 0;
        for (byte[] piece = in.readNBytes(PIECE); piece.length > 0; piece = in.readNBytes(PIECE)) {
            digest.update(piece);
            bytes += piece.length;
            db.insertInto(KEPT_PIECE).values(number, position++, piece).execute();
        }
        long once = once(number, bytes, digest.digest());
        return new Kept(once, bytes, once == number);
    }

    private long once(long number, long bytes, byte[] digest) {
        Optional<Long> same = held(digest);
        if (same.isEmpty()) {
            try {
                db.update(KEPT)
                        .set(KEPT.BYTES, bytes)
                        .set(KEPT.DIGEST, digest)
                        .where(KEPT.NO.eq(number))
                        .execute();
                return number;
            } catch (DuplicateKeyException meanwhile) {
                // Whoever saved the same may have been taken back since.
                same = Optional.of(held(digest)
                        .orElseThrow(() -> new Transactions.RunAgain("the same bytes came and went", meanwhile)));
            }
        }
        remove(number);
        return same.orElseThrow();
    }

    /** The one with this hash, held against removal. */
    private Optional<Long> held(byte[] digest) {
        return db.select(KEPT.NO)
                .from(KEPT)
                .where(KEPT.DIGEST.eq(digest))
                .forShare()
                .fetchOptional(KEPT.NO);
    }

    /** Removes bytes that nobody refers to, with what was counted of them. */
    void remove(long number) {
        db.deleteFrom(KEPT_USE).where(KEPT_USE.KEPT_NO.eq(number)).execute();
        db.deleteFrom(KEPT_PIECE).where(KEPT_PIECE.KEPT_NO.eq(number)).execute();
        db.deleteFrom(KEPT).where(KEPT.NO.eq(number)).execute();
    }

    /** Counts so many more that refer to each. */
    public void used(Collection<Long> numbers, int more) {
        for (long number : numbers) {
            db.insertInto(KEPT_USE)
                    .set(KEPT_USE.KEPT_NO, number)
                    .set(KEPT_USE.MORE, more)
                    .execute();
        }
    }

    /** Holds bytes against removal until the transaction has ended, for one who begins to refer to them. */
    public void hold(Collection<Long> numbers) {
        if (!numbers.isEmpty()) {
            db.select(KEPT.NO).from(KEPT).where(KEPT.NO.in(numbers)).forShare().fetch();
        }
    }

    /**
     * Fills a part of an array with kept bytes.
     *
     * @throws IllegalStateException when they were removed meanwhile
     */
    void read(long number, long offset, byte[] into, int at, int length) {
        int done = 0;
        while (done < length) {
            int position = Math.toIntExact((offset + done) / PIECE);
            int from = (int) ((offset + done) % PIECE);
            int part = Math.min(length - done, PIECE - from);
            System.arraycopy(piece(number, position, from, part), 0, into, at + done, part);
            done += part;
        }
    }

    private byte[] piece(long number, int position, int from, int length) {
        byte[] bytes = db.select(DSL.field(
                        "SUBSTRING({0}, {1}, {2})", byte[].class, KEPT_PIECE.BYTES, DSL.val(from + 1), DSL.val(length)))
                .from(KEPT_PIECE)
                .where(KEPT_PIECE.KEPT_NO.eq(number), KEPT_PIECE.POSITION.eq(position))
                .fetchOne(0, byte[].class);
        if (bytes == null || bytes.length < length) {
            throw new IllegalStateException(
                    "bytes " + number + " were removed while they were read, at piece " + position);
        }
        return bytes;
    }

    private static MessageDigest sha256() {
        try {
            return MessageDigest.getInstance("SHA-256");
        } catch (NoSuchAlgorithmException everyJdkHasIt) {
            throw new IllegalStateException(everyJdkHasIt);
        }
    }
}
