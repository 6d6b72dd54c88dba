package org.vastshelf.app.road;

import static org.vastshelf.app.store.generated.Tables.FILE;

import java.nio.ByteBuffer;
import java.util.Collection;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.stream.Collectors;
import org.jooq.Condition;
import org.jooq.DSLContext;
import org.jooq.Row2;
import org.jooq.impl.DSL;
import org.springframework.stereotype.Component;
import org.vastshelf.app.catalogue.PathBytes;
import org.vastshelf.app.store.Handfuls;
import org.vastshelf.app.store.ValuesStore;
import org.vastshelf.core.estate.FilePath;
import org.vastshelf.core.estate.Volume;

/** Many files that are found by their folders and names, in few statements. */
@Component
class NamedStore {

    private final DSLContext db;

    NamedStore(DSLContext db) {
        this.db = db;
    }

    /** A file by its folder and its name there. */
    record Named(int catalogue, int folder, ByteBuffer name) {

        Named(int catalogue, int folder, FilePath path) {
            this(catalogue, folder, ByteBuffer.wrap(PathBytes.of(path.name())));
        }

        private ValuesStore into(ValuesStore values) {
            return values.numbers(folder).then(",").bytes(name.array());
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
        for (List<Named> some : Handfuls.of(asked)) {
            ValuesStore ask =
                    new ValuesStore("SELECT catalogue_no, folder_no, name FROM file FORCE INDEX (PRIMARY) WHERE ");
            Map<Integer, List<Named>> byCatalogue = some.stream().collect(Collectors.groupingBy(Named::catalogue));
            ask.each(byCatalogue.entrySet(), " OR ", of -> {
                ask.then("catalogue_no = ").numbers(of.getKey()).then(" AND (folder_no, name) IN (");
                ask.each(of.getValue(), ",", one -> one.into(ask.then("(")).then(")"));
                ask.then(")");
            });
            ask.read(db, row -> there.add(new Named(row.getInt(1), row.getInt(2), ByteBuffer.wrap(row.getBytes(3)))));
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
        for (List<Named> some : Handfuls.of(asked)) {
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
        for (List<Named> some : Handfuls.of(times.keySet())) {
            // The first of them names the columns.
            ValuesStore used = new ValuesStore("UPDATE file FORCE INDEX (PRIMARY) JOIN (SELECT 0 AS in_catalogue,"
                    + " -1 AS in_folder, x'' AS called, 0 AS used_at");
            some.forEach(one -> one.into(used.then(" UNION ALL SELECT ")
                            .numbers(one.catalogue)
                            .then(","))
                    .then(",")
                    .numbers(times.get(one)));
            used.then(") AS used ON catalogue_no = in_catalogue AND folder_no = in_folder AND name = called"
                            + " SET accessed_at = used_at")
                    .execute(db);
        }
    }
}
