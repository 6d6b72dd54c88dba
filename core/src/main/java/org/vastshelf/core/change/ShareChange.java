package org.vastshelf.core.change;

import org.vastshelf.core.estate.Share;

/** Changes of shares. */
public sealed interface ShareChange extends Change {

    record OpenShare(Share share) implements ShareChange {
        @Override
        public String title() {
            return "Open share " + share.name() + " on " + share.volume();
        }
    }

    record CloseShare(String share) implements ShareChange {
        @Override
        public String title() {
            return "Close share " + share;
        }
    }
}
