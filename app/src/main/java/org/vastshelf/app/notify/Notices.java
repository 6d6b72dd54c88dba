package org.vastshelf.app.notify;

import static org.vastshelf.app.store.generated.Tables.NOTICE;

import java.time.Instant;
import java.util.List;
import org.jooq.DSLContext;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;
import org.vastshelf.app.security.Role;
import org.vastshelf.app.store.Times;
import org.vastshelf.app.store.generated.tables.records.NoticeRecord;
import org.vastshelf.core.estate.Directory;
import org.vastshelf.core.unit.ShortText;

/** What people are told: written down in the caller's transaction, mailed afterwards. */
@Component
public class Notices {

    private static final int LONGEST_SUBJECT = 200;
    private static final int LONGEST_PROBLEM = 500;

    private final DSLContext db;
    private final Directory directory;

    Notices(DSLContext db, Directory directory) {
        this.db = db;
        this.directory = directory;
    }

    /**
     * One notice to one person.
     *
     * @param problem why the mail server did not take it at the last try; empty for none
     */
    public record Notice(
            long id,
            Instant at,
            String recipient,
            String subject,
            String body,
            @Nullable Instant sentAt,
            String problem) {}

    public void tell(String uid, Instant at, String subject, String body) {
        String fitting = ShortText.of(subject, LONGEST_SUBJECT);
        db.insertInto(NOTICE)
                .set(NOTICE.AT, Times.stored(at))
                .set(NOTICE.RECIPIENT, uid)
                .set(NOTICE.SUBJECT, fitting)
                .set(NOTICE.BODY, body)
                .set(NOTICE.PROBLEM, "")
                .execute();
    }

    /** Tells everybody who may change the estate. */
    public void tellAdministrators(Instant at, String subject, String body) {
        directory.people().stream()
                .filter(p -> Role.of(p.groups()) == Role.ADMINISTRATOR)
                .forEach(p -> tell(p.uid(), at, subject, body));
    }

    /** Newest first, those with a number below the given one. */
    public List<Notice> page(long before, int limit) {
        return db.selectFrom(NOTICE)
                .where(NOTICE.ID.lt(before))
                .orderBy(NOTICE.ID.desc())
                .limit(limit)
                .fetch(Notices::notice);
    }

    /** Oldest first. */
    List<Notice> unsent(int limit) {
        return db.selectFrom(NOTICE)
                .where(NOTICE.SENT_AT.isNull())
                .orderBy(NOTICE.ID)
                .limit(limit)
                .fetch(Notices::notice);
    }

    void sent(long id, Instant at) {
        db.update(NOTICE)
                .set(NOTICE.SENT_AT, Times.stored(at))
                .set(NOTICE.PROBLEM, "")
                .where(NOTICE.ID.eq(id))
                .execute();
    }

    void failed(long id, String problem) {
        db.update(NOTICE)
                .set(NOTICE.PROBLEM, problem.substring(0, Math.min(problem.length(), LONGEST_PROBLEM)))
                .where(NOTICE.ID.eq(id))
                .execute();
    }

    private static Notice notice(NoticeRecord row) {
        return new Notice(
                row.getId(),
                Times.instant(row.getAt()),
                row.getRecipient(),
                row.getSubject(),
                row.getBody(),
                Times.instant(row.getSentAt()),
                row.getProblem());
    }
}
