package org.vastshelf.app.saving;

import static org.vastshelf.app.store.generated.Tables.FILE;
import static org.vastshelf.app.store.generated.Tables.FOLDER;
import static org.vastshelf.app.store.generated.Tables.SAVING_RUN;

import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Function;
import java.util.stream.Collectors;
import org.jooq.DSLContext;
import org.jooq.impl.DSL;
import org.springframework.stereotype.Component;
import org.vastshelf.app.catalogue.PathBytes;
import org.vastshelf.app.content.ContentsCode;
import org.vastshelf.app.saving.SavingRun.Method;
import org.vastshelf.app.saving.SavingRun.State;
import org.vastshelf.app.store.Times;
import org.vastshelf.app.store.generated.tables.records.SavingRunRecord;
import org.vastshelf.core.catalogue.FileKind;
import org.vastshelf.core.content.Contents;
import org.vastshelf.core.saving.MeasuredFile;
import org.vastshelf.core.saving.Savings;
import org.vastshelf.core.tier.AgeBand;

/** Keeps measurements, and finds the files that they read. */
@Component
class SavingStore {

    private final DSLContext db;

    SavingStore(DSLContext db) {
        this.db = db;
    }

    long add(int catalogue, SavingRun.Wanted wanted, String who, Instant now) {
        return db.insertInto(SAVING_RUN)
                .set(SAVING_RUN.CATALOGUE_NO, catalogue)
                .set(SAVING_RUN.METHOD, wanted.method().name())
                .set(SAVING_RUN.CHUNK_BYTES, wanted.chunkBytes())
                .set(SAVING_RUN.PACKING, wanted.packing().name())
                .set(SAVING_RUN.DEPTH, wanted.depth())
                .set(SAVING_RUN.MIBPS, wanted.mibps())
                .set(SAVING_RUN.SECONDS, wanted.seconds())
                .set(SAVING_RUN.STATE, State.RUNNING.name())
                .set(SAVING_RUN.PROBLEM, "")
                .set(SAVING_RUN.FILES, 0L)
                .set(SAVING_RUN.UNREADABLE, 0L)
                .set(SAVING_RUN.BYTES, 0L)
                .set(SAVING_RUN.UNIQUE_BYTES, 0L)
                .set(SAVING_RUN.ERROR_BYTES, 0L)
                .set(SAVING_RUN.ASKED_BY, who)
                .set(SAVING_RUN.BEGUN_AT, Times.stored(now))
                .returningResult(SAVING_RUN.ID)
                .fetchSingle()
                .value1();
    }

    Optional<SavingRun> find(int catalogue, long id) {
        return db.selectFrom(SAVING_RUN)
                .where(SAVING_RUN.CATALOGUE_NO.eq(catalogue), SAVING_RUN.ID.eq(id))
                .fetchOptional(SavingStore::run);
    }

    /** Of a catalogue, newest first. */
    List<SavingRun> of(int catalogue, int most) {
        return db.selectFrom(SAVING_RUN)
                .where(SAVING_RUN.CATALOGUE_NO.eq(catalogue))
                .orderBy(SAVING_RUN.ID.desc())
                .limit(most)
                .fetch(SavingStore::run);
    }

    /** The last of each catalogue that has come to its end. */
    Map<Integer, SavingRun> latest() {
        return db
                .selectFrom(SAVING_RUN)
                .where(SAVING_RUN.ID.in(DSL.select(DSL.max(SAVING_RUN.ID))
                        .from(SAVING_RUN)
                        .where(SAVING_RUN.STATE.eq(State.DONE.name()))
                        .groupBy(SAVING_RUN.CATALOGUE_NO)))
                .fetch(SavingStore::run)
                .stream()
                .collect(Collectors.toMap(SavingRun::catalogue, Function.identity()));
    }

    List<SavingRun> running() {
        return db.selectFrom(SAVING_RUN)
                .where(SAVING_RUN.STATE.eq(State.RUNNING.name()))
                .fetch(SavingStore::run);
    }

    boolean isRunning(long id) {
        return db.fetchExists(SAVING_RUN, SAVING_RUN.ID.eq(id), SAVING_RUN.STATE.eq(State.RUNNING.name()));
    }

    private static SavingRun run(SavingRunRecord row) {
        return new SavingRun(
                row.getId(),
                row.getCatalogueNo(),
                new SavingRun.Wanted(
                        Method.valueOf(row.getMethod()),
                        row.getChunkBytes(),
                        Packing.valueOf(row.getPacking()),
                        row.getDepth(),
                        row.getMibps(),
                        row.getSeconds()),
                State.valueOf(row.getState()),
                row.getProblem(),
                new Savings(
                        row.getFiles(),
                        row.getBytes(),
                        row.getUniqueBytes(),
                        row.getErrorBytes(),
                        row.getPackedBytes(),
                        row.getPackedError()),
                row.getUnreadable(),
                Times.instant(row.getBegunAt()),
                Optional.ofNullable(row.getEndedAt()).map(Times::instant));
    }

    void progress(long id, Savings savings, long unreadable) {
        db.update(SAVING_RUN)
                .set(SAVING_RUN.FILES, savings.files())
                .set(SAVING_RUN.BYTES, savings.bytes())
                .set(SAVING_RUN.UNIQUE_BYTES, savings.uniqueBytes())
                .set(SAVING_RUN.ERROR_BYTES, savings.standardErrorBytes())
                .set(SAVING_RUN.PACKED_BYTES, savings.packedBytes())
                .set(SAVING_RUN.PACKED_ERROR, savings.packedErrorBytes())
                .set(SAVING_RUN.UNREADABLE, unreadable)
                .where(SAVING_RUN.ID.eq(id))
                .execute();
    }

    /** Sets a state, if it was in another that it can come from; says whether it was. */
    boolean change(long id, List<State> from, State to, String problem, Optional<Instant> ended) {
        return db.update(SAVING_RUN)
                        .set(SAVING_RUN.STATE, to.name())
                        .set(SAVING_RUN.PROBLEM, problem)
                        .set(SAVING_RUN.ENDED_AT, Times.stored(ended.orElse(null)))
                        .where(
                                SAVING_RUN.ID.eq(id),
                                SAVING_RUN.STATE.in(
                                        from.stream().map(State::name).toList()))
                        .execute()
                > 0;
    }

    /**
     * A file that is to be read.
     *
     * @param contents of one on a simulated server
     * @param modified seconds since 1970
     */
    record Entry(int folder, byte[] folderPath, byte[] name, Contents contents, FileKind kind, long modified) {

        MeasuredFile measured(Instant now) {
            String path = PathBytes.shown(PathBytes.child(folderPath, name));
            int behind = path.indexOf('/', 1);
            long days = Math.floorDiv(now.getEpochSecond() - modified, 86_400L);
            return new MeasuredFile(
                    kind.name(),
                    behind < 0 ? "/" : path.substring(0, behind),
                    AgeBand.of(days).name(),
                    FoundStore.key(folder, name),
                    path);
        }
    }

    /** Files behind a place in the order of their folders' numbers and their names; hard links once. */
    List<Entry> behind(int catalogue, int folder, byte[] name, int most) {
        return db.select(FILE.FOLDER_NO, FOLDER.PATH, FILE.NAME, FILE.EXTENTS, FILE.KIND, FILE.MODIFIED_AT)
                .from(FILE)
                .join(FOLDER)
                .on(FOLDER.CATALOGUE_NO.eq(FILE.CATALOGUE_NO), FOLDER.NO.eq(FILE.FOLDER_NO))
                .where(
                        FILE.CATALOGUE_NO.eq(catalogue),
                        // Ranges of the key, where a comparison of rows would begin at the folder's first file.
                        FILE.FOLDER_NO.gt(folder).or(FILE.FOLDER_NO.eq(folder).and(FILE.NAME.gt(name))),
                        FILE.COUNTED.eq(1))
                .orderBy(FILE.FOLDER_NO, FILE.NAME)
                .limit(most)
                .fetch(row -> new Entry(
                        row.value1(),
                        row.value2(),
                        row.value3(),
                        ContentsCode.read(row.value4()),
                        FileKind.values()[row.value5()],
                        row.value6()));
    }
}
