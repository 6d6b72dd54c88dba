package org.vastshelf.app.store;

import static org.vastshelf.app.store.generated.Tables.REBUILD;
import static org.vastshelf.app.store.generated.Tables.SCRUB;

import java.util.HashMap;
import java.util.Map;
import java.util.Optional;
import java.util.function.Consumer;
import org.jooq.DSLContext;
import org.springframework.stereotype.Component;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.Kinds;
import org.vastshelf.core.estate.Rebuild;
import org.vastshelf.core.estate.Scrub;
import org.vastshelf.core.unit.Bytes;

/** Rebuilds and scrubs: few at a time, written often, read whole. */
@Component
class ProgressStore implements EstatePart {

    private final DSLContext db;

    ProgressStore(DSLContext db) {
        this.db = db;
    }

    @Override
    public Estate read(Estate known, long since) {
        Map<String, Rebuild> rebuilds = new HashMap<>();
        db.selectFrom(REBUILD)
                .forEach(row -> rebuilds.put(
                        row.getTarget(),
                        new Rebuild(
                                row.getPool(),
                                row.getFailed(),
                                row.getTarget(),
                                Bytes.of(row.getTodoBytes()),
                                Bytes.of(row.getDoneBytes()),
                                Times.instant(row.getAsOf()),
                                row.getNumber())));
        Map<String, Scrub> scrubs = new HashMap<>();
        db.selectFrom(SCRUB)
                .forEach(row -> scrubs.put(
                        row.getPool(),
                        new Scrub(
                                row.getPool(),
                                Optional.ofNullable(row.getBegunAt()).map(Times::instant),
                                Optional.ofNullable(row.getLastAt()).map(Times::instant),
                                row.getHealed(),
                                row.getUnhealed())));
        return known.withOnly(Kinds.REBUILD, rebuilds).withOnly(Kinds.SCRUB, scrubs);
    }

    @Override
    public void write(Estate before, Estate after, long version) {
        write(before.rebuilds(), after.rebuilds(), this::remove, this::put);
        write(before.scrubs(), after.scrubs(), this::remove, this::put);
    }

    private static <T> void write(Map<String, T> before, Map<String, T> after, Consumer<T> remove, Consumer<T> put) {
        before.forEach((key, thing) -> {
            if (!thing.equals(after.get(key))) {
                remove.accept(thing);
            }
        });
        after.forEach((key, thing) -> {
            if (!thing.equals(before.get(key))) {
                put.accept(thing);
            }
        });
    }

    private void remove(Rebuild rebuild) {
        db.deleteFrom(REBUILD).where(REBUILD.TARGET.eq(rebuild.target())).execute();
    }

    private void put(Rebuild rebuild) {
        db.insertInto(REBUILD)
                .set(REBUILD.TARGET, rebuild.target())
                .set(REBUILD.POOL, rebuild.pool())
                .set(REBUILD.FAILED, rebuild.failed())
                .set(REBUILD.TODO_BYTES, rebuild.todo().value())
                .set(REBUILD.DONE_BYTES, rebuild.done().value())
                .set(REBUILD.AS_OF, Times.stored(rebuild.asOf()))
                .set(REBUILD.NUMBER, rebuild.number())
                .execute();
    }

    private void remove(Scrub scrub) {
        db.deleteFrom(SCRUB).where(SCRUB.POOL.eq(scrub.pool())).execute();
    }

    private void put(Scrub scrub) {
        db.insertInto(SCRUB)
                .set(SCRUB.POOL, scrub.pool())
                .set(SCRUB.BEGUN_AT, scrub.begun().map(Times::stored).orElse(null))
                .set(SCRUB.LAST_AT, scrub.last().map(Times::stored).orElse(null))
                .set(SCRUB.HEALED, scrub.healed())
                .set(SCRUB.UNHEALED, scrub.unhealed())
                .execute();
    }
}
