package org.vastshelf.app.orders;

import java.util.EnumSet;
import java.util.Set;
import org.vastshelf.app.kit.Mark;

/** Where an order is on its way. */
public enum OrderState {
    DRAFT("in work", Mark.State.WAITING),
    READY("ready", Mark.State.WAITING),
    RUNNING("running", Mark.State.WAITING),
    PAUSED("paused", Mark.State.WAITING),
    TAKING_BACK("being taken back", Mark.State.WAITING),
    /** Taking it back would harm what others have built upon it; somebody has to say what to do. */
    ASKING("stopped, asks", Mark.State.ACT),
    DONE("done", Mark.State.FINE),
    TAKEN_BACK("taken back", Mark.State.WATCH),
    LEFT("left as it is", Mark.State.WATCH);

    private static final Set<OrderState> DRAFTS = EnumSet.of(DRAFT, READY);
    private static final Set<OrderState> UNDER_WAY = EnumSet.of(RUNNING, TAKING_BACK);

    private final String title;
    private final Mark.State mark;

    OrderState(String title, Mark.State mark) {
        this.title = title;
        this.mark = mark;
    }

    public String title() {
        return title;
    }

    /** The word with its sign. */
    public Mark mark() {
        return new Mark(mark, title);
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
