package org.vastshelf.app.road;

import org.springframework.stereotype.Service;
import org.vastshelf.app.store.EstateStore;
import org.vastshelf.app.store.UsageStore;
import org.vastshelf.core.estate.Usage;
import org.vastshelf.core.estate.Volume;

/** The room that copies take, which are written by nobody's saves: it is asked of their pools as a save's is. */
@Service
public class CopyRooms {

    private final EstateStore estates;
    private final RuleBooks books;
    private final VolumeRoomStore rooms;
    private final UsageStore usage;

    CopyRooms(EstateStore estates, RuleBooks books, VolumeRoomStore rooms, UsageStore usage) {
        this.estates = estates;
        this.books = books;
        this.rooms = rooms;
        this.usage = usage;
    }

    /**
     * Lets a copy hold so much, if there is room for it.
     *
     * @return bytes for which there is no room, and then it holds what it did before; 0 when there was
     */
    public long hold(String copy, Usage.Held wanted) {
        RuleBook book = books.of(estates.held());
        Volume volume = book.estate().volumes().get(copy);
        // The row is locked first, and what it holds is read then.
        rooms.lock(book, volume, 0);
        long growth = wanted.used().value() - usage.load().of(copy).used().value();
        long lacking = growth <= 0
                ? 0
                : Math.max(0, growth - rooms.lock(book, volume, growth).value());
        if (lacking == 0) {
            usage.set(copy, wanted);
        }
        return lacking;
    }
}
