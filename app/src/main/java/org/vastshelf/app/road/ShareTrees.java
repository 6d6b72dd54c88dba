package org.vastshelf.app.road;

import java.util.Collection;
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
     * Lets nobody else change files or folders of these shares until the transaction has ended. Files that lay on another
     * volume before count as saved just now.
     */
    public void lock(Collection<Share> shares) {
        lives.lockTrees(shares);
    }
}
