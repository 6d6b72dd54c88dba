package org.vastshelf.app.cold;

import java.io.IOException;
import java.io.InputStream;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.util.ArrayList;
import java.util.Base64;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Supplier;
import org.vastshelf.app.content.FarAway;
import org.vastshelf.core.estate.ColdStore;
import software.amazon.awssdk.awscore.exception.AwsErrorDetails;
import software.amazon.awssdk.core.exception.SdkException;
import software.amazon.awssdk.core.sync.RequestBody;
import software.amazon.awssdk.services.s3.S3Client;
import software.amazon.awssdk.services.s3.model.CompletedPart;
import software.amazon.awssdk.services.s3.model.HeadObjectResponse;
import software.amazon.awssdk.services.s3.model.NoSuchKeyException;
import software.amazon.awssdk.services.s3.model.S3Exception;

/**
 * The objects of a cold store. Each part goes with its MD5, which the store compares; what fails is told as {@link
 * FarAway}. Keys are given without the store's prefix.
 */
public final class Bucket {

    /** Longer objects go in parts; each is held in memory once. */
    static final int PART = 8 << 20;

    /** A multipart upload has 10,000 parts at most. */
    private static final int MOST_PARTS = 9_000;

    private static final int GONE = 404;

    private final S3Client s3;
    private final ColdStore store;

    Bucket(S3Client s3, ColdStore store) {
        this.s3 = s3;
        this.store = store;
    }

    public ColdStore store() {
        return store;
    }

    /** What a store says of an object. */
    public record Told(String key, long bytes) {}

    /**
     * Writes an object.
     *
     * @param metadata plain characters only
     * @param bytes how many the stream gives
     */
    public void put(String key, Map<String, String> metadata, long bytes, InputStream body) throws IOException {
        if (bytes <= PART) {
            byte[] all = body.readNBytes(PART + 1);
            requireLength(all.length, bytes);
            asked(() -> s3.putObject(
                    put -> put.bucket(store.bucket())
                            .key(full(key))
                            .metadata(metadata)
                            .contentMD5(md5(all)),
                    RequestBody.fromBytes(all)));
            return;
        }
        String upload = asked(() -> s3.createMultipartUpload(
                        create -> create.bucket(store.bucket()).key(full(key)).metadata(metadata)))
                .uploadId();
        try {
            List<CompletedPart> parts = parts(key, upload, bytes, body);
            asked(() -> s3.completeMultipartUpload(complete -> complete.bucket(store.bucket())
                    .key(full(key))
                    .uploadId(upload)
                    .multipartUpload(all -> all.parts(parts))));
        } catch (IOException | RuntimeException failed) {
            abort(key, upload);
            throw failed;
        }
    }

    private List<CompletedPart> parts(String key, String upload, long bytes, InputStream body) throws IOException {
        int size = Math.toIntExact(Math.max(PART, (bytes + MOST_PARTS - 1) / MOST_PARTS));
        List<CompletedPart> parts = new ArrayList<>();
        long done = 0;
        for (byte[] part = body.readNBytes(size); part.length > 0; part = body.readNBytes(size)) {
            byte[] piece = part;
            int number = parts.size() + 1;
            String tag = asked(() -> s3.uploadPart(
                            up -> up.bucket(store.bucket())
                                    .key(full(key))
                                    .uploadId(upload)
                                    .partNumber(number)
                                    .contentMD5(md5(piece)),
                            RequestBody.fromBytes(piece)))
                    .eTag();
            parts.add(CompletedPart.builder().partNumber(number).eTag(tag).build());
            done += part.length;
        }
        requireLength(done, bytes);
        return parts;
    }

    private static void requireLength(long done, long bytes) throws IOException {
        if (done != bytes) {
            throw new IOException("it is " + done + " bytes long, and was " + bytes + " when it was looked at");
        }
    }

    private void abort(String key, String upload) {
        try {
            s3.abortMultipartUpload(
                    abort -> abort.bucket(store.bucket()).key(full(key)).uploadId(upload));
        } catch (SdkException away) {
            // The parts are found when the object is removed.
        }
    }

    /** A part of an object, read as it comes. */
    public InputStream open(String key, long from, long length) {
        return asked(() -> s3.getObject(
                get -> get.bucket(store.bucket()).key(full(key)).range("bytes=" + from + "-" + (from + length - 1))));
    }

    /** The metadata of an object; empty where there is none of the name. */
    public Optional<Map<String, String>> metadata(String key) {
        try {
            return Optional.of(s3.headObject(head -> head.bucket(store.bucket()).key(full(key))))
                    .map(HeadObjectResponse::metadata);
        } catch (NoSuchKeyException none) {
            return Optional.empty();
        } catch (SdkException failed) {
            throw away(failed);
        }
    }

    /** Removes an object, if it is there, and what may have been left of it half written. */
    public void remove(String key) {
        asked(() -> s3.deleteObject(delete -> delete.bucket(store.bucket()).key(full(key))));
        asked(() -> s3.listMultipartUploads(list -> list.bucket(store.bucket()).prefix(full(key))))
                .uploads()
                .forEach(upload -> abort(key, upload.uploadId()));
    }

    /** The next objects below a prefix, in the order of their keys. */
    public List<Told> page(String prefix, String after, int most) {
        return asked(() -> s3
                .listObjectsV2(list -> list.bucket(store.bucket())
                        .prefix(full(prefix))
                        .startAfter(after.isEmpty() ? null : full(after))
                        .maxKeys(most))
                .contents()
                .stream()
                .map(object -> new Told(object.key().substring(store.prefix().length()), object.size()))
                .toList());
    }

    private String full(String key) {
        return store.prefix() + key;
    }

    private <T> T asked(Supplier<T> request) {
        try {
            return request.get();
        } catch (SdkException failed) {
            throw away(failed);
        }
    }

    private FarAway away(SdkException failed) {
        return new FarAway("the cold store '" + store.name() + "' " + said(failed), failed);
    }

    private static String said(SdkException failed) {
        if (failed instanceof S3Exception answered) {
            String code = Optional.ofNullable(answered.awsErrorDetails())
                    .map(AwsErrorDetails::errorCode)
                    .orElse("");
            return answered.statusCode() == GONE
                    ? "does not have the object"
                    : "answered HTTP " + answered.statusCode() + (code.isEmpty() ? "" : ", " + code);
        }
        return "does not answer: " + StoreCheck.cause(failed);
    }

    private static String md5(byte[] bytes) {
        try {
            return Base64.getEncoder()
                    .encodeToString(MessageDigest.getInstance("MD5").digest(bytes));
        } catch (NoSuchAlgorithmException everyJdkHasIt) {
            throw new IllegalStateException(everyJdkHasIt);
        }
    }
}
