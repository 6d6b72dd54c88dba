package org.vastshelf.app.away;

import java.time.Instant;
import java.util.Optional;
import org.vastshelf.app.catalogue.FileRow;
import org.vastshelf.core.estate.ComeBack;
import org.vastshelf.core.estate.FilePath;

/**
 * What a file holds that has left, as an object of a cold store.
 *
 * @param number by which files refer to it
 * @param run that took it there
 * @param bytes length of the file
 * @param body length of what was written for it, before it was sealed
 * @param sha256 of that
 * @param sealing the key that opens it, sealed itself; empty where it is not encrypted
 * @param file as it was when it left; its contents may have gone elsewhere since
 * @param keepDays how long it stays when no file refers to it any more
 * @param back how its file comes back
 * @param unused since when none does
 */
record AwayObject(
        long number,
        String store,
        String key,
        State state,
        long run,
        ObjectForm form,
        long bytes,
        long body,
        byte[] sha256,
        String sealing,
        String share,
        FilePath path,
        FileRow file,
        Instant left,
        int keepDays,
        ComeBack back,
        Optional<Instant> unused) {

    /** How far it is. */
    enum State {
        /** It is being written and looked at; no file refers to it. */
        COPYING,
        /** Files refer to it, or may again. */
        HELD,
        /** It is being removed; nobody may begin to refer to it. */
        GOING
    }

    AwayObject numbered(long other) {
        return new AwayObject(
                other, store, key, state, run, form, bytes, body, sha256, sealing, share, path, file, left, keepDays,
                back, unused);
    }

    boolean isSealed() {
        return !sealing.isEmpty();
    }
}
