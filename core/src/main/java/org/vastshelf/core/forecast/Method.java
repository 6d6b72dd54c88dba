package org.vastshelf.core.forecast;

/** A way to go on from a history; what is simpler comes first. */
public enum Method {
    DRIFT("last value with the drift of the whole history", Shape.DRIFT, 0),
    DRIFT_WITH_SHIFTS("last value with the drift of the whole history, shifts included", Shape.DRIFT_WITH_SHIFTS, 0),
    LINE("line through the whole history", Shape.LINE, 0),
    LINE_YEAR("line through the last year", Shape.LINE, 365),
    LINE_HALF_YEAR("line through the last half year", Shape.LINE, 180),
    LINE_QUARTER("line through the last 90 days", Shape.LINE, 90),
    LINE_RECENT("line through the last 45 days", Shape.LINE, 45),
    LINE_MONTH("line through the last 21 days", Shape.LINE, 21),
    DRIFT_QUARTER("last value with the drift of the last 90 days", Shape.DRIFT, 90),
    DAMPED_RECENT("growth of the last 60 days, fading", Shape.DAMPED, 60),
    DAMPED_HALF_YEAR("growth of the last half year, fading", Shape.DAMPED, 180),
    SMOOTHED("level and trend of the newest days", Shape.SMOOTHED, 0),
    CHANGING_PACE("a pace that goes on changing as it did", Shape.CHANGING_PACE, 0),
    CEILING("growth that comes to rest below a ceiling", Shape.CEILING, 0),
    YEARLY_SEASON("line with a yearly season", Shape.YEARLY_SEASON, 0);

    /** What kind of curve it draws. */
    enum Shape {
        DRIFT,
        DRIFT_WITH_SHIFTS,
        LINE,
        DAMPED,
        SMOOTHED,
        CHANGING_PACE,
        CEILING,
        YEARLY_SEASON
    }

    /** A method has to be better than a simpler one by so much. */
    private static final double BETTER = 0.95;
    /** Three parameters fit much that has no ceiling. */
    private static final double CLEARLY_BETTER = 0.8;
    /** Of a history, this much at least has to lie before a window. */
    private static final double LARGER = 0.8;

    private final String title;
    private final Shape shape;
    private final int window;

    Method(String title, Shape shape, int window) {
        this.title = title;
        this.shape = shape;
        this.window = window;
    }

    public String title() {
        return title;
    }

    /** Its error may be at most so much of that of a simpler one for it to be taken. */
    double demanded() {
        return this == CEILING ? CLEARLY_BETTER : BETTER;
    }

    Shape shape() {
        return shape;
    }

    /** Whether a history of so many days is longer than what the method looks at. */
    boolean suits(int days) {
        return window == 0 || window < days * LARGER;
    }

    /** The first day that it looks at. */
    int from(int days) {
        return window == 0 ? 0 : Math.max(0, days - window);
    }

    boolean isWindowed() {
        return window > 0;
    }
}
