package org.vastshelf.app.look;

import org.vastshelf.app.kit.Figures;
import org.vastshelf.app.kit.Mark;
import org.vastshelf.core.look.Attention;

/**
 * Something that wants a person, with where it leads.
 *
 * @param link empty where the page on which it can be settled is not for this person
 */
public record LookLine(Mark state, String what, String why, String when, String remedy, String link) {

    /** As an administrator, an operator or an auditor reads it. */
    static LookLine of(Figures fmt, Attention attention) {
        return line(fmt, attention, attention.remedy(), link(attention));
    }

    /** As the keeper of a share reads it, who has no pages to build and to protect, and no names of other spaces. */
    static LookLine ofKeeper(Figures fmt, Attention attention) {
        return switch (attention.subject().area()) {
            case SHARE, ACCOUNT -> of(fmt, attention);
            case VOLUME ->
                line(
                        fmt,
                        attention,
                        "see the forecast",
                        "/foresee/volume/" + attention.subject().key());
            default -> line(fmt, attention, "ask an administrator", "");
        };
    }

    private static LookLine line(Figures fmt, Attention attention, String remedy, String link) {
        String word = attention.urgency().name().toLowerCase(java.util.Locale.ROOT);
        return new LookLine(
                new Mark(
                        switch (attention.urgency()) {
                            case ACT -> Mark.State.ACT;
                            case WATCH -> Mark.State.WATCH;
                            case FINE -> Mark.State.FINE;
                        },
                        word),
                attention.what(),
                attention.why(),
                attention.by().map(fmt::day).orElse(attention.when()),
                remedy,
                link);
    }

    /** In which is sought. */
    public String text() {
        return what + " " + why;
    }

    /** The page on which it can be settled. */
    private static String link(Attention attention) {
        String key = attention.subject().key();
        return switch (attention.subject().area()) {
            case POOL -> "/build/pools/" + key;
            case VOLUME -> (attention.by().isPresent() ? "/foresee/volume/" : "/build/volumes/") + key;
            case DRIVE -> "/build/drives/" + key;
            case SHARE -> "/serve/shares/" + key;
            case ORDER -> "/orders/" + key;
            case ACCOUNT -> "/limit";
            case AGENDA -> "/look";
            case RUSH -> "/lighten/left";
            case TIERING -> "/lighten/rules/" + key;
            case PAIR -> "/protect/pairs/" + key;
            case PROTECTION -> "/protect/shares/" + key;
            case RESERVE -> "/protect/volumes/" + key + "/reserve";
            case POOL_RESERVE -> "/protect/pools/" + key + "/reserve";
        };
    }
}
