package org.vastshelf.core.invariant;

import java.util.ArrayList;
import java.util.List;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.Kinds;
import org.vastshelf.core.estate.LegalTag;
import org.vastshelf.core.estate.RetentionRule;
import org.vastshelf.core.estate.Share;

/**
 * What retention rules and legal tags hold stays where it is: nothing shortens a sealed rule, no tag goes that nobody
 * asked to take off, and the shares and volumes of their files stay what they are.
 */
final class Seals {

    private final Estate before;
    private final Estate after;
    private final List<Violation> found = new ArrayList<>();

    private Seals(Estate before, Estate after) {
        this.before = before;
        this.after = after;
    }

    static List<Violation> of(Estate before, Estate after) {
        Seals seals = new Seals(before, after);
        before.all(Kinds.RETENTION).values().forEach(seals::rule);
        before.all(Kinds.LEGAL_TAG).values().forEach(seals::tag);
        return seals.found;
    }

    private void rule(RetentionRule rule) {
        RetentionRule next = after.all(Kinds.RETENTION).get(rule.key());
        if (rule.isSealed() && (next == null || !next.isAtLeast(rule))) {
            found.add(new Violation(
                    "retention " + rule.key() + " sealed",
                    "the retention of " + rule.key() + " is sealed (" + rule.term() + ") and can't be shortened"));
        }
        if (next != null) {
            stays("retention " + rule.key(), rule.share(), "the retention of " + rule.key());
        }
    }

    private void tag(LegalTag tag) {
        LegalTag next = after.all(Kinds.LEGAL_TAG).get(tag.key());
        if (next == null && tag.release().isEmpty()) {
            found.add(new Violation(
                    "legal tag " + tag.key(),
                    "the legal tag '" + tag.tag() + "' on " + tag.share() + " " + tag.path()
                            + " would go, and nobody asked to take it off"));
        }
        if (next != null) {
            stays("legal tag " + tag.key(), tag.share(), "the legal tag '" + tag.tag() + "'");
        }
    }

    /** The share is still served from the volume on which its files lie. */
    private void stays(String key, String share, String what) {
        Share was = before.shares().get(share);
        Share is = after.shares().get(share);
        if (was != null && (is == null || !is.volume().equals(was.volume()))) {
            found.add(new Violation(
                    key + " share " + share,
                    "share " + share + " can't go or change its volume: " + what + " is on it"));
        }
    }
}
