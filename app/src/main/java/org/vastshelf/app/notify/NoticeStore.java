package org.vastshelf.app.notify;

import static org.vastshelf.app.store.generated.Tables.NOTICE;

import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
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
public class NoticeStore {

    private static final int LONGEST_SUBJECT = 200;
    private static final int LONGEST_PROBLEM = 500;
    private static final Duration FIRST_PAUSE = Duration.ofSeconds(10);
    private static final Duration LONGEST_PAUSE = Duration.ofHours(1);
    private static final int MOST_DOUBLINGS = 9;

    private final DSLContext db;
    private final Directory directory;

    NoticeStore(DSLContext db, Directory directory) {
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

    /** The same, unless the same was told within this time before. */
    public void tellAdministratorsOnce(Instant at, Duration within, String subject, String body) {
        boolean told = db.fetchExists(
                NOTICE,
                NOTICE.SUBJECT.eq(subject),
                NOTICE.AT.between(Times.stored(at.minus(within)), Times.stored(at)));
        if (!told) {
            tellAdministrators(at, subject, body);
        }
    }

    /** Newest first, those with a number below the given one. */
    public List<Notice> page(long before, int limit) {
        return db.selectFrom(NOTICE)
                .where(NOTICE.ID.lt(before))
                .orderBy(NOTICE.ID.desc())
                .limit(limit)
                .fetch(NoticeStore::notice);
    }

    /**
     * The one that is due and waited longest, for this transaction alone; one that can't be delivered waits, and does not
     * stop the others.
     */
    Optional<Notice> claim(Instant now) {
        return db.selectFrom(NOTICE)
                .where(
                        NOTICE.SENT_AT.isNull(),
                        NOTICE.GIVEN_UP.eq(0),
                        NOTICE.NEXT_AT.isNull().or(NOTICE.NEXT_AT.le(Times.stored(now))))
                .orderBy(NOTICE.NEXT_AT, NOTICE.ID)
                .limit(1)
                .forUpdate()
                .skipLocked()
                .fetchOptional(NoticeStore::notice);
    }

    void sent(long id, Instant at) {
        db.update(NOTICE)
                .set(NOTICE.SENT_AT, Times.stored(at))
                .set(NOTICE.PROBLEM, "")
                .where(NOTICE.ID.eq(id))
                .execute();
    }

    /** Was not taken; tried again after a pause that doubles each time, up to {@link #LONGEST_PAUSE}. */
    void failed(long id, String problem, Instant now) {
        int tries = db.select(NOTICE.TRIES).from(NOTICE).where(NOTICE.ID.eq(id)).fetchSingle(NOTICE.TRIES);
        Duration pause = FIRST_PAUSE.multipliedBy(1L << Math.min(tries, MOST_DOUBLINGS));
        db.update(NOTICE)
                .set(NOTICE.PROBLEM, ShortText.of(problem, LONGEST_PROBLEM))
                .set(NOTICE.TRIES, tries + 1)
                .set(NOTICE.NEXT_AT, Times.stored(now.plus(pause.compareTo(LONGEST_PAUSE) < 0 ? pause : LONGEST_PAUSE)))
                .where(NOTICE.ID.eq(id))
                .execute();
    }

    /** Can't be delivered at all; it stays to be read here. */
    void givenUp(long id, String problem) {
        db.update(NOTICE)
                .set(NOTICE.PROBLEM, ShortText.of(problem, LONGEST_PROBLEM))
                .set(NOTICE.GIVEN_UP, 1)
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
