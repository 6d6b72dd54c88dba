package org.vastshelf.app.kit;

/** How something stands, as a word with a sign, since colour alone says nothing to many. */
public record Mark(State state, String word) {

    /** From fine to failed. */
    public enum State {
        FINE("fine", "●"),
        WAITING("waiting", "◌"),
        WATCH("watch", "▲"),
        ACT("act", "■"),
        FAILED("failed", "✕");

        private final String css;
        private final String sign;

        State(String css, String sign) {
            this.css = css;
            this.sign = sign;
        }

        /** Class of the style sheet. */
        public String css() {
            return css;
        }
    }

    public static Mark fine(String word) {
        return new Mark(State.FINE, word);
    }

    public static Mark waiting(String word) {
        return new Mark(State.WAITING, word);
    }

    public static Mark watch(String word) {
        return new Mark(State.WATCH, word);
    }

    public static Mark act(String word) {
        return new Mark(State.ACT, word);
    }

    public static Mark failed(String word) {
        return new Mark(State.FAILED, word);
    }

    /** Class of the style sheet. */
    public String css() {
        return state.css;
    }

    public String text() {
        return state.sign + " " + word;
    }
}
