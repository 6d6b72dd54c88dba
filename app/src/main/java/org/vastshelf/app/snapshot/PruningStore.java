package org.vastshelf.app.snapshot;

import static org.vastshelf.app.store.generated.Tables.CATALOGUE;
import static org.vastshelf.app.store.generated.Tables.FILE_PAST;
import static org.vastshelf.app.store.generated.Tables.FILE_TREE;
import static org.vastshelf.app.store.generated.Tables.FOLDER_PAST;
import static org.vastshelf.app.store.generated.Tables.SNAPSHOT;

import java.util.ArrayList;
import java.util.List;
import java.util.NavigableSet;
import java.util.TreeSet;
import org.jooq.DSLContext;
import org.jooq.impl.DSL;
import org.springframework.stereotype.Component;
import org.vastshelf.app.content.ContentsCode;
import org.vastshelf.app.content.KeptStore;
import org.vastshelf.app.store.EstateStore;
import org.vastshelf.app.store.generated.tables.records.FilePastRecord;

/** Finds and removes rows that no snapshot holds. */
@Component
class PruningStore {

    private static final int AT_ONCE = 1_000;

    private final DSLContext db;
    private final EstateStore estates;
    private final KeptStore kept;

    PruningStore(DSLContext db, EstateStore estates, KeptStore kept) {
        this.db = db;
        this.estates = estates;
        this.kept = kept;
    }

    /** Removes some; false when there are none left. */
    boolean pruneSome() {
        // As everybody who changes what is referred to: a check that counts it all has the estate to itself.
        estates.held();
        return db.select(CATALOGUE.NO, CATALOGUE.NAME).from(CATALOGUE).fetch().stream()
                .anyMatch(row -> prune(row.value1(), row.value2()));
    }

    /**
     * Deaths are read first, then the volume, then its snapshots: what is taken or loaded in between is not mistaken for
     * what nobody holds.
     */
    private boolean prune(int catalogue, String share) {
        List<Integer> deaths = deaths(catalogue);
        String volume = db.select(FILE_TREE.VOLUME)
                .from(FILE_TREE)
                .where(FILE_TREE.SHARE.eq(share))
                .fetchOptional(FILE_TREE.VOLUME)
                .orElse("");
        if (deaths.isEmpty() || volume.isEmpty()) {
            return false;
        }
        NavigableSet<Integer> there = new TreeSet<>(db.select(SNAPSHOT.NUMBER)
                .from(SNAPSHOT)
                .where(SNAPSHOT.VOLUME.eq(volume))
                .fetch(SNAPSHOT.NUMBER));
        for (int died : deaths) {
            Integer holder = there.floor(died);
            int born = holder == null ? 0 : holder;
            if (files(catalogue, died, born) + folders(catalogue, died, born) > 0) {
                return true;
            }
        }
        return false;
    }

    private List<Integer> deaths(int catalogue) {
        List<Integer> deaths = new ArrayList<>(db.selectDistinct(FILE_PAST.DIED)
                .from(FILE_PAST)
                .where(FILE_PAST.CATALOGUE_NO.eq(catalogue))
                .fetch(FILE_PAST.DIED));
        deaths.addAll(db.selectDistinct(FOLDER_PAST.DIED)
                .from(FOLDER_PAST)
                .where(FOLDER_PAST.CATALOGUE_NO.eq(catalogue))
                .fetch(FOLDER_PAST.DIED));
        return deaths;
    }

    private int files(int catalogue, int died, int born) {
        List<FilePastRecord> some = db.selectFrom(FILE_PAST)
                .where(FILE_PAST.CATALOGUE_NO.eq(catalogue), FILE_PAST.DIED.eq(died), FILE_PAST.BORN.ge(born))
                .limit(AT_ONCE)
                .forUpdate()
                .fetch();
        if (some.isEmpty()) {
            return 0;
        }
        some.forEach(row -> kept.used(ContentsCode.read(row.getExtents()).kept(), -1));
        return db.deleteFrom(FILE_PAST)
                .where(
                        FILE_PAST.CATALOGUE_NO.eq(catalogue),
                        FILE_PAST.DIED.eq(died),
                        DSL.row(FILE_PAST.FOLDER_NO, FILE_PAST.NAME)
                                .in(some.stream()
                                        .map(row -> DSL.row(row.getFolderNo(), row.getName()))
                                        .toList()))
                .execute();
    }

    private int folders(int catalogue, int died, int born) {
        return db.deleteFrom(FOLDER_PAST)
                .where(FOLDER_PAST.CATALOGUE_NO.eq(catalogue), FOLDER_PAST.DIED.eq(died), FOLDER_PAST.BORN.ge(born))
                .limit(AT_ONCE)
                .execute();
    }
}
