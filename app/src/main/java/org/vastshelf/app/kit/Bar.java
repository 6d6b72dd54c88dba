package org.vastshelf.app.kit;

/**
 * A bar that is filled in part.
 *
 * @param filled px, 0 to {@code width}
 * @param state by which it is coloured
 */
public record Bar(int filled, int width, Mark.State state) {

    /** A share of 1 as a bar; what lies beyond is drawn full. */
    public static Bar of(double share, int width, Mark.State state) {
        return new Bar((int) Math.clamp(Math.round(share * width), 0, width), width, state);
    }

    /** With room for its edge. */
    public int outer() {
        return width + 1;
    }

    public String css() {
        return "bar-" + state.css();
    }
}
