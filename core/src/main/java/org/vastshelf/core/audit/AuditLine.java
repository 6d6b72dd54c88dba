package org.vastshelf.core.audit;

import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.time.Instant;

/**
 * One recorded operation or change, before it is chained.
 *
 * @param number from 1, without a gap
 * @param share share, or what else was changed
 * @param target where something moved to; empty for what stayed, and then no part of the canonical form
 * @param verdict {@code ALLOWED} or {@code REFUSED}
 */
public record AuditLine(
        long number,
        Instant at,
        String person,
        String client,
        String share,
        String operation,
        String path,
        String target,
        long bytes,
        String verdict,
        String reason) {

    /** Version of {@link #canonical}; a stored hash was made by this one. */
    public static final int CANONICAL_VERSION = 1;

    public static final byte[] GENESIS = new byte[32];

    /** Times are kept to the microsecond, as they are stored. */
    public AuditLine {
        at = at.truncatedTo(java.time.temporal.ChronoUnit.MICROS);
    }

    /** The same line under another number. */
    public AuditLine numbered(long other) {
        return new AuditLine(other, at, person, client, share, operation, path, target, bytes, verdict, reason);
    }

    /** JSON with the members in this order and no white space; strings escaped as in RFC 8259. */
    public String canonical() {
        StringBuilder json = new StringBuilder(256);
        json.append("{\"n\":").append(number);
        member(json, "at", at.toString());
        member(json, "person", person);
        member(json, "client", client);
        member(json, "share", share);
        member(json, "operation", operation);
        member(json, "path", path);
        if (!target.isEmpty()) {
            member(json, "target", target);
        }
        json.append(",\"bytes\":").append(bytes);
        member(json, "verdict", verdict);
        member(json, "reason", reason);
        return json.append('}').toString();
    }

    /** hash(n) = SHA-256(hash(n−1) ‖ canonical JSON(n)). */
    public byte[] hashAfter(byte[] previous) {
        try {
            MessageDigest digest = MessageDigest.getInstance("SHA-256");
            digest.update(previous);
            return digest.digest(canonical().getBytes(StandardCharsets.UTF_8));
        } catch (NoSuchAlgorithmException everyJdkHasIt) {
            throw new IllegalStateException(everyJdkHasIt);
        }
    }

    private static void member(StringBuilder json, String name, String value) {
        json.append(",\"").append(name).append("\":\"");
        for (int i = 0; i < value.length(); i++) {
            char c = value.charAt(i);
            if (c == '"' || c == '\\') {
                json.append('\\').append(c);
            } else if (c < ' ') {
                json.append(String.format("\\u%04x", (int) c));
            } else {
                json.append(c);
            }
        }
        json.append('"');
    }
}
