package org.vastshelf.app.look;

import java.util.Locale;
import org.vastshelf.core.look.Attention;

/** Something that wants a person, with where it leads. */
public record LookLine(Attention attention) {

    /** Its state, as marks name it. */
    public String state() {
        return attention.urgency().name().toLowerCase(Locale.ROOT);
    }

    public String text() {
        return attention.what() + " " + attention.why();
    }

    /** The page on which it can be settled. */
    public String link() {
        String key = attention.subject().key();
        return switch (attention.subject().area()) {
            case POOL -> "/build/pools/" + key;
            case VOLUME -> (attention.by().isPresent() ? "/foresee/volume/" : "/build/volumes/") + key;
            case DRIVE -> "/build/drives/" + key;
            case SHARE -> "/serve/shares/" + key;
            case ORDER -> "/orders/" + key;
            case ACCOUNT -> "/limit";
            case AGENDA -> "/look";
        };
    }
}
