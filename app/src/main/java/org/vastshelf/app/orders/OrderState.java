package org.vastshelf.app.orders;

/** Where an order is on its way. */
public enum OrderState {
    DRAFT("draft", "waiting"),
    RUNNING("running", "waiting"),
    PAUSED("paused", "waiting"),
    TAKING_BACK("being taken back", "waiting"),
    DONE("done", "fine"),
    TAKEN_BACK("taken back", "watch");

    private final String title;
    private final String mark;

    OrderState(String title, String mark) {
        this.title = title;
        this.mark = mark;
    }

    public String title() {
        return title;
    }

    /** The state mark that stands beside the word. */
    public String mark() {
        return mark;
    }
}
