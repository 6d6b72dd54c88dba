package org.vastshelf.app.hardware;

import static org.vastshelf.app.store.generated.Tables.HARDWARE_EVENT;

import java.time.Instant;
import java.util.List;
import org.jooq.DSLContext;
import org.springframework.stereotype.Component;
import org.vastshelf.app.notify.NoticeStore;
import org.vastshelf.app.store.Times;
import org.vastshelf.core.unit.ShortText;

/** What happened to hardware, and what came of it; told to the administrators too. */
@Component
public class HardwareEventStore {

    private static final int LONGEST = 1_000;

    private final DSLContext db;
    private final NoticeStore notices;

    HardwareEventStore(DSLContext db, NoticeStore notices) {
        this.db = db;
        this.notices = notices;
    }

    public record Event(long id, Instant at, String server, String text) {}

    void add(Instant at, String server, List<String> texts) {
        texts.forEach(text -> db.insertInto(HARDWARE_EVENT)
                .set(HARDWARE_EVENT.AT, Times.stored(at))
                .set(HARDWARE_EVENT.SERVER, server)
                .set(HARDWARE_EVENT.TEXT, ShortText.of(text, LONGEST))
                .execute());
        if (!texts.isEmpty()) {
            notices.tellAdministrators(at, texts.getFirst(), String.join(". ", texts) + ".");
        }
    }

    /** Newest first. */
    public List<Event> newest(int limit) {
        return db.selectFrom(HARDWARE_EVENT)
                .orderBy(HARDWARE_EVENT.ID.desc())
                .limit(limit)
                .fetch(row -> new Event(row.getId(), Times.instant(row.getAt()), row.getServer(), row.getText()));
    }
}
