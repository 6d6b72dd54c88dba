package org.vastshelf.app.away;

import static org.vastshelf.app.store.generated.Tables.CATALOGUE;
import static org.vastshelf.app.store.generated.Tables.FILE;
import static org.vastshelf.app.store.generated.Tables.FOLDER;

import java.util.List;
import java.util.Optional;
import org.jooq.Condition;
import org.jooq.DSLContext;
import org.jooq.impl.DSL;
import org.springframework.stereotype.Component;
import org.vastshelf.app.catalogue.PathBytes;
import org.vastshelf.app.content.ContentsCode;
import org.vastshelf.core.content.Contents;
import org.vastshelf.core.estate.FilePath;

/** Finds files that have left. */
@Component
class StubStore {

    private static final String BETWEEN = ":";

    private final DSLContext db;

    StubStore(DSLContext db) {
        this.db = db;
    }

    /**
     * A file that has left.
     *
     * @param place where it stands in the order in which they are found
     */
    record Stub(FilePath path, long bytes, String place) {}

    private static Condition isAway() {
        return DSL.condition("LEFT({0}, 2) = {1}", FILE.EXTENTS, DSL.inline(ContentsCode.COLD));
    }

    /** Those in a folder and below it, behind a place; empty for the first. */
    List<Stub> behind(String share, FilePath folder, String place, int most) {
        int colon = place.indexOf(BETWEEN);
        int no = colon < 0 ? -1 : Integer.parseInt(place.substring(0, colon));
        byte[] name = colon < 0 ? new byte[0] : PathBytes.parse(place.substring(colon + 1));
        byte[] path = PathBytes.of(folder.text());
        byte[] inside = PathBytes.child(path, new byte[0]);
        Condition below = folder.isRoot()
                ? DSL.noCondition()
                : FOLDER.PATH
                        .eq(path)
                        .or(DSL.condition(
                                "LEFT({0}, {1}) = {2}", FOLDER.PATH, DSL.val(inside.length), DSL.val(inside)));
        return db.select(FOLDER.NO, FOLDER.PATH, FILE.NAME, FILE.BYTES)
                .from(CATALOGUE)
                .join(FOLDER)
                .on(FOLDER.CATALOGUE_NO.eq(CATALOGUE.NO))
                .join(FILE)
                .on(FILE.CATALOGUE_NO.eq(FOLDER.CATALOGUE_NO), FILE.FOLDER_NO.eq(FOLDER.NO))
                .where(CATALOGUE.NAME.eq(share), below, isAway())
                .and(FILE.FOLDER_NO.gt(no).or(FILE.FOLDER_NO.eq(no).and(FILE.NAME.gt(name))))
                .orderBy(FILE.FOLDER_NO, FILE.NAME)
                .limit(most)
                .fetch(row -> new Stub(
                        new FilePath(PathBytes.shown(PathBytes.child(row.value2(), row.value3()))),
                        row.value4(),
                        row.value1() + BETWEEN + PathBytes.shown(row.value3())));
    }

    /** The number of the object that a file reads; empty where there is none, or it is here. */
    Optional<Long> objectAt(String share, FilePath path) {
        return db.select(FILE.EXTENTS)
                .from(CATALOGUE)
                .join(FOLDER)
                .on(
                        FOLDER.CATALOGUE_NO.eq(CATALOGUE.NO),
                        FOLDER.PATH_HASH.eq(
                                PathBytes.hash(PathBytes.of(path.parent().text()))))
                .join(FILE)
                .on(FILE.CATALOGUE_NO.eq(FOLDER.CATALOGUE_NO), FILE.FOLDER_NO.eq(FOLDER.NO))
                .where(CATALOGUE.NAME.eq(share), FILE.NAME.eq(PathBytes.of(path.name())), isAway())
                .fetchOptional(row -> number(ContentsCode.read(row.value1())));
    }

    private static long number(Contents contents) {
        return contents.extents().getFirst().stream().number();
    }
}
