package org.vastshelf.app.snapshot;

import static org.vastshelf.app.store.generated.Tables.FILE;
import static org.vastshelf.app.store.generated.Tables.FILE_PAST;

import java.util.ArrayList;
import java.util.Base64;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.jooq.Condition;
import org.jooq.DSLContext;
import org.jooq.Field;
import org.jooq.Record4;
import org.jooq.impl.DSL;
import org.springframework.stereotype.Component;
import org.vastshelf.app.catalogue.PathBytes;
import org.vastshelf.app.content.ContentsCode;
import org.vastshelf.app.content.OriginStore;

/** Finds the files that one state of a share has and another has not, by their births and deaths. */
@Component
class CompareStore {

    /** Folders in one statement; with more of them all that differs on the share is looked at. */
    private static final int FEW = 1_000;
    /** How marks begin of what has left: the first bytes of {@link ContentsCode#COLD} in Base64, as far as all have them. */
    private static final String COLD = "AX";

    private final DSLContext db;
    private final OriginStore origins;

    CompareStore(DSLContext db, OriginStore origins) {
        this.db = db;
        this.origins = origins;
    }

    /**
     * A file that one of two states has.
     *
     * @param mark its contents, as they are written down; of one that has left what it held before
     */
    record Only(int folder, String name, long bytes, String mark) {
        Only marked(byte[] code) {
            return new Only(folder, name, bytes, Base64.getEncoder().encodeToString(code));
        }
    }

    /**
     * Files that the state of one number shows and that of another does not.
     *
     * @param folders in which; empty for all
     * @param most so many, and one more where there are more
     */
    List<Only> only(int catalogue, int shown, int hidden, Optional<Set<Integer>> folders, int most) {
        // Of an older state that which died before the younger, of a younger one that which was born after the older.
        Condition past = FILE_PAST
                .CATALOGUE_NO
                .eq(catalogue)
                .and(FILE_PAST.BORN.lt(shown))
                .and(FILE_PAST.DIED.ge(shown))
                .and(shown < hidden ? FILE_PAST.DIED.lt(hidden) : FILE_PAST.BORN.ge(hidden));
        Condition live =
                FILE.CATALOGUE_NO.eq(catalogue).and(FILE.BORN.lt(shown)).and(FILE.BORN.ge(hidden));
        List<Only> found =
                new ArrayList<>(db.select(FILE_PAST.FOLDER_NO, FILE_PAST.NAME, FILE_PAST.BYTES, FILE_PAST.EXTENTS)
                        .from(FILE_PAST)
                        .where(past, in(FILE_PAST.FOLDER_NO, folders))
                        .limit(most + 1)
                        .fetch(CompareStore::entry));
        if (hidden < shown) {
            found.addAll(db.select(FILE.FOLDER_NO, FILE.NAME, FILE.BYTES, FILE.EXTENTS)
                    .from(FILE)
                    .where(live, in(FILE.FOLDER_NO, folders))
                    .limit(most + 1)
                    .fetch(CompareStore::entry));
        }
        return marked(folders.map(some -> found.stream()
                        .filter(entry -> some.contains(entry.folder()))
                        .toList())
                .orElse(found));
    }

    private List<Only> marked(List<Only> found) {
        Map<String, Long> away = new HashMap<>();
        found.stream()
                .map(Only::mark)
                .filter(mark -> mark.startsWith(COLD))
                .forEach(mark -> away.put(
                        mark,
                        ContentsCode.read(Base64.getDecoder().decode(mark))
                                .kept()
                                .iterator()
                                .next()));
        Map<Long, byte[]> before = origins.codes(away.values());
        return away.isEmpty()
                ? found
                : found.stream()
                        .map(only -> Optional.ofNullable(away.get(only.mark))
                                .map(before::get)
                                .map(only::marked)
                                .orElse(only))
                        .toList();
    }

    private static Condition in(Field<Integer> folder, Optional<Set<Integer>> folders) {
        return folders.filter(some -> some.size() <= FEW).map(folder::in).orElseGet(DSL::noCondition);
    }

    private static Only entry(Record4<Integer, byte[], Long, byte[]> row) {
        return new Only(
                row.value1(),
                PathBytes.shown(row.value2()),
                row.value3(),
                Base64.getEncoder().encodeToString(row.value4()));
    }
}
