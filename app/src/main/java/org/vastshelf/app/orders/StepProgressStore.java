package org.vastshelf.app.orders;

import static org.vastshelf.app.store.generated.Tables.STEP_PROGRESS;

import org.jooq.DSLContext;
import org.springframework.stereotype.Component;
import org.vastshelf.app.catalogue.PathBytes;
import org.vastshelf.core.unit.ShortText;

/** Keeps how far a step got that is done in portions. */
@Component
public class StepProgressStore {

    private static final int LONGEST_REASON = 500;

    private final DSLContext db;

    StepProgressStore(DSLContext db) {
        this.db = db;
    }

    /**
     * How far it got.
     *
     * @param at path of the last folder that was done; empty for none yet
     * @param refused files that the gate did not let pass, of which the first had this reason
     */
    public record Progress(String at, long files, long bytes, long refused, String reason) {
        public static final Progress NONE = new Progress("", 0, 0, 0, "");
    }

    public Progress of(long order, int position) {
        return db.selectFrom(STEP_PROGRESS)
                .where(STEP_PROGRESS.ORDER_NO.eq(order), STEP_PROGRESS.POSITION.eq(position))
                .fetchOptional(row -> new Progress(
                        PathBytes.shown(row.getAtPath()),
                        row.getFiles(),
                        row.getBytes(),
                        row.getRefused(),
                        row.getReason()))
                .orElse(Progress.NONE);
    }

    public void note(long order, int position, Progress progress) {
        db.insertInto(STEP_PROGRESS)
                .set(STEP_PROGRESS.ORDER_NO, order)
                .set(STEP_PROGRESS.POSITION, position)
                .set(STEP_PROGRESS.AT_PATH, PathBytes.of(progress.at))
                .set(STEP_PROGRESS.FILES, progress.files)
                .set(STEP_PROGRESS.BYTES, progress.bytes)
                .set(STEP_PROGRESS.REFUSED, progress.refused)
                .set(STEP_PROGRESS.REASON, ShortText.of(progress.reason, LONGEST_REASON))
                .onDuplicateKeyUpdate()
                .setAllToExcluded()
                .execute();
    }

    public void forget(long order, int position) {
        db.deleteFrom(STEP_PROGRESS)
                .where(STEP_PROGRESS.ORDER_NO.eq(order), STEP_PROGRESS.POSITION.eq(position))
                .execute();
    }
}
