package org.vastshelf.core.change;

/**
 * What was found when a draft was looked at.
 *
 * @param key stable within a draft, so that a confirmation can name it
 * @param remedy what would help; empty for nothing
 */
public record Check(Verdict verdict, String key, String text, String remedy) {

    public enum Verdict {
        FINE,
        WATCH,
        CONFIRM,
        REFUSE
    }

    public static Check fine(String key, String text) {
        return new Check(Verdict.FINE, key, text, "");
    }

    public static Check refuse(String key, String text, String remedy) {
        return new Check(Verdict.REFUSE, key, text, remedy);
    }
}
