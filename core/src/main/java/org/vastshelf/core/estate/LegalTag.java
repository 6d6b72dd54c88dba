package org.vastshelf.core.estate;

import java.time.Instant;
import java.util.Optional;
import java.util.regex.Pattern;

/**
 * A tag on a file or a folder: nothing there is changed or deleted as long as it is on.
 *
 * @param path of the file, or of the folder with all that is in it
 * @param tag the matter it is about: 1 to 40 small letters, digits and hyphens
 * @param why for people; 1 to 200 characters
 * @param release who asked to take it off; empty when nobody did
 */
public record LegalTag(
        String share, FilePath path, String tag, String by, Instant at, String why, Optional<Release> release) {

    public static final int LONGEST_REASON = 200;
    /** In one installation: more than this is better held by a tag on the folder. */
    public static final int MOST = 5_000;

    private static final Pattern TAG = Pattern.compile("[a-z0-9][a-z0-9-]{0,39}");

    /** That somebody asked to take it off. */
    public record Release(String by, String role, Instant at) {}

    public LegalTag {
        if (!TAG.matcher(tag).matches()) {
            throw new IllegalArgumentException(
                    "tag is '" + tag + "', must be 1 to 40 small letters, digits and hyphens, a letter or digit first");
        }
        if (why.isBlank() || why.length() > LONGEST_REASON) {
            throw new IllegalArgumentException(
                    "reason is " + why.length() + " characters long, must be 1 to " + LONGEST_REASON);
        }
    }

    /** No tag has the mark in it that sets it apart here. */
    public String key() {
        return share + ":" + path + "#" + tag;
    }

    public LegalTag released(Release asked) {
        return new LegalTag(share, path, tag, by, at, why, Optional.of(asked));
    }

    /** Kept after all. */
    public LegalTag kept() {
        return new LegalTag(share, path, tag, by, at, why, Optional.empty());
    }
}
