package org.vastshelf.app.away;

import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.io.UncheckedIOException;
import java.security.DigestInputStream;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.time.Instant;
import java.util.Arrays;
import java.util.HexFormat;
import java.util.function.Function;
import java.util.function.Predicate;
import org.springframework.stereotype.Component;
import org.vastshelf.app.cold.Bucket;
import org.vastshelf.app.cold.Buckets;
import org.vastshelf.app.content.FarAway;
import org.vastshelf.app.content.FarBytes;
import org.vastshelf.app.content.FileBytes;
import org.vastshelf.app.content.LateInput;
import org.vastshelf.core.content.Contents;
import org.vastshelf.core.estate.ComeBack;
import org.vastshelf.core.gate.FileOperation;

/** Reads what has left, where it lies. */
@Component
class Away implements FarBytes {

    private final AwayStore objects;
    private final Buckets buckets;
    private final FileBytes bytes;
    private final Reads reads;

    Away(AwayStore objects, Buckets buckets, FileBytes bytes, Reads reads) {
        this.reads = reads;
        this.objects = objects;
        this.buckets = buckets;
        this.bytes = bytes;
    }

    private AwayObject object(long number) {
        return objects.find(number).orElseThrow(() -> new FarAway("the object " + number + " is known no more"));
    }

    @Override
    public void read(FileOperation operation, Contents away, Instant now) {
        reads.read(operation, away, now);
    }

    @Override
    public void mayComeBack(Contents away) {
        AwayObject object = object(away.extents().getFirst().stream().number());
        if (object.back().manner() == ComeBack.Manner.BY_HAND) {
            throw new FarAway("it has left for '" + object.store()
                    + "', and comes back by hand only; ask somebody who runs the estate");
        }
    }

    @Override
    public InputStream open(long number, long from, long length) {
        AwayObject object = object(number);
        LateInput.Part body = body(object);
        return object.form() == ObjectForm.BYTES
                ? body.open(from, length)
                : recipe(object, body).open(from, length, bytes, body);
    }

    /** Parts of the body, opened where it is sealed. */
    private LateInput.Part body(AwayObject object) {
        Bucket bucket = bucket(object);
        if (!object.isSealed()) {
            return (from, length) -> bucket.open(object.key(), from, length);
        }
        byte[] key = HexFormat.of().parseHex(buckets.open(object.key(), object.sealing()));
        return (from, length) -> {
            try {
                return SealedBody.open(
                        (at, some) -> bucket.open(object.key(), at, some), object.body(), key, from, length);
            } catch (IOException cut) {
                throw new UncheckedIOException(cut);
            }
        };
    }

    private Bucket bucket(AwayObject object) {
        try {
            return buckets.of(object.store());
        } catch (IllegalArgumentException shut) {
            throw new FarAway(String.valueOf(shut.getMessage()), shut);
        }
    }

    private static ObjectBody.Recipe recipe(AwayObject object, LateInput.Part body) {
        try (InputStream in = body.open(0, object.body())) {
            return ObjectBody.Recipe.read(in);
        } catch (IOException unreadable) {
            throw new FarAway(
                    "the recipe of '" + object.path() + "' can't be read: " + unreadable.getMessage(), unreadable);
        }
    }

    @Override
    public <T> T near(Contents away, Function<Contents, T> use, Predicate<T> wanted) {
        AwayObject object = object(away.extents().getFirst().stream().number());
        LateInput.Part body = body(object);
        if (object.form() == ObjectForm.RECIPE) {
            requireSame(object, body);
            ObjectBody.Recipe recipe = recipe(object, body);
            return use.apply(recipe.near((from, length) -> bytes.keep(() -> body.open(from, length))));
        }
        MessageDigest digest = sha256();
        return bytes.keep(
                () -> new DigestInputStream(body.open(0, object.body()), digest),
                contents -> {
                    if (!Arrays.equals(digest.digest(), object.sha256())) {
                        throw other(object);
                    }
                    return use.apply(contents);
                },
                wanted);
    }

    private static FarAway other(AwayObject object) {
        return new FarAway(
                "what '" + object.store() + "' gives of '" + object.path() + "' is not what was handed over to it");
    }

    /**
     * Reads the whole body, and compares it with what was handed over.
     *
     * @throws FarAway when it is not the same
     */
    void requireSame(AwayObject object) {
        requireSame(object, body(object));
    }

    private static void requireSame(AwayObject object, LateInput.Part body) {
        MessageDigest digest = sha256();
        long length;
        try (InputStream in = new DigestInputStream(body.open(0, object.body()), digest)) {
            length = in.transferTo(OutputStream.nullOutputStream());
        } catch (IOException | UncheckedIOException cut) {
            throw new FarAway(
                    "'" + object.path() + "' could not be read from '" + object.store() + "': " + cut.getMessage(),
                    cut);
        }
        if (length != object.body() || !Arrays.equals(digest.digest(), object.sha256())) {
            throw other(object);
        }
    }

    static MessageDigest sha256() {
        try {
            return MessageDigest.getInstance("SHA-256");
        } catch (NoSuchAlgorithmException everyJdkHasIt) {
            throw new IllegalStateException(everyJdkHasIt);
        }
    }
}
