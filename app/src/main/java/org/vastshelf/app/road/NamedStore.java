package org.vastshelf.app.road;

import static org.vastshelf.app.store.generated.Tables.FILE;

import java.nio.ByteBuffer;
import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.stream.Collectors;
import org.jooq.CaseConditionStep;
import org.jooq.Condition;
import org.jooq.DSLContext;
import org.jooq.Row2;
import org.jooq.impl.DSL;
import org.springframework.stereotype.Component;
import org.vastshelf.app.catalogue.PathBytes;
import org.vastshelf.core.estate.FilePath;
import org.vastshelf.core.estate.Volume;

/** Many files that are found by their folders and names, in few statements. */
@Component
class NamedStore {

    private static final int AT_ONCE = 1_000;

    private final DSLContext db;

    NamedStore(DSLContext db) {
        this.db = db;
    }

    /** A file by its folder and its name there. */
    record Named(int catalogue, int folder, ByteBuffer name) {

        Named(int catalogue, int folder, FilePath path) {
            this(catalogue, folder, ByteBuffer.wrap(PathBytes.of(path.name())));
        }

        private Condition is() {
            return FILE.CATALOGUE_NO
                    .eq(catalogue)
                    .and(FILE.FOLDER_NO.eq(folder))
                    .and(FILE.NAME.eq(name.array()));
        }

        static Named of(RoadStore.Place place, FilePath path) {
            return new Named(place.catalogue(), place.folder(), path);
        }
    }

    /** None of these may be a file. */
    void requireNone(Collection<Named> some) {
        there(some).stream().findFirst().ifPresent(found -> {
            throw new Taken("'" + PathBytes.shown(found.name.array()) + "' is a file, and can't hold others");
        });
    }

    /** Those of some files that are there. */
    Set<Named> there(Collection<Named> asked) {
        Set<Named> there = new HashSet<>();
        for (List<Named> some : handfuls(asked)) {
            db.select(FILE.CATALOGUE_NO, FILE.FOLDER_NO, FILE.NAME)
                    .from(FILE.forceIndex("PRIMARY"))
                    .where(among(some))
                    .forEach(row -> there.add(new Named(row.value1(), row.value2(), ByteBuffer.wrap(row.value3()))));
        }
        return there;
    }

    /**
     * Those of some files that are there, as they are, locked until the transaction ends.
     *
     * @param volumes by catalogue
     */
    Map<Named, RoadStore.Found> locked(Collection<Named> asked, Map<Integer, Volume> volumes) {
        Map<Named, RoadStore.Found> locked = new HashMap<>();
        for (List<Named> some : handfuls(asked)) {
            db.selectFrom(FILE.forceIndex("PRIMARY"))
                    .where(among(some))
                    .orderBy(FILE.CATALOGUE_NO, FILE.FOLDER_NO, FILE.NAME)
                    .forUpdate()
                    .forEach(row -> locked.put(
                            new Named(row.getCatalogueNo(), row.getFolderNo(), ByteBuffer.wrap(row.getName())),
                            RoadStore.found(row, volumes.get(row.getCatalogueNo()))));
        }
        return locked;
    }

    private static List<List<Named>> handfuls(Collection<Named> asked) {
        List<Named> all = List.copyOf(asked);
        List<List<Named>> handfuls = new ArrayList<>();
        for (int from = 0; from < all.size(); from += AT_ONCE) {
            handfuls.add(all.subList(from, Math.min(all.size(), from + AT_ONCE)));
        }
        return handfuls;
    }

    private static Condition among(List<Named> some) {
        Map<Integer, List<Row2<Integer, byte[]>>> byCatalogue = some.stream()
                .collect(Collectors.groupingBy(
                        Named::catalogue,
                        TreeMap::new,
                        Collectors.mapping(one -> DSL.row(one.folder, one.name.array()), Collectors.toList())));
        return DSL.or(byCatalogue.entrySet().stream()
                .map(of -> FILE.CATALOGUE_NO
                        .eq(of.getKey())
                        .and(DSL.row(FILE.FOLDER_NO, FILE.NAME).in(of.getValue())))
                .toList());
    }

    /** Notes when files were last used, by file in seconds since 1970. */
    void use(Map<Named, Long> times) {
        CaseConditionStep<Long> at = null;
        List<Condition> which = new ArrayList<>();
        for (Map.Entry<Named, Long> time : times.entrySet()) {
            Condition is = time.getKey().is();
            which.add(is);
            at = at == null ? DSL.when(is, time.getValue()) : at.when(is, time.getValue());
        }
        if (at != null) {
            db.update(FILE.forceIndex("PRIMARY"))
                    .set(FILE.ACCESSED_AT, at)
                    .where(DSL.or(which))
                    .execute();
        }
    }
}
