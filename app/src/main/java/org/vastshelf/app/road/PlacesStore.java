package org.vastshelf.app.road;

import static org.vastshelf.app.store.generated.Tables.CATALOGUE;
import static org.vastshelf.app.store.generated.Tables.FOLDER;

import java.util.ArrayList;
import java.util.Collection;
import java.util.Comparator;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.SortedSet;
import java.util.TreeMap;
import java.util.TreeSet;
import java.util.stream.Collectors;
import org.jooq.DSLContext;
import org.jooq.Row10;
import org.jooq.impl.DSL;
import org.springframework.stereotype.Component;
import org.vastshelf.app.catalogue.PathBytes;
import org.vastshelf.app.store.ValuesStore;
import org.vastshelf.core.estate.FilePath;

/** Many folders of one share, found and made together. */
@Component
class PlacesStore {

    private final DSLContext db;
    private final RoadStore files;
    private final NamedStore named;

    PlacesStore(DSLContext db, RoadStore files, NamedStore named) {
        this.db = db;
        this.files = files;
        this.named = named;
    }

    /** Where files in these folders lie, by folder; folders are made where they are missing. */
    Map<FilePath, RoadStore.Place> made(String share, Collection<FilePath> folders, Epoch epoch) {
        return made(Map.of(share, folders), Map.of(share, epoch)).get(share).places();
    }

    /**
     * Where files in some folders of a share lie.
     *
     * @param fresh those that were made just now, and hold nothing yet
     */
    record Found(Map<FilePath, RoadStore.Place> places, Set<FilePath> fresh) {}

    /** The same for several shares. */
    Map<String, Found> made(Map<String, ? extends Collection<FilePath>> folders, Map<String, Epoch> epochs) {
        Map<String, Integer> catalogues = catalogues(folders.keySet());
        FilePath inRoot = new FilePath("/x");
        folders.keySet()
                .forEach(share -> catalogues.computeIfAbsent(
                        share,
                        none -> files.made(share, inRoot, Optional.empty(), epochs.get(share))
                                .catalogue()));
        Map<String, Wanted> wanted = found(folders, catalogues);
        Map<String, Wanted> lacking = new TreeMap<>(wanted);
        lacking.values().removeIf(of -> !of.isLacking());
        if (!lacking.isEmpty()) {
            make(lacking, epochs);
        }
        Map<String, Found> all = new HashMap<>();
        wanted.forEach((share, of) -> all.put(share, new Found(of.places(folders.get(share)), of.fresh)));
        return all;
    }

    /** Where files in folders lie that are there, by share and folder. */
    Map<String, Map<FilePath, RoadStore.Place>> there(Map<String, ? extends Collection<FilePath>> folders) {
        Map<String, Map<FilePath, RoadStore.Place>> there = new HashMap<>();
        found(folders, catalogues(folders.keySet()))
                .forEach((share, of) -> there.put(
                        share,
                        of.places(folders.get(share).stream()
                                .filter(of.numbers::containsKey)
                                .toList())));
        return there;
    }

    /**
     * Folders of one share, of which some have a number.
     *
     * @param fresh those that were made just now
     */
    private record Wanted(int catalogue, SortedSet<FilePath> all, Map<FilePath, Integer> numbers, Set<FilePath> fresh) {

        static Wanted of(int catalogue, Collection<FilePath> folders) {
            SortedSet<FilePath> all = new TreeSet<>(Comparator.comparing(FilePath::text));
            folders.forEach(folder -> {
                all.add(folder);
                all.addAll(folder.ancestors());
            });
            return new Wanted(catalogue, all, new HashMap<>(), new HashSet<>());
        }

        List<FilePath> unknown() {
            return all.stream().filter(folder -> !numbers.containsKey(folder)).toList();
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

    private Map<String, Integer> catalogues(Set<String> shares) {
        return db.select(CATALOGUE.NAME, CATALOGUE.NO)
                .from(CATALOGUE)
                .where(CATALOGUE.NAME.in(shares))
                .fetchMap(CATALOGUE.NAME, CATALOGUE.NO);
    }

    private Map<String, Wanted> found(
            Map<String, ? extends Collection<FilePath>> folders, Map<String, Integer> catalogues) {
        Map<String, Wanted> wanted = new TreeMap<>();
        catalogues.forEach((share, catalogue) -> wanted.put(share, Wanted.of(catalogue, folders.get(share))));
        find(wanted.values());
        return wanted;
    }

    private static byte[] hash(FilePath folder) {
        return PathBytes.hash(PathBytes.of(folder.text()));
    }

    private void find(Collection<Wanted> wanted) {
        Map<Integer, Wanted> byCatalogue =
                wanted.stream().filter(Wanted::isLacking).collect(Collectors.toMap(Wanted::catalogue, w -> w));
        if (byCatalogue.isEmpty()) {
            return;
        }
        // Of many it would rather read all that there are.
        ValuesStore ask =
                new ValuesStore("SELECT catalogue_no, path, no FROM folder FORCE INDEX (folder_by_hash) WHERE ");
        ask.each(byCatalogue.values(), " OR ", w -> {
            ask.then("catalogue_no = ").numbers(w.catalogue).then(" AND path_hash IN (");
            ask.each(w.unknown(), ",", folder -> ask.bytes(hash(folder))).then(")");
        });
        ask.read(db, row -> {
            Wanted of = byCatalogue.get(row.getInt(1));
            FilePath path = new FilePath(PathBytes.shown(row.getBytes(2)));
            if (of.all.contains(path)) {
                of.numbers.put(path, row.getInt(3));
            }
        });
    }

    /** Makes those that are missing, the outer ones first. */
    private void make(Map<String, Wanted> lacking, Map<String, Epoch> epochs) {
        Map<Integer, Integer> next = db.select(CATALOGUE.NO, CATALOGUE.NEXT_FOLDER)
                .from(CATALOGUE)
                .where(CATALOGUE.NO.in(
                        lacking.values().stream().map(Wanted::catalogue).toList()))
                .orderBy(CATALOGUE.NO)
                .forUpdate()
                .fetchMap(CATALOGUE.NO, CATALOGUE.NEXT_FOLDER);
        // Somebody may have made some before this had the catalogues to itself.
        find(lacking.values());
        List<Row10<Integer, Integer, Integer, Integer, byte[], byte[], Long, Long, Long, Integer>> rows =
                new ArrayList<>();
        List<NamedStore.Named> asFiles = new ArrayList<>();
        lacking.forEach((share, of) -> {
            int born = epochs.get(share).taken();
            for (FilePath folder : of.unknown()) {
                int parent = folder.isRoot() ? 0 : of.numbers.get(folder.parent());
                int no = next.merge(of.catalogue, 1, Integer::sum) - 1;
                if (!folder.isRoot() && !of.fresh.contains(folder.parent())) {
                    asFiles.add(new NamedStore.Named(of.catalogue, parent, folder));
                }
                byte[] path = PathBytes.of(folder.text());
                int depth = folder.parts().size();
                rows.add(DSL.row(of.catalogue, no, parent, depth, hash(folder), path, 0L, 0L, 0L, born));
                of.numbers.put(folder, no);
                of.fresh.add(folder);
            }
        });
        if (rows.isEmpty()) {
            return;
        }
        named.requireNone(asFiles);
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
