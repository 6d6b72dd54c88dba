package org.vastshelf.core.estate;

import java.util.regex.Pattern;

/** Names of pools, volumes and shares: they end up in mount lines, so they stay plain. */
public final class Names {

    public static final int LONGEST = 40;
    private static final Pattern PLAIN = Pattern.compile("[a-z0-9][a-z0-9._-]*");

    private Names() {}

    /** A name that is cut where it would be too long. */
    public static String shortened(String name) {
        return name.length() <= LONGEST ? name : name.substring(0, LONGEST);
    }

    /**
     * Returns the name.
     *
     * @throws IllegalArgumentException naming the value and the rule
     */
    public static String require(String what, String name) {
        if (name.isBlank()) {
            throw new IllegalArgumentException(what + " is empty, must be 1 to " + LONGEST + " characters");
        }
        if (name.length() > LONGEST) {
            throw new IllegalArgumentException(
                    what + " has " + name.length() + " characters, must be at most " + LONGEST);
        }
        if (!PLAIN.matcher(name).matches()) {
            throw new IllegalArgumentException(what + " is '" + name
                    + "', must be lower-case letters, digits, '.', '_' and '-', beginning with a letter or digit");
        }
        return name;
    }
}
