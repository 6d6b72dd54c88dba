package org.vastshelf.app.spare;

import static org.vastshelf.app.store.generated.Tables.AGE_FOLDER;
import static org.vastshelf.app.store.generated.Tables.CATALOGUE;

import java.nio.charset.StandardCharsets;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import org.jooq.DSLContext;
import org.jooq.impl.DSL;
import org.springframework.stereotype.Component;
import org.vastshelf.app.spare.AgeCountStore.Cell;
import org.vastshelf.app.store.LoadStore;
import org.vastshelf.core.spare.Ages;
import org.vastshelf.core.tier.FileSum;

/** Keeps how old what lies in the outermost folders of shares is, by the last night. */
@Component
class AgeFolderStore {

    /** Folders of a share that are told apart, those that take most. */
    static final int MOST = 2_000;

    /** All other folders together. */
    private static final String OTHERS = "";

    private final DSLContext db;

    AgeFolderStore(DSLContext db) {
        this.db = db;
    }

    /** Of catalogues that are gone nothing stays. */
    void removeStrangers() {
        db.deleteFrom(AGE_FOLDER)
                .where(AGE_FOLDER.CATALOGUE_NO.notIn(DSL.select(CATALOGUE.NO).from(CATALOGUE)))
                .execute();
    }

    /** Takes the place of what was known of a share. */
    void put(int catalogue, Map<String, Map<Cell, Ages.Sum>> folders) {
        db.deleteFrom(AGE_FOLDER).where(AGE_FOLDER.CATALOGUE_NO.eq(catalogue)).execute();
        LoadStore rows = new LoadStore(
                        "age_folder", "catalogue_no,folder,basis,band,files,bytes,allocated,used_files,used_bytes")
                .exactly();
        largest(folders)
                .forEach((folder, cells) -> AgeCountStore.bands(
                        cells,
                        (basis, band, sum) ->
                                AgeCountStore.write(rows.number(catalogue).text(folder), basis, band, sum)));
        db.connection(rows::flush);
    }

    private static Map<String, Map<Cell, Ages.Sum>> largest(Map<String, Map<Cell, Ages.Sum>> folders) {
        List<String> ordered = folders.keySet().stream()
                .sorted(Comparator.<String>comparingLong(folder -> folders.get(folder).values().stream()
                                .mapToLong(Ages.Sum::allocated)
                                .sum())
                        .reversed()
                        .thenComparing(Comparator.naturalOrder()))
                .toList();
        Map<String, Map<Cell, Ages.Sum>> largest = new TreeMap<>();
        for (int i = 0; i < ordered.size(); i++) {
            Map<Cell, Ages.Sum> into =
                    largest.computeIfAbsent(i < MOST ? ordered.get(i) : OTHERS, none -> new HashMap<>());
            folders.get(ordered.get(i)).forEach((cell, sum) -> into.merge(cell, sum, Ages.Sum::plus));
        }
        return largest;
    }

    /** Of a share by folder; the empty one is all others together. */
    Map<String, Ages> of(int catalogue) {
        Map<String, AgesBuilder> builders = new TreeMap<>();
        db.selectFrom(AGE_FOLDER)
                .where(AGE_FOLDER.CATALOGUE_NO.eq(catalogue))
                .forEach(row -> builders.computeIfAbsent(
                                new String(row.getFolder(), StandardCharsets.UTF_8), none -> new AgesBuilder())
                        .add(
                                row.getBasis(),
                                row.getBand(),
                                new Ages.Sum(
                                        new FileSum(row.getFiles(), row.getBytes()),
                                        row.getAllocated(),
                                        new FileSum(row.getUsedFiles(), row.getUsedBytes()))));
        Map<String, Ages> ages = new TreeMap<>();
        builders.forEach((folder, builder) -> ages.put(folder, builder.ages()));
        return ages;
    }
}
