package org.vastshelf.app.retention;

import static org.vastshelf.app.store.generated.Tables.CATALOGUE;
import static org.vastshelf.app.store.generated.Tables.FILE;
import static org.vastshelf.app.store.generated.Tables.FOLDER;

import java.time.Instant;
import java.time.LocalDate;
import java.util.List;
import org.jooq.Condition;
import org.jooq.DSLContext;
import org.jooq.Field;
import org.jooq.Table;
import org.jooq.impl.DSL;
import org.springframework.stereotype.Component;
import org.vastshelf.app.catalogue.PathBytes;
import org.vastshelf.app.retention.Holding.Sum;
import org.vastshelf.core.estate.FilePath;
import org.vastshelf.core.estate.RetentionRule;

/** Counts the files below a folder of a share by the days from which their retention counts. */
@Component
class HoldingStore {

    private static final long DAY = 86_400;
    private static final Table<?> FILES = CATALOGUE
            .join(FOLDER)
            .on(FOLDER.CATALOGUE_NO.eq(CATALOGUE.NO))
            .join(FILE)
            .on(FILE.CATALOGUE_NO.eq(CATALOGUE.NO), FILE.FOLDER_NO.eq(FOLDER.NO));

    private final DSLContext db;

    HoldingStore(DSLContext db) {
        this.db = db;
    }

    /**
     * Files whose retention counts from the same day.
     *
     * @param young whether they were changed so lately that they are not held yet
     */
    record Count(LocalDate from, boolean young, long files, long bytes) {}

    /** The files of a rule; young are those that were changed after a moment. */
    List<Count> counts(RetentionRule rule, Instant youngAfter) {
        Field<Long> basis = rule.basis() == RetentionRule.Basis.CREATED
                ? DSL.when(FILE.CREATED_AT.eq(0L), FILE.MODIFIED_AT).otherwise(FILE.CREATED_AT)
                : FILE.MODIFIED_AT;
        Field<Long> day = DSL.floor(basis.div(DAY)).coerce(Long.class).as("day");
        Field<Integer> young = DSL.when(FILE.MODIFIED_AT.gt(youngAfter.getEpochSecond()), 1)
                .otherwise(0)
                .as("young");
        return db.select(day, young, DSL.count(), DSL.sum(FILE.BYTES))
                .from(FILES)
                .where(below(rule.share(), rule.folder()))
                .groupBy(day, young)
                .orderBy(day)
                .fetch(row -> new Count(
                        LocalDate.ofEpochDay(row.value1()),
                        row.value2() == 1,
                        row.value3(),
                        row.value4().longValueExact()));
    }

    /** How many files there are below a folder, or at a path, and their bytes. */
    Sum sum(String share, FilePath path) {
        return db.select(FOLDER.SUM_FILES, FOLDER.SUM_BYTES)
                .from(CATALOGUE.join(FOLDER).on(FOLDER.CATALOGUE_NO.eq(CATALOGUE.NO)))
                .where(at(share, path))
                .unionAll(db.select(DSL.inline(1L), FILE.BYTES)
                        .from(FILES)
                        .where(at(share, path.parent()), FILE.NAME.eq(PathBytes.of(path.name()))))
                .fetchOptional(row -> new Sum(row.value1(), row.value2()))
                .orElse(Sum.NOTHING);
    }

    /** Whether there is a file or a folder at a path. */
    boolean isThere(String share, FilePath path) {
        return db.fetchExists(FOLDER.join(CATALOGUE).on(FOLDER.CATALOGUE_NO.eq(CATALOGUE.NO)), at(share, path))
                || db.fetchExists(FILES, at(share, path.parent()), FILE.NAME.eq(PathBytes.of(path.name())));
    }

    private static Condition at(String share, FilePath path) {
        byte[] bytes = PathBytes.of(path.text());
        return CATALOGUE
                .NAME
                .eq(share)
                .and(FOLDER.PATH_HASH.eq(PathBytes.hash(bytes)))
                .and(FOLDER.PATH.eq(bytes));
    }

    private static Condition below(String share, FilePath folder) {
        Condition there = CATALOGUE.NAME.eq(share);
        if (folder.isRoot()) {
            return there;
        }
        byte[] path = PathBytes.of(folder.text());
        byte[] inside = PathBytes.of(folder.text() + "/");
        return there.and(FOLDER.PATH
                .eq(path)
                .or(DSL.condition("LEFT({0}, {1}) = {2}", FOLDER.PATH, DSL.val(inside.length), DSL.val(inside))));
    }
}
