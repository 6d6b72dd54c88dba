package org.vastshelf.core.estate;

/** Names of files as people write them: {@code *} stands for any characters, {@code ?} for one; case does not matter. */
public final class NamePattern {

    public static final int LONGEST = 60;

    private NamePattern() {}

    /**
     * Whether a name is of a pattern. Each star takes as little as it can, and more when the rest does not fit, so that the
     * time is at most the product of both lengths.
     */
    public static boolean fits(String pattern, String name) {
        int p = 0;
        int n = 0;
        int star = -1;
        int from = 0;
        while (n < name.length()) {
            if (p < pattern.length() && pattern.charAt(p) == '*') {
                star = p++;
                from = n;
            } else if (p < pattern.length() && isLike(pattern.charAt(p), name.charAt(n))) {
                p++;
                n++;
            } else if (star >= 0) {
                p = star + 1;
                n = ++from;
            } else {
                return false;
            }
        }
        while (p < pattern.length() && pattern.charAt(p) == '*') {
            p++;
        }
        return p == pattern.length();
    }

    private static boolean isLike(char pattern, char name) {
        return pattern == '?' || Character.toLowerCase(pattern) == Character.toLowerCase(name);
    }
}
