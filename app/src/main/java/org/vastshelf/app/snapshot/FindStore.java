package org.vastshelf.app.snapshot;

import static org.vastshelf.app.store.generated.Tables.CATALOGUE;
import static org.vastshelf.app.store.generated.Tables.FILE_PAST;
import static org.vastshelf.app.store.generated.Tables.FOLDER;
import static org.vastshelf.app.store.generated.Tables.FOLDER_PAST;

import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import org.jooq.Condition;
import org.jooq.DSLContext;
import org.jooq.Field;
import org.jooq.Record2;
import org.jooq.Table;
import org.jooq.impl.DSL;
import org.springframework.stereotype.Component;
import org.vastshelf.app.catalogue.CatalogueStore;
import org.vastshelf.app.catalogue.PathBytes;
import org.vastshelf.core.estate.FilePath;

/** Finds by name what is not as it was. */
@Component
class FindStore {

    private final DSLContext db;

    FindStore(DSLContext db) {
        this.db = db;
    }

    /**
     * A file or a folder as it was.
     *
     * @param folder in which it was, by its number
     * @param owner empty for a folder
     * @param born and died as snapshots count
     */
    record Was(
            int catalogue, int folder, String name, boolean isFolder, long bytes, String owner, int born, int died) {}

    /**
     * What has a text in its name, whatever the case, each file as it was last; folders first, what went last before what
     * went earlier.
     */
    List<Was> find(String share, String text, int most) {
        Optional<Integer> catalogue = db.select(CATALOGUE.NO)
                .from(CATALOGUE)
                .where(CATALOGUE.NAME.eq(share))
                .fetchOptional(CATALOGUE.NO);
        if (catalogue.isEmpty()) {
            return List.of();
        }
        int no = catalogue.get();
        List<Was> found = new ArrayList<>(db.selectFrom(FOLDER_PAST)
                .where(FOLDER_PAST.CATALOGUE_NO.eq(no), holds(FOLDER_PAST.NAME, text))
                .orderBy(FOLDER_PAST.DIED.desc(), FOLDER_PAST.NAME)
                .limit(most)
                .fetch(row -> new Was(
                        no,
                        row.getParentNo(),
                        PathBytes.shown(row.getName()),
                        true,
                        0,
                        "",
                        row.getBorn(),
                        row.getDied())));
        found.addAll(files(no, text, most - found.size()));
        return found;
    }

    /** Names are gone through without their versions, of which each may have thousands. */
    private List<Was> files(int no, String text, int most) {
        Field<Integer> last = DSL.max(FILE_PAST.DIED).as("last");
        Table<?> names = DSL.select(FILE_PAST.FOLDER_NO, FILE_PAST.NAME, last)
                .from(FILE_PAST)
                .where(FILE_PAST.CATALOGUE_NO.eq(no))
                .groupBy(FILE_PAST.CATALOGUE_NO, FILE_PAST.FOLDER_NO, FILE_PAST.NAME)
                .asTable("names");
        Table<?> some = DSL.selectFrom(names)
                .where(holds(names.field(FILE_PAST.NAME), text))
                .orderBy(names.field(last).desc(), names.field(FILE_PAST.NAME))
                .limit(most)
                .asTable("some");
        return db.select(FILE_PAST.fields())
                .from(some)
                .join(FILE_PAST)
                .on(
                        FILE_PAST.CATALOGUE_NO.eq(no),
                        FILE_PAST.FOLDER_NO.eq(some.field(FILE_PAST.FOLDER_NO)),
                        FILE_PAST.NAME.eq(some.field(FILE_PAST.NAME)),
                        FILE_PAST.DIED.eq(some.field(last)))
                .orderBy(FILE_PAST.DIED.desc(), FILE_PAST.NAME)
                .fetchInto(FILE_PAST)
                .map(row -> new Was(
                        no,
                        row.getFolderNo(),
                        PathBytes.shown(row.getName()),
                        false,
                        row.getBytes(),
                        row.getOwner(),
                        row.getBorn(),
                        row.getDied()));
    }

    private static Condition holds(Field<byte[]> name, String text) {
        return DSL.condition(
                "INSTR(LOWER(CONVERT({0} USING utf8mb4)), {1}) > 0", name, DSL.val(text.toLowerCase(Locale.ROOT)));
    }

    /** Where a folder lay at a snapshot, by the names of then; empty when it was not there. */
    Optional<FilePath> path(int catalogue, int folder, int number) {
        Deque<String> names = new ArrayDeque<>();
        int at = folder;
        while (at != 0) {
            Optional<Record2<Integer, byte[]>> above = above(catalogue, at, number);
            if (above.isEmpty()) {
                return Optional.empty();
            }
            names.addFirst(PathBytes.shown(above.get().value2()));
            at = above.get().value1();
        }
        return Optional.of(new FilePath("/" + String.join("/", names)));
    }

    private Optional<Record2<Integer, byte[]>> above(int catalogue, int folder, int number) {
        return db.select(FOLDER.PARENT_NO, CatalogueStore.FOLDER_NAME)
                .from(FOLDER)
                .where(FOLDER.CATALOGUE_NO.eq(catalogue), FOLDER.NO.eq(folder), FOLDER.BORN.lt(number))
                .unionAll(db.select(FOLDER_PAST.PARENT_NO, FOLDER_PAST.NAME)
                        .from(FOLDER_PAST)
                        .where(
                                FOLDER_PAST.CATALOGUE_NO.eq(catalogue),
                                FOLDER_PAST.NO.eq(folder),
                                FOLDER_PAST.BORN.lt(number),
                                FOLDER_PAST.DIED.ge(number)))
                .fetchOptional();
    }
}
