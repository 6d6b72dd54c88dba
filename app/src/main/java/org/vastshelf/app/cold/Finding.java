package org.vastshelf.app.cold;

import org.jspecify.annotations.Nullable;

/**
 * What one part of a check came to.
 *
 * @param said what was found
 * @param remedy what to do about it; empty for nothing
 * @param millis how long it took; nothing where that says nothing
 */
public record Finding(
        Look look,
        Outcome outcome,
        String said,
        String remedy,
        @Nullable Long millis) {

    /** Parts of a check, in their order. */
    public enum Look {
        REACH("The endpoint answers"),
        KEYS("The keys open the bucket"),
        CLOCK("The clocks agree"),
        WRITE("A small object is written"),
        READ("It is read back as it was written"),
        PART("A part of it is read alone"),
        LIST("It is found in the list"),
        DELETE("It is deleted, and gone");

        private final String title;

        Look(String title) {
            this.title = title;
        }

        public String title() {
            return title;
        }
    }

    /** How it went. */
    public enum Outcome {
        PASSED,
        FAILED,
        /** Something before it failed. */
        NOT_TRIED
    }

    static Finding passed(Look look, String said) {
        return new Finding(look, Outcome.PASSED, said, "", null);
    }

    Finding after(long millis) {
        return outcome == Outcome.PASSED ? new Finding(look, outcome, said, remedy, millis) : this;
    }

    static Finding failed(Look look, String said, String remedy) {
        return new Finding(look, Outcome.FAILED, said, remedy, null);
    }

    static Finding notTried(Look look) {
        return new Finding(look, Outcome.NOT_TRIED, "", "", null);
    }
}
