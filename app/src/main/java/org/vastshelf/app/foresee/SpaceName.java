package org.vastshelf.app.foresee;

import org.springframework.web.util.UriComponentsBuilder;
import org.vastshelf.app.store.HistoryStore;

/**
 * A space as pages name it and address it.
 *
 * @param kind as in the address
 * @param key as in the address
 * @param title what people call it
 */
public record SpaceName(String kind, String key, String title) {

    /** The estate has no name of its own. */
    private static final String WHOLE = "whole";

    static SpaceName of(String kind, String name) {
        return kind.equals(HistoryStore.ESTATE)
                ? new SpaceName(kind, WHOLE, "the whole")
                : new SpaceName(kind, name, name);
    }

    /** The name under which a space is kept. */
    static String stored(String kind, String key) {
        return kind.equals(HistoryStore.ESTATE) && key.equals(WHOLE) ? HistoryStore.WHOLE : key;
    }

    /** What kind of thing it is, in a word that stands before its title. */
    public String word() {
        return kind.equals(HistoryStore.SERVER) ? "file server" : kind;
    }

    public String href() {
        return UriComponentsBuilder.fromPath("/foresee/{kind}/{key}")
                .buildAndExpand(kind, key)
                .encode()
                .toUriString();
    }

    public String suppose() {
        return href() + "/suppose";
    }

    public String forget() {
        return href() + "/forget";
    }

    /** Where its chart gets its figures. */
    String chart() {
        return href() + "/chart";
    }
}
