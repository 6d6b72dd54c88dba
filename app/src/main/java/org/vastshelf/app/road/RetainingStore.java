package org.vastshelf.app.road;

import static org.vastshelf.app.store.generated.Tables.FILE;

import java.time.Instant;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import org.jooq.DSLContext;
import org.jooq.Field;
import org.jooq.impl.DSL;
import org.springframework.stereotype.Component;
import org.vastshelf.app.catalogue.PathBytes;
import org.vastshelf.core.estate.FilePath;
import org.vastshelf.core.estate.RetentionRule.Basis;

/** Finds files that retention rules hold. */
@Component
class RetainingStore {

    /** When a file was made; where nobody knows, when it was last changed. */
    static final Field<Long> CREATED =
            DSL.when(FILE.CREATED_AT.eq(0L), FILE.MODIFIED_AT).otherwise(FILE.CREATED_AT);

    private final DSLContext db;

    RetainingStore(DSLContext db) {
        this.db = db;
    }

    /** When a file was last changed, and made. */
    record Age(Instant changed, Instant created) {
        static Age of(RoadStore.Found file) {
            long changed = file.row().modified();
            return of(changed, file.created() == 0 ? changed : file.created());
        }

        private static Age of(long changed, long created) {
            return new Age(Instant.ofEpochSecond(changed), Instant.ofEpochSecond(created));
        }
    }

    record Aged(FilePath path, Age age) {}

    /** Of the files in folders that were last changed at a moment or before, the one that becomes free last. */
    Optional<Aged> last(int catalogue, List<TreeStore.Branch> folders, Basis basis, Instant changed) {
        Field<Long> order = basis == Basis.CREATED ? CREATED : FILE.MODIFIED_AT;
        Map<Integer, FilePath> paths = new HashMap<>();
        folders.forEach(folder -> paths.put(folder.no(), folder.path()));
        return TreeStore.some(folders).stream()
                .flatMap(some -> db
                        .select(FILE.FOLDER_NO, FILE.NAME, FILE.MODIFIED_AT, CREATED)
                        .from(FILE)
                        .where(
                                FILE.CATALOGUE_NO.eq(catalogue),
                                FILE.FOLDER_NO.in(some),
                                FILE.MODIFIED_AT.le(changed.getEpochSecond()))
                        .orderBy(order.desc())
                        .limit(1)
                        .fetch(row -> new Aged(
                                Objects.requireNonNull(paths.get(row.value1())).child(PathBytes.shown(row.value2())),
                                Age.of(row.value3(), row.value4())))
                        .stream())
                .max(Comparator.comparing(file -> basis == Basis.CREATED ? file.age.created : file.age.changed));
    }
}
