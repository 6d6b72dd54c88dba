package org.vastshelf.app.foresee;

import static org.vastshelf.app.store.generated.Tables.SUPPOSITION;

import java.time.LocalDate;
import java.util.List;
import java.util.Optional;
import org.jooq.Condition;
import org.jooq.DSLContext;
import org.springframework.stereotype.Component;
import org.vastshelf.app.foresee.Forecasts.Space;
import org.vastshelf.app.store.StoredJson;
import org.vastshelf.app.store.generated.tables.records.SuppositionRecord;
import org.vastshelf.core.forecast.Course;

/** Keeps suppositions that somebody gave a name, with what followed from them on that day. */
@Component
class SuppositionStore {

    private final DSLContext db;
    private final StoredJson json;

    SuppositionStore(DSLContext db, StoredJson json) {
        this.db = db;
        this.json = json;
    }

    /**
     * A supposition that was kept.
     *
     * @param asked what was supposed, as the query of its address
     * @param course what followed from it when it was kept
     */
    public record Saved(String name, String author, LocalDate made, String asked, Course course) {}

    List<Saved> all(Space space) {
        return db.selectFrom(SUPPOSITION)
                .where(of(space))
                .orderBy(SUPPOSITION.MADE.desc(), SUPPOSITION.NAME)
                .fetch(this::saved);
    }

    Optional<Saved> find(Space space, String name) {
        return db.selectFrom(SUPPOSITION)
                .where(of(space), SUPPOSITION.NAME.eq(name))
                .fetchOptional(this::saved);
    }

    private static Condition of(Space space) {
        return SUPPOSITION.KIND.eq(space.kind()).and(SUPPOSITION.SPACE.eq(space.name()));
    }

    private Saved saved(SuppositionRecord row) {
        return new Saved(
                row.getName(),
                row.getAuthor(),
                row.getMade(),
                row.getAsked(),
                json.read(row.getCourse(), StoredCourse.class).course());
    }

    /** Keeps one; false where the name is taken. */
    boolean add(Space space, Saved saved) {
        return db.insertInto(SUPPOSITION)
                        .set(SUPPOSITION.KIND, space.kind())
                        .set(SUPPOSITION.SPACE, space.name())
                        .set(SUPPOSITION.NAME, saved.name)
                        .set(SUPPOSITION.AUTHOR, saved.author)
                        .set(SUPPOSITION.MADE, saved.made)
                        .set(SUPPOSITION.ASKED, saved.asked)
                        .set(SUPPOSITION.COURSE, json.write(StoredCourse.of(saved.course)))
                        .onDuplicateKeyIgnore()
                        .execute()
                > 0;
    }

    void drop(Space space, String name) {
        db.deleteFrom(SUPPOSITION).where(of(space), SUPPOSITION.NAME.eq(name)).execute();
    }

    /** All of a space that is gone. */
    void forget(ForecastStore.Key key) {
        db.deleteFrom(SUPPOSITION)
                .where(SUPPOSITION.KIND.eq(key.kind()), SUPPOSITION.SPACE.eq(key.name()))
                .execute();
    }
}
