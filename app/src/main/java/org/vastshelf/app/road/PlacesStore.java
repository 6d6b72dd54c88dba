package org.vastshelf.app.road;

import static org.vastshelf.app.store.generated.Tables.CATALOGUE;
import static org.vastshelf.app.store.generated.Tables.FOLDER;

import java.util.ArrayList;
import java.util.Collection;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeSet;
import org.jooq.DSLContext;
import org.jooq.Row10;
import org.jooq.Row2;
import org.jooq.impl.DSL;
import org.springframework.stereotype.Component;
import org.vastshelf.app.catalogue.PathBytes;
import org.vastshelf.core.estate.FilePath;

/** Many folders of one share, found and made together. */
@Component
class PlacesStore {

    private final DSLContext db;
    private final RoadStore files;

    PlacesStore(DSLContext db, RoadStore files) {
        this.db = db;
        this.files = files;
    }

    /** Where files in these folders lie, by folder; folders are made where they are missing. */
    Map<FilePath, RoadStore.Place> made(String share, Collection<FilePath> folders, Epoch epoch) {
        FilePath inRoot = new FilePath("/x");
        int catalogue =
                files.made(share, inRoot, files.place(share, inRoot), epoch).catalogue();
        Set<FilePath> wanted = new TreeSet<>(Comparator.comparing(FilePath::text));
        folders.forEach(folder -> {
            wanted.add(folder);
            wanted.addAll(folder.ancestors());
        });
        Map<FilePath, Integer> numbers = find(catalogue, wanted);
        if (numbers.size() < wanted.size()) {
            numbers = make(catalogue, wanted, epoch);
        }
        Map<FilePath, RoadStore.Place> places = new HashMap<>();
        for (FilePath folder : folders) {
            List<Integer> along = new ArrayList<>();
            for (FilePath above : folder.ancestors()) {
                along.add(numbers.get(above));
            }
            along.add(numbers.get(folder));
            places.put(folder, new RoadStore.Place(catalogue, along, true, false));
        }
        return places;
    }

    private Map<FilePath, Integer> find(int catalogue, Set<FilePath> wanted) {
        List<byte[]> hashes = wanted.stream()
                .map(folder -> PathBytes.hash(PathBytes.of(folder.text())))
                .toList();
        Map<FilePath, Integer> numbers = new HashMap<>();
        db.select(FOLDER.PATH, FOLDER.NO)
                .from(FOLDER)
                .where(FOLDER.CATALOGUE_NO.eq(catalogue), FOLDER.PATH_HASH.in(hashes))
                .forEach(row -> numbers.put(new FilePath(PathBytes.shown(row.value1())), row.value2()));
        numbers.keySet().retainAll(wanted);
        return numbers;
    }

    /** Makes those that are missing, the outer ones first. */
    private Map<FilePath, Integer> make(int catalogue, Set<FilePath> wanted, Epoch epoch) {
        int next = db.select(CATALOGUE.NEXT_FOLDER)
                .from(CATALOGUE)
                .where(CATALOGUE.NO.eq(catalogue))
                .forUpdate()
                .fetchSingle(CATALOGUE.NEXT_FOLDER);
        Map<FilePath, Integer> numbers = find(catalogue, wanted);
        List<Row10<Integer, Integer, Integer, Integer, byte[], byte[], Long, Long, Long, Integer>> rows =
                new ArrayList<>();
        List<Row2<Integer, byte[]>> keys = new ArrayList<>();
        for (FilePath folder : wanted) {
            if (numbers.containsKey(folder)) {
                continue;
            }
            int parent = numbers.get(folder.parent());
            keys.add(DSL.row(parent, PathBytes.of(folder.name())));
            byte[] path = PathBytes.of(folder.text());
            rows.add(DSL.row(
                    catalogue,
                    next,
                    parent,
                    folder.parts().size(),
                    PathBytes.hash(path),
                    path,
                    0L,
                    0L,
                    0L,
                    epoch.taken()));
            numbers.put(folder, next++);
        }
        files.requireNoFiles(catalogue, keys);
        db.insertInto(FOLDER)
                .columns(
                        FOLDER.CATALOGUE_NO,
                        FOLDER.NO,
                        FOLDER.PARENT_NO,
                        FOLDER.DEPTH,
                        FOLDER.PATH_HASH,
                        FOLDER.PATH,
                        FOLDER.SUM_FILES,
                        FOLDER.SUM_BYTES,
                        FOLDER.SUM_ALLOCATED,
                        FOLDER.BORN)
                .valuesOfRows(rows)
                .execute();
        db.update(CATALOGUE)
                .set(CATALOGUE.NEXT_FOLDER, next)
                .where(CATALOGUE.NO.eq(catalogue))
                .execute();
        return numbers;
    }
}
