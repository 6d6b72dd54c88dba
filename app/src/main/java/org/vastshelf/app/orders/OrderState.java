package org.vastshelf.app.orders;

import java.util.EnumSet;
import java.util.Set;

/** Where an order is on its way. */
public enum OrderState {
    DRAFT("in work", "waiting"),
    READY("ready", "waiting"),
    RUNNING("running", "waiting"),
    PAUSED("paused", "waiting"),
    TAKING_BACK("being taken back", "waiting"),
    /** Taking it back would harm what others have built upon it; somebody has to say what to do. */
    ASKING("stopped, asks", "act"),
    DONE("done", "fine"),
    TAKEN_BACK("taken back", "watch"),
    LEFT("left as it is", "watch");

    private static final Set<OrderState> DRAFTS = EnumSet.of(DRAFT, READY);
    private static final Set<OrderState> UNDER_WAY = EnumSet.of(RUNNING, TAKING_BACK);

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

    /** Nothing was done yet. */
    public boolean isDraft() {
        return DRAFTS.contains(this);
    }

    /** It moves by itself. */
    public boolean isUnderWay() {
        return UNDER_WAY.contains(this);
    }
}
