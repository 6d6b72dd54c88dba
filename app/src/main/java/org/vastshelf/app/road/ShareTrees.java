package org.vastshelf.app.road;

import org.springframework.stereotype.Service;
import org.vastshelf.core.estate.Share;

/** The folders and files of shares, for whoever has to have them to itself. */
@Service
public class ShareTrees {

    private final LivesStore lives;

    ShareTrees(LivesStore lives) {
        this.lives = lives;
    }

    /**
     * Lets nobody else change files or folders of a share until the transaction has ended. Files that lay on another
     * volume before count as saved just now.
     */
    public void lock(Share share) {
        lives.lockTree(share);
    }
}
