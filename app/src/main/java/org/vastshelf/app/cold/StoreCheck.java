package org.vastshelf.app.cold;

import java.security.SecureRandom;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.time.format.DateTimeFormatter;
import java.time.format.DateTimeParseException;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HexFormat;
import java.util.List;
import java.util.Optional;
import org.vastshelf.app.cold.Finding.Look;
import org.vastshelf.core.estate.ColdStore;
import org.vastshelf.core.unit.Counted;
import software.amazon.awssdk.core.exception.SdkClientException;
import software.amazon.awssdk.core.exception.SdkException;
import software.amazon.awssdk.core.sync.RequestBody;
import software.amazon.awssdk.http.SdkHttpResponse;
import software.amazon.awssdk.services.s3.S3Client;
import software.amazon.awssdk.services.s3.model.NoSuchKeyException;
import software.amazon.awssdk.services.s3.model.S3Exception;

/** Tries all that will be asked of a cold store on one small object, and says what failed and what to do about it. */
final class StoreCheck {

    private static final int BYTES = 4_096;
    private static final int FROM = 1_000;
    private static final int UPTO = 1_999;
    /** Signatures of requests are taken as far off as this. */
    private static final Duration MOST_SKEW = Duration.ofMinutes(15);
    /** What is further off than this will be so more and more. */
    private static final Duration USUAL_SKEW = Duration.ofMinutes(1);

    private final S3Client s3;
    private final ColdStore store;
    private final Clock clock;
    private final List<Finding> findings = new ArrayList<>();
    private final byte[] bytes = new byte[BYTES];
    private final String key;

    StoreCheck(S3Client s3, ColdStore store, Clock clock) {
        this.s3 = s3;
        this.store = store;
        this.clock = clock;
        SecureRandom random = new SecureRandom();
        random.nextBytes(bytes);
        byte[] name = new byte[8];
        random.nextBytes(name);
        this.key = store.prefix() + "check-" + HexFormat.of().formatHex(name);
    }

    /** One part; what it throws is what failed. */
    private interface Part {
        Finding run();
    }

    List<Finding> run() {
        if (bucket()) {
            Finding written = tried(Look.WRITE, this::write);
            if (written.outcome() == Finding.Outcome.PASSED) {
                tried(Look.READ, this::read);
                tried(Look.PART, this::part);
                tried(Look.LIST, this::list);
                tried(Look.DELETE, this::delete);
            }
        }
        for (Look look : Look.values()) {
            if (findings.stream().noneMatch(finding -> finding.look() == look)) {
                findings.add(Finding.notTried(look));
            }
        }
        return List.copyOf(findings);
    }

    private Finding tried(Look look, Part part) {
        Finding found;
        long begun = System.nanoTime();
        try {
            found = part.run();
            found = found.after(Duration.ofNanos(System.nanoTime() - begun).toMillis());
        } catch (SdkException failed) {
            found = told(look, failed);
        }
        findings.add(found);
        return found;
    }

    /** Asks for the bucket, by which it is known whether there is an endpoint, what its clock says, and what the keys open. */
    private boolean bucket() {
        try {
            SdkHttpResponse answer =
                    s3.headBucket(head -> head.bucket(store.bucket())).sdkHttpResponse();
            findings.add(Finding.passed(Look.REACH, store.endpoint()));
            findings.add(Finding.passed(Look.KEYS, "bucket '" + store.bucket() + "'"));
            findings.add(skew(answer));
            return true;
        } catch (S3Exception answered) {
            boolean busy = answered.statusCode() >= 500;
            findings.add(busy ? told(Look.REACH, answered) : Finding.passed(Look.REACH, store.endpoint()));
            if (!busy) {
                findings.add(told(Look.KEYS, answered));
                findings.add(skew(answered.awsErrorDetails().sdkHttpResponse()));
            }
            return false;
        } catch (SdkException unreached) {
            findings.add(told(Look.REACH, unreached));
            return false;
        }
    }

    private Finding skew(SdkHttpResponse answer) {
        Optional<Instant> there = answer.firstMatchingHeader("Date").flatMap(StoreCheck::moment);
        if (there.isEmpty()) {
            return Finding.passed(Look.CLOCK, "the store does not tell its time");
        }
        Duration skew = Duration.between(clock.instant(), there.get());
        String said = "the store's is " + Math.abs(skew.toSeconds()) + " s " + (skew.isNegative() ? "behind" : "ahead");
        if (skew.abs().compareTo(MOST_SKEW) > 0) {
            return Finding.failed(
                    Look.CLOCK,
                    said,
                    "set this host's clock: requests are refused beyond " + MOST_SKEW.toMinutes() + " minutes");
        }
        if (skew.abs().compareTo(USUAL_SKEW) > 0) {
            return Finding.failed(
                    Look.CLOCK, said, "let this host's clock follow a time server before it is too far off");
        }
        return Finding.passed(Look.CLOCK, said);
    }

    private static Optional<Instant> moment(String header) {
        try {
            return Optional.of(Instant.from(DateTimeFormatter.RFC_1123_DATE_TIME.parse(header)));
        } catch (DateTimeParseException none) {
            return Optional.empty();
        }
    }

    private Finding write() {
        s3.putObject(put -> put.bucket(store.bucket()).key(key), RequestBody.fromBytes(bytes));
        return Finding.passed(Look.WRITE, Counted.of(BYTES, "byte") + " as '" + key + "'");
    }

    private Finding read() {
        byte[] back =
                s3.getObjectAsBytes(get -> get.bucket(store.bucket()).key(key)).asByteArray();
        return same(Look.READ, back, bytes);
    }

    private Finding part() {
        byte[] back = s3.getObjectAsBytes(
                        get -> get.bucket(store.bucket()).key(key).range("bytes=" + FROM + "-" + UPTO))
                .asByteArray();
        return same(Look.PART, back, Arrays.copyOfRange(bytes, FROM, UPTO + 1));
    }

    private static Finding same(Look look, byte[] back, byte[] wanted) {
        return Arrays.equals(back, wanted)
                ? Finding.passed(look, Counted.of(wanted.length, "byte") + ", all the same")
                : Finding.failed(
                        look,
                        Counted.of(back.length, "byte") + " came back, and not those that were written",
                        "something between here and the store changes what passes; do not use it");
    }

    private Finding list() {
        boolean found = s3.listObjectsV2(list -> list.bucket(store.bucket()).prefix(key)).contents().stream()
                .anyMatch(object -> object.key().equals(key));
        return found
                ? Finding.passed(Look.LIST, "1 object")
                : Finding.failed(
                        Look.LIST,
                        "it is not in the list",
                        "the store lists late; what is rebuilt from its bucket would lack the newest objects");
    }

    private Finding delete() {
        s3.deleteObject(delete -> delete.bucket(store.bucket()).key(key));
        try {
            s3.headObject(head -> head.bucket(store.bucket()).key(key));
            return Finding.failed(Look.DELETE, "it is still there", "look whether the bucket holds objects for a time");
        } catch (NoSuchKeyException gone) {
            return Finding.passed(Look.DELETE, "gone");
        }
    }

    private Finding told(Look look, SdkException failed) {
        return switch (failed) {
            case S3Exception answered -> answered(look, answered);
            case SdkClientException client ->
                Finding.failed(
                        look, cause(client), "look whether the endpoint is right, and whether this host reaches it");
            default -> Finding.failed(look, cause(failed), "try again later");
        };
    }

    /** The innermost reason, which names the host, the port or the certificate. */
    static String cause(Throwable failed) {
        Throwable inner = failed;
        while (inner.getCause() != null && inner.getCause() != inner) {
            inner = inner.getCause();
        }
        return String.valueOf(inner.getMessage());
    }

    private Finding answered(Look look, S3Exception answer) {
        String code =
                answer.awsErrorDetails() == null ? "" : answer.awsErrorDetails().errorCode();
        String said = "HTTP " + answer.statusCode() + (code == null || code.isEmpty() ? "" : ", " + code);
        return Finding.failed(look, said, remedy(look, answer.statusCode(), String.valueOf(code)));
    }

    private String remedy(Look look, int status, String code) {
        if (code.equals("RequestTimeTooSkewed")) {
            return "set this host's clock";
        }
        return switch (status) {
            case 301, 307, 400 -> "look whether the region is right, and whether the bucket stands in the path";
            case 401, 403 ->
                look == Look.KEYS
                        ? "look whether the keys are right, and whether they may use this bucket"
                        : "let the keys " + right(look) + " in '" + store.bucket() + "'";
            case 404 -> "make the bucket '" + store.bucket() + "', or name another one";
            case 507 -> "make room in the store, or raise what may be kept in it";
            case 429, 500, 502, 503, 504 -> "the store is busy or out of order; try again later";
            default -> "ask whoever runs the store";
        };
    }

    private static String right(Look look) {
        return switch (look) {
            case WRITE -> "write objects";
            case READ, PART -> "read objects";
            case LIST -> "list objects";
            case DELETE -> "delete objects";
            case REACH, KEYS, CLOCK -> "use objects";
        };
    }
}
