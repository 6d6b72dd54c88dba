package org.vastshelf.app.away;

import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.io.UncheckedIOException;
import java.security.DigestInputStream;
import java.security.MessageDigest;
import java.security.SecureRandom;
import java.util.HexFormat;
import java.util.Optional;
import org.springframework.stereotype.Component;
import org.vastshelf.app.catalogue.FileRow;
import org.vastshelf.app.catalogue.PathBytes;
import org.vastshelf.app.clock.ShelfClock;
import org.vastshelf.app.cold.Bucket;
import org.vastshelf.app.cold.Buckets;
import org.vastshelf.app.content.ContentsCode;
import org.vastshelf.app.content.FarAway;
import org.vastshelf.app.content.FileBytes;
import org.vastshelf.app.road.ChangedMeanwhile;
import org.vastshelf.app.road.FileRoad;
import org.vastshelf.app.road.NotThere;
import org.vastshelf.app.road.Outcome;
import org.vastshelf.app.store.EstateStore;
import org.vastshelf.app.store.InstallationStore;
import org.vastshelf.app.store.Transactions;
import org.vastshelf.core.content.Contents;
import org.vastshelf.core.estate.ComeBack;
import org.vastshelf.core.estate.FilePath;
import org.vastshelf.core.estate.Kinds;
import org.vastshelf.core.gate.FileOperation;
import org.vastshelf.core.gate.FileOperation.Client;
import org.vastshelf.core.gate.FileOperation.Protocol;
import org.vastshelf.core.unit.Bytes;
import org.vastshelf.core.unit.UnitSystem;

/**
 * Takes one file to a cold store: its row first, then the object, which is read back and compared; then what the file
 * holds is exchanged, if it is still the same, in one transaction with the object's state. Whatever ends it in between,
 * the file is as it was, and the object is known and removed.
 */
@Component
public class Departing {

    private static final Client ITSELF = new Client("", Protocol.SMB);
    /** Where objects lie in the bucket. */
    static final String FOLDER = "files/";

    private final AwayStore objects;
    private final Away away;
    private final Buckets buckets;
    private final FileBytes bytes;
    private final FileRoad road;
    private final EstateStore estates;
    private final Transactions transactions;
    private final ShelfClock clock;
    private final InstallationStore installation;
    private final SecureRandom random = new SecureRandom();

    Departing(
            AwayStore objects,
            Away away,
            Buckets buckets,
            FileBytes bytes,
            FileRoad road,
            EstateStore estates,
            Transactions transactions,
            ShelfClock clock,
            InstallationStore installation) {
        this.objects = objects;
        this.away = away;
        this.buckets = buckets;
        this.bytes = bytes;
        this.road = road;
        this.estates = estates;
        this.transactions = transactions;
        this.clock = clock;
        this.installation = installation;
    }

    /**
     * Who lets a file leave.
     *
     * @param back how it comes back
     * @param keepDays how long its object stays when no file refers to it any more
     */
    public record Leave(long run, String store, int keepDays, ComeBack back) {}

    /** A file as it was found. */
    public record Found(String share, FilePath path, FileRow row, Contents contents) {}

    /**
     * Takes a file away.
     *
     * @return why it stays; empty when it has left
     * @throws FarAway when the store does not take it, or not what was handed over to it
     */
    public Optional<String> depart(Leave leave, Found file) {
        if (PathBytes.of(file.path.text()).length > Labels.LONGEST_PATH) {
            return Optional.of("its path has more than " + Labels.LONGEST_PATH + " bytes, which an object can't tell");
        }
        Bucket bucket = bucket(leave.store);
        ObjectBody body = new ObjectBody(file.contents, bytes);
        byte[] key = bucket.store().encrypted() ? key() : new byte[0];
        AwayObject object;
        try {
            object = noted(leave, file, body, key);
            write(bucket, object, body, key);
        } catch (FarAway away) {
            throw away;
        } catch (IOException | UncheckedIOException | IllegalStateException gone) {
            return Optional.of("it could not be read: " + gone.getMessage());
        }
        away.requireSame(object);
        return exchanged(object, file);
    }

    private Bucket bucket(String store) {
        try {
            return buckets.of(store);
        } catch (IllegalArgumentException shut) {
            throw new FarAway(String.valueOf(shut.getMessage()), shut);
        }
    }

    private byte[] key() {
        byte[] key = new byte[SealedBody.KEY_BYTES];
        random.nextBytes(key);
        return key;
    }

    private AwayObject noted(Leave leave, Found file, ObjectBody body, byte[] key) throws IOException {
        MessageDigest digest = Away.sha256();
        try (InputStream in = new DigestInputStream(body.open(), digest)) {
            in.transferTo(OutputStream.nullOutputStream());
        }
        byte[] name = new byte[16];
        random.nextBytes(name);
        String hex = HexFormat.of().formatHex(name);
        String place = FOLDER + hex.substring(0, 2) + "/" + hex;
        return transactions.run(() -> {
            if (estates.held().estate().find(Kinds.COLD_STORE, leave.store).isEmpty()) {
                throw new FarAway("there is no cold store '" + leave.store + "'");
            }
            AwayObject object = new AwayObject(
                    objects.number(file.row.bytes()),
                    leave.store,
                    place,
                    AwayObject.State.COPYING,
                    leave.run,
                    body.form(),
                    file.row.bytes(),
                    body.length(),
                    digest.digest(),
                    key.length == 0 ? "" : buckets.seal(place, HexFormat.of().formatHex(key)),
                    file.share,
                    file.path,
                    file.row,
                    clock.instant(),
                    leave.keepDays,
                    leave.back,
                    Optional.empty());
            objects.add(object, ContentsCode.write(file.contents));
            return object;
        });
    }

    private void write(Bucket bucket, AwayObject object, ObjectBody body, byte[] key) throws IOException {
        boolean sealed = key.length > 0;
        try (InputStream plain = body.open()) {
            bucket.put(
                    object.key(),
                    Labels.of(object, installation.id()),
                    sealed ? SealedBody.length(object.body()) : object.body(),
                    sealed ? SealedBody.seal(plain, object.body(), key) : plain);
        }
    }

    private Optional<String> exchanged(AwayObject object, Found file) {
        FileOperation operation = new FileOperation(
                FileOperation.Kind.LEAVE, FileRoad.TIERING, file.share, file.path, Bytes.of(file.row.bytes()), ITSELF);
        try {
            Outcome outcome = road.leave(
                    operation, file.contents, Contents.cold(object.number(), object.bytes()), () -> held(object));
            if (outcome.allowed()) {
                return Optional.empty();
            }
            return givenUp(object, outcome.verdict(UnitSystem.BINARY).reason());
        } catch (ChangedMeanwhile | NotThere | TakenOver changed) {
            return givenUp(object, String.valueOf(changed.getMessage()));
        }
    }

    /** Another node has given the object up, since this one seemed to be gone. */
    private static final class TakenOver extends RuntimeException {
        TakenOver() {
            super("another node went on with the run");
        }
    }

    private void held(AwayObject object) {
        if (!objects.change(object.number(), AwayObject.State.COPYING, AwayObject.State.HELD)) {
            throw new TakenOver();
        }
    }

    private Optional<String> givenUp(AwayObject object, String why) {
        if (!objects.change(object.number(), AwayObject.State.COPYING, AwayObject.State.GOING)) {
            // Whoever took over may have removed it before it was written whole.
            bucket(object.store()).remove(object.key());
        }
        return Optional.of(why);
    }
}
