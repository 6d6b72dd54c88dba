package org.vastshelf.standins.store;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.net.URI;
import java.nio.file.Path;
import java.time.Duration;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.vastshelf.core.tier.StoreMood;
import software.amazon.awssdk.auth.credentials.AwsBasicCredentials;
import software.amazon.awssdk.auth.credentials.StaticCredentialsProvider;
import software.amazon.awssdk.core.exception.ApiCallAttemptTimeoutException;
import software.amazon.awssdk.core.sync.RequestBody;
import software.amazon.awssdk.regions.Region;
import software.amazon.awssdk.retries.DefaultRetryStrategy;
import software.amazon.awssdk.services.s3.S3Client;
import software.amazon.awssdk.services.s3.model.S3Exception;

class EmbeddedStoreTest {

    private static final Duration PATIENCE = Duration.ofMinutes(1);

    @TempDir
    Path folder;

    private static S3Client client(URI endpoint, String access, String secret, Duration patience) {
        return S3Client.builder()
                .endpointOverride(endpoint)
                .region(Region.of(EmbeddedStore.REGION))
                .forcePathStyle(true)
                .credentialsProvider(StaticCredentialsProvider.create(AwsBasicCredentials.create(access, secret)))
                .overrideConfiguration(
                        over -> over.apiCallAttemptTimeout(patience).retryStrategy(DefaultRetryStrategy.doNotRetry()))
                .build();
    }

    private S3Client client(EmbeddedStore store) throws IOException {
        return client(store, PATIENCE);
    }

    private S3Client client(EmbeddedStore store, Duration patience) throws IOException {
        EmbeddedStore.Keys keys = EmbeddedStore.keys(folder);
        return client(store.endpoint(), keys.accessKey(), keys.secretKey(), patience);
    }

    private static String get(S3Client s3, String key, String range) {
        return s3.getObjectAsBytes(g -> g.bucket(EmbeddedStore.BUCKET).key(key).range(range))
                .asUtf8String();
    }

    @Test
    void what_is_put_is_got_in_parts_and_by_the_next_process_at_the_same_place() throws IOException {
        URI first;
        try (EmbeddedStore store = EmbeddedStore.start(folder).orElseThrow();
                S3Client s3 = client(store)) {
            first = store.endpoint();
            assertThat(EmbeddedStore.start(folder)).isEmpty();
            s3.putObject(p -> p.bucket(EmbeddedStore.BUCKET).key("a/b"), RequestBody.fromString("0123456789"));
            assertThat(get(s3, "a/b", "bytes=2-4")).isEqualTo("234");
        }
        try (EmbeddedStore store = EmbeddedStore.start(folder).orElseThrow();
                S3Client s3 = client(store)) {
            assertThat(store.endpoint()).isEqualTo(first);
            assertThat(get(s3, "a/b", "bytes=0-1")).isEqualTo("01");
        }
    }

    @Test
    void strangers_are_turned_away() throws IOException {
        try (EmbeddedStore store = EmbeddedStore.start(folder).orElseThrow();
                S3Client s3 = client(store.endpoint(), "somebody", "guessed", PATIENCE)) {
            assertThatThrownBy(() -> s3.headBucket(h -> h.bucket(EmbeddedStore.BUCKET)))
                    .isInstanceOfSatisfying(
                            S3Exception.class, e -> assertThat(e.statusCode()).isEqualTo(403));
        }
    }

    @Test
    void it_answers_as_its_mood_is() throws IOException {
        try (EmbeddedStore store = EmbeddedStore.start(folder).orElseThrow();
                S3Client s3 = client(store)) {
            s3.putObject(p -> p.bucket(EmbeddedStore.BUCKET).key("k"), RequestBody.fromString("here"));
            refuses(s3, StoreMood.Manner.BUSY, 503);
            refuses(s3, StoreMood.Manner.DENIES, 403);
            refuses(s3, StoreMood.Manner.FULL, 507);
            assertThat(get(s3, "k", "bytes=0-")).isEqualTo("here");

            EmbeddedStore.mood(folder, new StoreMood(StoreMood.Manner.SILENT, 0));
            try (S3Client hasty = client(store, Duration.ofSeconds(2))) {
                assertThatThrownBy(() -> get(hasty, "k", "bytes=0-"))
                        .isInstanceOf(ApiCallAttemptTimeoutException.class);
            }
            EmbeddedStore.mood(folder, new StoreMood(StoreMood.Manner.ANSWERS, 300));
            long begun = System.nanoTime();
            assertThat(get(s3, "k", "bytes=0-")).isEqualTo("here");
            assertThat(System.nanoTime() - begun).isGreaterThan(300_000_000L);
        }
    }

    private void refuses(S3Client s3, StoreMood.Manner manner, int status) throws IOException {
        EmbeddedStore.mood(folder, new StoreMood(manner, 0));
        assertThatThrownBy(() ->
                        s3.putObject(p -> p.bucket(EmbeddedStore.BUCKET).key("never"), RequestBody.fromString("x")))
                .as(manner.title())
                .isInstanceOfSatisfying(
                        S3Exception.class, e -> assertThat(e.statusCode()).isEqualTo(status));
    }
}
