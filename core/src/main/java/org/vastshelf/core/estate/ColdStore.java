package org.vastshelf.core.estate;

import java.net.URI;
import java.net.URISyntaxException;
import java.util.Optional;
import java.util.regex.Pattern;

/**
 * A bucket in an object store, over the S3 API. What signs its requests is no part of the estate.
 *
 * @param name what it is called here
 * @param endpoint an http or https URL without a path
 * @param region as the store calls it
 * @param bucket its name
 * @param prefix all objects begin with it; empty, or ends with a slash
 * @param pathStyle whether the bucket stands in the path, and not before the host's name
 * @param authority certificates in PEM of whoever vouches for the endpoint; empty for those that the host trusts
 * @param encrypted whether objects are encrypted before they leave; what has left stays as it left
 * @param prices what it asks
 */
public record ColdStore(
        String name,
        String endpoint,
        String region,
        String bucket,
        String prefix,
        boolean pathStyle,
        String authority,
        boolean encrypted,
        ColdPrices prices) {

    public static final int LONGEST_PREFIX = 200;
    public static final int LONGEST_ENDPOINT = 300;
    public static final int LONGEST_AUTHORITY = 40_000;

    private static final Pattern REGION = Pattern.compile("[A-Za-z0-9-]{1,40}");
    private static final Pattern BUCKET = Pattern.compile("[a-z0-9][a-z0-9.-]{1,61}[a-z0-9]");
    private static final Pattern PREFIX = Pattern.compile("([A-Za-z0-9._-]+/)*");

    public ColdStore {
        Names.require("name", name);
        endpoint = endpoint(endpoint);
        require(REGION, "region", region, "1 to 40 letters, digits and '-'");
        require(BUCKET, "bucket", bucket, "3 to 63 lower-case letters, digits, '.' and '-'");
        if (prefix.length() > LONGEST_PREFIX) {
            throw new IllegalArgumentException(
                    "prefix has " + prefix.length() + " characters, must have at most " + LONGEST_PREFIX);
        }
        require(PREFIX, "prefix", prefix, "empty, or names with a '/' behind each");
        if (authority.length() > LONGEST_AUTHORITY) {
            throw new IllegalArgumentException(
                    "authority has " + authority.length() + " characters, must have at most " + LONGEST_AUTHORITY);
        }
        authority = authority.strip();
        if (!authority.isEmpty() && !authority.startsWith("-----BEGIN CERTIFICATE-----")) {
            throw new IllegalArgumentException("authority must begin with -----BEGIN CERTIFICATE-----");
        }
    }

    private static void require(Pattern pattern, String what, String value, String must) {
        if (!pattern.matcher(value).matches()) {
            throw new IllegalArgumentException(what + " is '" + value + "', must be " + must);
        }
    }

    private static String endpoint(String text) {
        if (text.length() > LONGEST_ENDPOINT) {
            throw new IllegalArgumentException(
                    "endpoint has " + text.length() + " characters, must have at most " + LONGEST_ENDPOINT);
        }
        String plain = text.endsWith("/") ? text.substring(0, text.length() - 1) : text;
        try {
            URI uri = new URI(plain);
            boolean web = "http".equals(uri.getScheme()) || "https".equals(uri.getScheme());
            boolean bare = uri.getRawPath() != null
                    && uri.getRawPath().isEmpty()
                    && uri.getRawQuery() == null
                    && uri.getRawFragment() == null
                    && uri.getRawUserInfo() == null;
            if (web && bare && uri.getHost() != null) {
                return plain;
            }
        } catch (URISyntaxException none) {
            throw new IllegalArgumentException("endpoint is '" + text + "', must be a URL", none);
        }
        throw new IllegalArgumentException(
                "endpoint is '" + text + "', must be http:// or https:// with a host, and a port if need be");
    }

    /** Why there can't be such a store in the estate as it is: of two, neither keeps its objects among the other's. */
    public Optional<String> fault(Estate estate) {
        return estate.all(Kinds.COLD_STORE).values().stream()
                .filter(other -> !other.name.equals(name))
                .filter(other -> other.endpoint.equals(endpoint) && other.bucket.equals(bucket))
                .filter(other -> other.prefix.startsWith(prefix) || prefix.startsWith(other.prefix))
                .findFirst()
                .map(other -> "the cold store '" + other.name + "' keeps its objects there as well, below '"
                        + other.prefix + "'; choose a prefix that neither begins with the other");
    }
}
