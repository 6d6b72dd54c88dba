package org.vastshelf.app.road;

import static org.vastshelf.app.store.generated.Tables.CATALOGUE;
import static org.vastshelf.app.store.generated.Tables.FOLDER;

import java.util.ArrayList;
import java.util.Collection;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.SortedSet;
import java.util.TreeMap;
import java.util.TreeSet;
import java.util.stream.Collectors;
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
        return made(Map.of(share, folders), Map.of(share, epoch)).get(share);
    }

    /** The same for several shares. */
    Map<String, Map<FilePath, RoadStore.Place>> made(
            Map<String, ? extends Collection<FilePath>> folders, Map<String, Epoch> epochs) {
        Map<String, Integer> catalogues = catalogues(epochs);
        List<Wanted> wanted = folders.entrySet().stream()
                .map(of -> Wanted.of(catalogues.get(of.getKey()), of.getValue(), epochs.get(of.getKey())))
                .sorted(Comparator.comparing(Wanted::catalogue))
                .toList();
        find(wanted);
        List<Wanted> lacking = wanted.stream().filter(Wanted::isLacking).toList();
        if (!lacking.isEmpty()) {
            make(lacking);
        }
        Map<Integer, Wanted> byCatalogue = wanted.stream().collect(Collectors.toMap(Wanted::catalogue, w -> w));
        Map<String, Map<FilePath, RoadStore.Place>> places = new HashMap<>();
        folders.forEach((share, of) ->
                places.put(share, byCatalogue.get(catalogues.get(share)).places(of)));
        return places;
    }

    /** Folders of one share, of which some have a number. */
    private record Wanted(int catalogue, SortedSet<FilePath> all, Epoch epoch, Map<FilePath, Integer> numbers) {

        static Wanted of(int catalogue, Collection<FilePath> folders, Epoch epoch) {
            SortedSet<FilePath> all = new TreeSet<>(Comparator.comparing(FilePath::text));
            folders.forEach(folder -> {
                all.add(folder);
                all.addAll(folder.ancestors());
            });
            return new Wanted(catalogue, all, epoch, new HashMap<>());
        }

        boolean isLacking() {
            return numbers.size() < all.size();
        }

        Map<FilePath, RoadStore.Place> places(Collection<FilePath> folders) {
            Map<FilePath, RoadStore.Place> places = new HashMap<>();
            for (FilePath folder : folders) {
                List<Integer> along = new ArrayList<>();
                folder.ancestors().forEach(above -> along.add(numbers.get(above)));
                along.add(numbers.get(folder));
                places.put(folder, new RoadStore.Place(catalogue, along, true, false));
            }
            return places;
        }
    }

    private Map<String, Integer> catalogues(Map<String, Epoch> epochs) {
        FilePath inRoot = new FilePath("/x");
        Map<String, Integer> found = db.select(CATALOGUE.NAME, CATALOGUE.NO)
                .from(CATALOGUE)
                .where(CATALOGUE.NAME.in(epochs.keySet()))
                .fetchMap(CATALOGUE.NAME, CATALOGUE.NO);
        epochs.forEach((share, epoch) -> found.computeIfAbsent(
                share,
                none -> files.made(share, inRoot, Optional.empty(), epoch).catalogue()));
        return found;
    }

    private static byte[] hash(FilePath folder) {
        return PathBytes.hash(PathBytes.of(folder.text()));
    }

    private void find(List<Wanted> wanted) {
        Map<Integer, Wanted> byCatalogue = wanted.stream().collect(Collectors.toMap(Wanted::catalogue, w -> w));
        db.select(FOLDER.CATALOGUE_NO, FOLDER.PATH, FOLDER.NO)
                // Of many it would rather read all that there are.
                .from(FOLDER.forceIndex("folder_by_hash"))
                .where(DSL.or(wanted.stream()
                        .map(w -> FOLDER.CATALOGUE_NO
                                .eq(w.catalogue)
                                .and(FOLDER.PATH_HASH.in(
                                        w.all.stream().map(PlacesStore::hash).toList())))
                        .toList()))
                .forEach(row -> {
                    Wanted of = byCatalogue.get(row.value1());
                    FilePath path = new FilePath(PathBytes.shown(row.value2()));
                    if (of.all.contains(path)) {
                        of.numbers.put(path, row.value3());
                    }
                });
    }

    /** Makes those that are missing, the outer ones first. */
    private void make(List<Wanted> lacking) {
        Map<Integer, Integer> next = db.select(CATALOGUE.NO, CATALOGUE.NEXT_FOLDER)
                .from(CATALOGUE)
                .where(CATALOGUE.NO.in(lacking.stream().map(Wanted::catalogue).toList()))
                .orderBy(CATALOGUE.NO)
                .forUpdate()
                .fetchMap(CATALOGUE.NO, CATALOGUE.NEXT_FOLDER);
        // Somebody may have made some before this had the catalogues to itself.
        find(lacking);
        List<Row10<Integer, Integer, Integer, Integer, byte[], byte[], Long, Long, Long, Integer>> rows =
                new ArrayList<>();
        Map<Integer, List<Row2<Integer, byte[]>>> keys = new TreeMap<>();
        for (Wanted of : lacking) {
            for (FilePath folder : of.all) {
                if (!of.numbers.containsKey(folder)) {
                    int parent = folder.isRoot() ? 0 : of.numbers.get(folder.parent());
                    int no = next.merge(of.catalogue, 1, Integer::sum) - 1;
                    if (!folder.isRoot()) {
                        keys.computeIfAbsent(of.catalogue, none -> new ArrayList<>())
                                .add(DSL.row(parent, PathBytes.of(folder.name())));
                    }
                    byte[] path = PathBytes.of(folder.text());
                    int depth = folder.parts().size();
                    rows.add(
                            DSL.row(of.catalogue, no, parent, depth, hash(folder), path, 0L, 0L, 0L, of.epoch.taken()));
                    of.numbers.put(folder, no);
                }
            }
        }
        files.requireNoFiles(keys);
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
                .set(CATALOGUE.NEXT_FOLDER, DSL.case_(CATALOGUE.NO).mapValues(next))
                .where(CATALOGUE.NO.in(next.keySet()))
                .execute();
    }
}
