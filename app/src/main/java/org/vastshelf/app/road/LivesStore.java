package org.vastshelf.app.road;

import static org.vastshelf.app.store.generated.Tables.FILE;
import static org.vastshelf.app.store.generated.Tables.FILE_PAST;
import static org.vastshelf.app.store.generated.Tables.FOLDER;
import static org.vastshelf.app.store.generated.Tables.FOLDER_PAST;
import static org.vastshelf.app.store.generated.Tables.HELD_BLOCK;

import java.util.Collection;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.SortedMap;
import java.util.TreeMap;
import java.util.stream.Collectors;
import org.jooq.Condition;
import org.jooq.DSLContext;
import org.jooq.impl.DSL;
import org.springframework.stereotype.Component;
import org.vastshelf.app.catalogue.CatalogueStore;
import org.vastshelf.app.catalogue.FileRow;
import org.vastshelf.app.content.ContentsCode;
import org.vastshelf.app.store.ValuesStore;
import org.vastshelf.core.estate.Share;

/** Keeps what files and folders were, and counts the blocks they had, as long as a snapshot holds them. */
@Component
class LivesStore {

    /** Of a file whose blocks are not all as old as its entry. */
    private static final Condition EDITED = DSL.condition("LENGTH({0}) > 0", FILE.BLOCKS);

    private final DSLContext db;
    private final BeginningStore beginning;

    LivesStore(DSLContext db, BeginningStore beginning) {
        this.db = db;
        this.beginning = beginning;
    }

    /** Keeps the folders of a share where they are until the transaction has ended; files may come and go. */
    Epoch holdTree(Share share) {
        return epochs(List.of(share), false).get(share.name());
    }

    /** The same of several, by name. */
    Map<String, Epoch> holdTrees(Collection<Share> shares) {
        return epochs(shares, false);
    }

    /** Lets nobody else change files or folders of a share until the transaction has ended. */
    Epoch lockTree(Share share) {
        return epochs(List.of(share), true).get(share.name());
    }

    void lockTrees(Collection<Share> shares) {
        epochs(shares, true);
    }

    private Map<String, Epoch> epochs(Collection<Share> shares, boolean alone) {
        if (shares.isEmpty()) {
            return Map.of();
        }
        Map<String, Epoch> epochs = read(shares, alone);
        if (epochs.size() < shares.size()) {
            shares.stream()
                    .filter(share -> !epochs.containsKey(share.name()))
                    .sorted(Comparator.comparing(Share::name))
                    .forEach(beginning::begin);
            return read(shares, alone);
        }
        return epochs;
    }

    /** In the order of their names, in which everybody locks several. */
    private Map<String, Epoch> read(Collection<Share> shares, boolean alone) {
        Map<String, String> volumes = shares.stream().collect(Collectors.toMap(Share::name, Share::volume));
        Map<String, Epoch> epochs = new HashMap<>();
        ValuesStore ask = new ValuesStore("SELECT share, volume, epoch, newest FROM file_tree WHERE share IN (");
        ask.each(volumes.keySet(), ",", ask::text)
                .then(") ORDER BY share ")
                .then(alone ? "FOR UPDATE" : "LOCK IN SHARE MODE")
                .read(db, row -> {
                    String share = row.getString(1);
                    if (row.getString(2).equals(volumes.get(share))) {
                        epochs.put(share, new Epoch(row.getInt(3), row.getInt(4)));
                    }
                });
        return epochs;
    }

    /** Keeps a file as it was. */
    void past(RoadStore.Place place, RoadStore.Found was, Epoch epoch) {
        FileRow file = was.row();
        db.insertInto(FILE_PAST)
                .set(FILE_PAST.CATALOGUE_NO, place.catalogue())
                .set(FILE_PAST.FOLDER_NO, place.folder())
                .set(FILE_PAST.NAME, file.name())
                .set(FILE_PAST.DIED, epoch.newest())
                .set(FILE_PAST.BORN, was.lived().born())
                .set(FILE_PAST.BYTES, file.bytes())
                .set(FILE_PAST.ALLOCATED, file.allocated())
                .set(FILE_PAST.OWNER, file.owner())
                .set(FILE_PAST.OWNER_GROUP, file.group())
                .set(FILE_PAST.MODIFIED_AT, file.modified())
                .set(FILE_PAST.ACCESSED_AT, file.accessed())
                .set(FILE_PAST.CHANGED_AT, file.changed())
                .set(FILE_PAST.KIND, file.kind().ordinal())
                .set(FILE_PAST.EXTENTS, ContentsCode.write(was.contents()))
                .set(FILE_PAST.COMMON, was.lived().common())
                .execute();
    }

    /** Keeps the files of folders as they were before they went. */
    void filesGone(int catalogue, List<Integer> folders, Epoch epoch) {
        if (epoch.newest() == 0) {
            return;
        }
        db.insertInto(FILE_PAST)
                .columns(
                        FILE_PAST.CATALOGUE_NO,
                        FILE_PAST.FOLDER_NO,
                        FILE_PAST.NAME,
                        FILE_PAST.DIED,
                        FILE_PAST.BORN,
                        FILE_PAST.BYTES,
                        FILE_PAST.ALLOCATED,
                        FILE_PAST.OWNER,
                        FILE_PAST.OWNER_GROUP,
                        FILE_PAST.MODIFIED_AT,
                        FILE_PAST.ACCESSED_AT,
                        FILE_PAST.CHANGED_AT,
                        FILE_PAST.KIND,
                        FILE_PAST.EXTENTS,
                        FILE_PAST.COMMON)
                .select(DSL.select(
                                FILE.CATALOGUE_NO,
                                FILE.FOLDER_NO,
                                FILE.NAME,
                                DSL.val(epoch.newest()),
                                FILE.BORN,
                                FILE.BYTES,
                                FILE.ALLOCATED,
                                FILE.OWNER,
                                FILE.OWNER_GROUP,
                                FILE.MODIFIED_AT,
                                FILE.ACCESSED_AT,
                                FILE.CHANGED_AT,
                                FILE.KIND,
                                FILE.EXTENTS,
                                FILE.COMMON)
                        .from(FILE)
                        .where(
                                FILE.CATALOGUE_NO.eq(catalogue),
                                FILE.FOLDER_NO.in(folders),
                                FILE.BORN.lt(epoch.newest())))
                .execute();
    }

    /** Keeps folders as they were before they went, or went elsewhere. */
    void foldersGone(int catalogue, List<Integer> folders, Epoch epoch) {
        if (epoch.newest() == 0) {
            return;
        }
        db.insertInto(FOLDER_PAST)
                .columns(
                        FOLDER_PAST.CATALOGUE_NO,
                        FOLDER_PAST.NO,
                        FOLDER_PAST.DIED,
                        FOLDER_PAST.BORN,
                        FOLDER_PAST.PARENT_NO,
                        FOLDER_PAST.NAME)
                .select(DSL.select(
                                FOLDER.CATALOGUE_NO,
                                FOLDER.NO,
                                DSL.val(epoch.newest()),
                                FOLDER.BORN,
                                FOLDER.PARENT_NO,
                                CatalogueStore.FOLDER_NAME)
                        .from(FOLDER)
                        .where(
                                FOLDER.CATALOGUE_NO.eq(catalogue),
                                FOLDER.NO.in(folders),
                                FOLDER.BORN.lt(epoch.newest())))
                .execute();
    }

    /** Gives a folder a birth, when it got its name. */
    void named(int catalogue, int folder, Epoch epoch) {
        db.update(FOLDER)
                .set(FOLDER.BORN, epoch.taken())
                .where(FOLDER.CATALOGUE_NO.eq(catalogue), FOLDER.NO.eq(folder))
                .execute();
    }

    /** How many blocks the files of folders take, by their births. */
    SortedMap<Integer, Long> blocks(int catalogue, List<Integer> folders, long block) {
        Condition there = FILE.CATALOGUE_NO.eq(catalogue).and(FILE.FOLDER_NO.in(folders));
        SortedMap<Integer, Long> blocks = new TreeMap<>();
        boolean edited = false;
        for (var row : db.select(FILE.BORN, DSL.field(EDITED), DSL.sum(FILE.ALLOCATED))
                .from(FILE)
                .where(there)
                .groupBy(FILE.BORN, DSL.field(EDITED))) {
            edited |= row.value2();
            if (!row.value2()) {
                blocks.merge(row.value1(), row.value3().longValueExact() / block, Long::sum);
            }
        }
        if (edited) {
            db.select(FILE.BORN, FILE.ALLOCATED, FILE.BLOCKS)
                    .from(FILE)
                    .where(there, EDITED)
                    .forEach(row -> LivesCode.read(row.value3(), row.value1(), row.value2() / block)
                            .byBirth()
                            .forEach((born, count) -> blocks.merge(born, count, Long::sum)));
        }
        return blocks;
    }

    /** Counts bytes that are held from now on, by birth. */
    void hold(String volume, Map<Integer, Long> bytes, Epoch epoch) {
        bytes.forEach((born, more) -> db.insertInto(HELD_BLOCK)
                .set(HELD_BLOCK.VOLUME, volume)
                .set(HELD_BLOCK.BORN, born)
                .set(HELD_BLOCK.DIED, epoch.newest())
                .set(HELD_BLOCK.BYTES, more)
                .onDuplicateKeyUpdate()
                .set(HELD_BLOCK.BYTES, HELD_BLOCK.BYTES.plus(more))
                .execute());
    }
}
