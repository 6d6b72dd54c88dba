package org.vastshelf.core.tier;

/** How a rule stands to a file, and why. */
public enum Standing {
    LEAVES("would leave"),
    YOUNG("too young"),
    SMALL("too small"),
    ELSEWHERE("not in its folders"),
    EXCEPTED("in a folder that stays"),
    KIND("of another kind"),
    PERSON("of somebody whose files stay"),
    EARLIER("left to a rule of lower rank"),
    ENOUGH("enough is free without it"),
    LEFT("left before");

    private final String title;

    Standing(String title) {
        this.title = title;
    }

    public String title() {
        return title;
    }

    /** Whether the file is here, and goes on being here. */
    public boolean stays() {
        return this != LEAVES && this != LEFT;
    }
}
