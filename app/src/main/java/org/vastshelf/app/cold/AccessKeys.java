package org.vastshelf.app.cold;

/**
 * What signs requests to a cold store. Its text says nothing of the secret one.
 *
 * @param accessKey 1 to 128 characters that can be seen
 * @param secretKey 1 to 256 of them
 */
public record AccessKeys(String accessKey, String secretKey) {

    private static final int LONGEST_ACCESS = 128;
    private static final int LONGEST_SECRET = 256;

    public AccessKeys {
        require("access key", accessKey, LONGEST_ACCESS);
        require("secret key", secretKey, LONGEST_SECRET);
    }

    private static void require(String what, String key, int longest) {
        if (key.isEmpty() || key.length() > longest) {
            throw new IllegalArgumentException(
                    what + " has " + key.length() + " characters, must have 1 to " + longest);
        }
        if (!key.chars().allMatch(c -> c > ' ' && c < 127)) {
            throw new IllegalArgumentException(what + " must be of plain characters without spaces");
        }
    }

    @Override
    public String toString() {
        return "AccessKeys[" + accessKey + "]";
    }
}
