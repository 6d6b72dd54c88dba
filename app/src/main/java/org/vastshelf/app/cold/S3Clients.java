package org.vastshelf.app.cold;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.net.URI;
import java.nio.charset.StandardCharsets;
import java.security.GeneralSecurityException;
import java.security.KeyStore;
import java.security.cert.Certificate;
import java.security.cert.CertificateFactory;
import java.time.Duration;
import javax.net.ssl.TrustManager;
import javax.net.ssl.TrustManagerFactory;
import org.vastshelf.core.estate.ColdStore;
import software.amazon.awssdk.auth.credentials.AwsBasicCredentials;
import software.amazon.awssdk.auth.credentials.StaticCredentialsProvider;
import software.amazon.awssdk.core.checksums.RequestChecksumCalculation;
import software.amazon.awssdk.core.checksums.ResponseChecksumValidation;
import software.amazon.awssdk.http.apache5.Apache5HttpClient;
import software.amazon.awssdk.profiles.ProfileFile;
import software.amazon.awssdk.regions.Region;
import software.amazon.awssdk.retries.DefaultRetryStrategy;
import software.amazon.awssdk.services.s3.S3Client;

/** Clients of cold stores. Nothing about them is taken from the surroundings of the process. */
final class S3Clients {

    private static final Duration CONNECT = Duration.ofSeconds(5);
    private static final Duration ANSWER = Duration.ofSeconds(10);

    private S3Clients() {}

    /**
     * One that asks once, and does not wait long.
     *
     * @throws IllegalArgumentException when the certificates of the store's own authority can't be read
     */
    static S3Client asking(ColdStore store, AccessKeys keys) {
        Apache5HttpClient.Builder http =
                Apache5HttpClient.builder().connectionTimeout(CONNECT).socketTimeout(ANSWER);
        if (!store.authority().isEmpty()) {
            TrustManager[] trusted = trusting(store.authority());
            http.tlsTrustManagersProvider(() -> trusted);
        }
        return S3Client.builder()
                .endpointOverride(URI.create(store.endpoint()))
                .region(Region.of(store.region()))
                .forcePathStyle(store.pathStyle())
                .credentialsProvider(StaticCredentialsProvider.create(
                        AwsBasicCredentials.create(keys.accessKey(), keys.secretKey())))
                // Not every store knows the checksums that are sent unasked.
                .requestChecksumCalculation(RequestChecksumCalculation.WHEN_REQUIRED)
                .responseChecksumValidation(ResponseChecksumValidation.WHEN_REQUIRED)
                .overrideConfiguration(over -> over.apiCallAttemptTimeout(ANSWER)
                        .defaultProfileFile(ProfileFile.aggregator().build())
                        .retryStrategy(DefaultRetryStrategy.doNotRetry()))
                .httpClientBuilder(http)
                .build();
    }

    /** Trusts whom the certificates name, and nobody else. */
    static TrustManager[] trusting(String pem) {
        try {
            KeyStore authorities = KeyStore.getInstance(KeyStore.getDefaultType());
            authorities.load(null, null);
            int count = 0;
            for (Certificate one : CertificateFactory.getInstance("X.509")
                    .generateCertificates(new ByteArrayInputStream(pem.getBytes(StandardCharsets.US_ASCII)))) {
                authorities.setCertificateEntry("authority" + count++, one);
            }
            TrustManagerFactory factory = TrustManagerFactory.getInstance(TrustManagerFactory.getDefaultAlgorithm());
            factory.init(authorities);
            return factory.getTrustManagers();
        } catch (GeneralSecurityException | IOException unreadable) {
            throw new IllegalArgumentException(
                    "authority can't be read: " + unreadable.getMessage() + "; it must be certificates in PEM",
                    unreadable);
        }
    }
}
