package org.vastshelf.app.saving;

import static org.vastshelf.app.store.generated.Tables.FILE;
import static org.vastshelf.app.store.generated.Tables.FOLDER;
import static org.vastshelf.app.store.generated.Tables.SAVING_GROUP;
import static org.vastshelf.app.store.generated.Tables.SAVING_SHARED;

import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import java.util.stream.IntStream;
import org.jooq.DSLContext;
import org.jooq.impl.DSL;
import org.springframework.stereotype.Component;
import org.vastshelf.app.catalogue.PathBytes;
import org.vastshelf.app.saving.Found.Alike;
import org.vastshelf.core.saving.Breakdown;
import org.vastshelf.core.saving.Breakdown.By;
import org.vastshelf.core.saving.Breakdown.Group;
import org.vastshelf.core.saving.Chunks;
import org.vastshelf.core.saving.Sharing;

/** Keeps where measurements found what they found. */
@Component
class FoundStore {

    /** Groups of one sort that are kept, those with most that is repeated. */
    private static final int MOST_GROUPS = 200;

    private static final int MOST_SHARED = 20;

    private final DSLContext db;

    FoundStore(DSLContext db) {
        this.db = db;
    }

    /** By this a file is found again in its folder. */
    static long key(int folder, byte[] name) {
        return (long) folder << Integer.SIZE | Integer.toUnsignedLong(Arrays.hashCode(name));
    }

    /** Takes the place of what was found so far; part of the caller's transaction. */
    void put(long run, int catalogue, Chunks chunks) {
        db.deleteFrom(SAVING_GROUP).where(SAVING_GROUP.RUN_ID.eq(run)).execute();
        db.deleteFrom(SAVING_SHARED).where(SAVING_SHARED.RUN_ID.eq(run)).execute();
        for (By by : By.values()) {
            put(run, by, chunks.breakdown());
        }
        List<Sharing.Shared> shared = chunks.sharing().most(MOST_SHARED);
        if (!shared.isEmpty()) {
            db.insertInto(
                            SAVING_SHARED,
                            SAVING_SHARED.RUN_ID,
                            SAVING_SHARED.PLACE,
                            SAVING_SHARED.OF,
                            SAVING_SHARED.FILES,
                            SAVING_SHARED.BYTES,
                            SAVING_SHARED.PATHS)
                    .valuesOfRows(IntStream.range(0, shared.size())
                            .mapToObj(i -> {
                                Sharing.Shared one = shared.get(i);
                                byte[] paths = String.join("\n", one.paths()).getBytes(StandardCharsets.UTF_8);
                                return DSL.row(run, i, path(catalogue, one.key()), one.files(), one.bytes(), paths);
                            })
                            .toList())
                    .execute();
        }
    }

    private void put(long run, By by, Breakdown breakdown) {
        List<Group> groups = breakdown.of(by).stream().limit(MOST_GROUPS).toList();
        if (!groups.isEmpty()) {
            db.insertInto(
                            SAVING_GROUP,
                            SAVING_GROUP.RUN_ID,
                            SAVING_GROUP.SORT,
                            SAVING_GROUP.PLACE,
                            SAVING_GROUP.NAME,
                            SAVING_GROUP.FILES,
                            SAVING_GROUP.BYTES,
                            SAVING_GROUP.REPEATED,
                            SAVING_GROUP.PACKED)
                    .valuesOfRows(IntStream.range(0, groups.size())
                            .mapToObj(i -> {
                                Group group = groups.get(i);
                                byte[] name = group.name().getBytes(StandardCharsets.UTF_8);
                                return DSL.row(
                                        run,
                                        by.name(),
                                        i,
                                        name,
                                        group.files(),
                                        group.bytes(),
                                        group.repeated(),
                                        group.packed());
                            })
                            .toList())
                    .execute();
        }
    }

    /** Of the file with a key; empty when it is not there any more. */
    private byte[] path(int catalogue, long key) {
        int folder = (int) (key >> Integer.SIZE);
        return db
                .select(FOLDER.PATH, FILE.NAME)
                .from(FILE)
                .join(FOLDER)
                .on(FOLDER.CATALOGUE_NO.eq(FILE.CATALOGUE_NO), FOLDER.NO.eq(FILE.FOLDER_NO))
                .where(FILE.CATALOGUE_NO.eq(catalogue), FILE.FOLDER_NO.eq(folder))
                .stream()
                .filter(row -> key(folder, row.value2()) == key)
                .findFirst()
                .map(row -> PathBytes.of(PathBytes.shown(PathBytes.child(row.value1(), row.value2()))))
                .orElse(new byte[0]);
    }

    Found of(long run) {
        Map<By, List<Group>> groups = new EnumMap<>(By.class);
        for (By by : By.values()) {
            groups.put(
                    by,
                    db.selectFrom(SAVING_GROUP)
                            .where(SAVING_GROUP.RUN_ID.eq(run), SAVING_GROUP.SORT.eq(by.name()))
                            .orderBy(SAVING_GROUP.PLACE)
                            .fetch(row -> new Group(
                                    text(row.getName()),
                                    row.getFiles(),
                                    row.getBytes(),
                                    row.getRepeated(),
                                    row.getPacked())));
        }
        List<Alike> alike = db.selectFrom(SAVING_SHARED)
                .where(SAVING_SHARED.RUN_ID.eq(run))
                .orderBy(SAVING_SHARED.PLACE)
                .fetch(row -> new Alike(
                        text(row.getOf()),
                        row.getFiles(),
                        row.getBytes(),
                        List.of(text(row.getPaths()).split("\n"))));
        return new Found(groups, alike);
    }

    private static String text(byte[] bytes) {
        return new String(bytes, StandardCharsets.UTF_8);
    }
}
