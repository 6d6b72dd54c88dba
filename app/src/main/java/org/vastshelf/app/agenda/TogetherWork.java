package org.vastshelf.app.agenda;

import java.time.Instant;
import java.util.List;

/** What is done at once with all of its kind that falls due at the same moment. */
public interface TogetherWork extends DueWork {

    /**
     * Does several; where one of them fails all are taken back, and each is done alone.
     *
     * @param keys in the order of their names, at least one
     */
    void act(List<String> keys, Instant at);

    /**
     * Parts that have nothing in common: they are done beside each other, each in a transaction of its own.
     *
     * @return each key once
     */
    default List<List<String>> apart(List<String> keys, Instant at) {
        return List.of(keys);
    }

    @Override
    default void act(String key, Instant at) {
        act(List.of(key), at);
    }
}
