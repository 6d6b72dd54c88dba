package org.vastshelf.app.saving;

import static org.vastshelf.app.store.generated.Tables.COMMON_RUN;

import java.time.Instant;
import java.util.List;
import java.util.Optional;
import org.jooq.DSLContext;
import org.springframework.stereotype.Component;
import org.vastshelf.app.road.TakingIn;
import org.vastshelf.app.store.Times;
import org.vastshelf.app.store.generated.tables.records.CommonRunRecord;

/** Keeps runs of saving rules. */
@Component
class CommonRunStore {

    private final DSLContext db;

    CommonRunStore(DSLContext db) {
        this.db = db;
    }

    /** The run of a volume that is under way; nobody else goes on with it before the transaction has ended. */
    Optional<CommonRun> running(String volume) {
        return db.selectFrom(COMMON_RUN)
                .where(COMMON_RUN.RUNNING.eq(volume))
                .forUpdate()
                .fetchOptional(CommonRunStore::run);
    }

    CommonRun begin(String volume, Instant at) {
        db.insertInto(COMMON_RUN)
                .set(COMMON_RUN.VOLUME, volume)
                .set(COMMON_RUN.STATE, CommonRun.State.RUNNING.name())
                .set(COMMON_RUN.PROBLEM, "")
                .set(COMMON_RUN.FILES, 0L)
                .set(COMMON_RUN.BYTES, 0L)
                .set(COMMON_RUN.SAVED, 0L)
                .set(COMMON_RUN.BEGUN_AT, Times.stored(at))
                .set(COMMON_RUN.SHARE, "")
                .set(COMMON_RUN.FOLDER_NO, TakingIn.Place.START.folder())
                .set(COMMON_RUN.NAME, TakingIn.Place.START.name())
                .set(COMMON_RUN.RUNNING, volume)
                .execute();
        return running(volume).orElseThrow();
    }

    /** Counts what was done, and where it goes on. */
    void goOn(long id, TakingIn.Done done, String share, TakingIn.Place place) {
        db.update(COMMON_RUN)
                .set(COMMON_RUN.FILES, COMMON_RUN.FILES.plus(done.files()))
                .set(COMMON_RUN.BYTES, COMMON_RUN.BYTES.plus(done.bytes()))
                .set(COMMON_RUN.SAVED, COMMON_RUN.SAVED.plus(done.saved()))
                .set(COMMON_RUN.SHARE, share)
                .set(COMMON_RUN.FOLDER_NO, place.folder())
                .set(COMMON_RUN.NAME, place.name())
                .where(COMMON_RUN.ID.eq(id))
                .execute();
    }

    /** Ends the run of a volume that is under way; says whether there was one. */
    boolean end(String volume, CommonRun.State state, String problem, Instant at) {
        return db.update(COMMON_RUN)
                        .set(COMMON_RUN.STATE, state.name())
                        .set(COMMON_RUN.PROBLEM, problem)
                        .set(COMMON_RUN.ENDED_AT, Times.stored(at))
                        .setNull(COMMON_RUN.RUNNING)
                        .where(COMMON_RUN.RUNNING.eq(volume))
                        .execute()
                > 0;
    }

    /** Of a volume, the newest first. */
    List<CommonRun> of(String volume, int most) {
        return db.selectFrom(COMMON_RUN)
                .where(COMMON_RUN.VOLUME.eq(volume))
                .orderBy(COMMON_RUN.ID.desc())
                .limit(most)
                .fetch(CommonRunStore::run);
    }

    private static CommonRun run(CommonRunRecord row) {
        return new CommonRun(
                row.getId(),
                row.getVolume(),
                CommonRun.State.valueOf(row.getState()),
                row.getProblem(),
                row.getFiles(),
                row.getBytes(),
                row.getSaved(),
                Times.instant(row.getBegunAt()),
                Optional.ofNullable(row.getEndedAt()).map(Times::instant),
                row.getShare(),
                new TakingIn.Place(row.getFolderNo(), row.getName()));
    }
}
