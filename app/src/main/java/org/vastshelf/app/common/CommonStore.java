package org.vastshelf.app.common;

import static org.vastshelf.app.store.generated.Tables.COMMON_SHARE;
import static org.vastshelf.app.store.generated.Tables.COMMON_UNIT;
import static org.vastshelf.app.store.generated.Tables.VOLUME_USAGE;

import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.OptionalInt;
import java.util.TreeMap;
import org.jooq.Condition;
import org.jooq.DSLContext;
import org.jooq.impl.DSL;
import org.springframework.stereotype.Component;
import org.vastshelf.core.content.StreamId;
import org.vastshelf.core.saving.UnitKind;
import org.vastshelf.core.saving.UnitUses.Span;

/** Rows of common units, as spans of them that are used equally often. */
@Component
class CommonStore {

    private static final int AT_ONCE = 500;

    private final DSLContext db;

    CommonStore(DSLContext db) {
        this.db = db;
    }

    /** Lets nobody else count units of a volume, or take room on it, until the transaction has ended. */
    void lock(String volume) {
        db.select(VOLUME_USAGE.VOLUME)
                .from(VOLUME_USAGE)
                .where(VOLUME_USAGE.VOLUME.eq(volume))
                .forUpdate()
                .fetch();
    }

    /** All spans of some streams, by kind and first unit. */
    Map<UnitKind, TreeMap<Long, Span>> spans(String volume, Collection<StreamId> streams) {
        Map<UnitKind, TreeMap<Long, Span>> spans = new HashMap<>();
        List<StreamId> all = List.copyOf(streams);
        for (int from = 0; from < all.size(); from += AT_ONCE) {
            List<StreamId> some = all.subList(from, Math.min(all.size(), from + AT_ONCE));
            spans.putAll(where(COMMON_UNIT
                    .VOLUME
                    .eq(volume)
                    .and(DSL.row(COMMON_UNIT.TEXTURE, COMMON_UNIT.NUMBER)
                            .in(some.stream()
                                    .map(s -> DSL.row(s.texture(), s.number()))
                                    .toList()))));
        }
        return spans;
    }

    /** All that is counted of a volume. */
    Map<UnitKind, TreeMap<Long, Span>> spans(String volume) {
        return where(COMMON_UNIT.VOLUME.eq(volume));
    }

    private Map<UnitKind, TreeMap<Long, Span>> where(Condition condition) {
        Map<UnitKind, TreeMap<Long, Span>> spans = new HashMap<>();
        db.selectFrom(COMMON_UNIT)
                .where(condition)
                .forEach(row -> spans.computeIfAbsent(
                                new UnitKind(
                                        new StreamId(row.getTexture(), row.getNumber()),
                                        row.getPhase(),
                                        row.getBytes(),
                                        row.getPacked(),
                                        row.getOnce() == 1),
                                kind -> new TreeMap<>())
                        .put(row.getFirstUnit(), new Span(row.getFirstUnit(), row.getPastUnit(), row.getUses())));
        return spans;
    }

    /** A span of a kind. */
    record Row(UnitKind kind, Span span) {}

    void remove(String volume, List<Row> rows) {
        for (int from = 0; from < rows.size(); from += AT_ONCE) {
            db.deleteFrom(COMMON_UNIT)
                    .where(COMMON_UNIT.VOLUME.eq(volume))
                    .and(DSL.row(
                                    COMMON_UNIT.TEXTURE,
                                    COMMON_UNIT.NUMBER,
                                    COMMON_UNIT.PHASE,
                                    COMMON_UNIT.BYTES,
                                    COMMON_UNIT.PACKED,
                                    COMMON_UNIT.ONCE,
                                    COMMON_UNIT.FIRST_UNIT)
                            .in(rows.subList(from, Math.min(rows.size(), from + AT_ONCE)).stream()
                                    .map(row -> DSL.row(
                                            row.kind.stream().texture(),
                                            row.kind.stream().number(),
                                            row.kind.phase(),
                                            row.kind.bytes(),
                                            row.kind.packed(),
                                            row.kind.once() ? 1 : 0,
                                            row.span.first()))
                                    .toList()))
                    .execute();
        }
    }

    /** Writes spans, also over those with the same first unit. */
    void write(String volume, List<Row> rows) {
        for (int from = 0; from < rows.size(); from += AT_ONCE) {
            db.insertInto(COMMON_UNIT)
                    .columns(
                            COMMON_UNIT.VOLUME,
                            COMMON_UNIT.TEXTURE,
                            COMMON_UNIT.NUMBER,
                            COMMON_UNIT.PHASE,
                            COMMON_UNIT.BYTES,
                            COMMON_UNIT.PACKED,
                            COMMON_UNIT.ONCE,
                            COMMON_UNIT.FIRST_UNIT,
                            COMMON_UNIT.PAST_UNIT,
                            COMMON_UNIT.USES)
                    .valuesOfRows(rows.subList(from, Math.min(rows.size(), from + AT_ONCE)).stream()
                            .map(row -> DSL.row(
                                    volume,
                                    row.kind.stream().texture(),
                                    row.kind.stream().number(),
                                    row.kind.phase(),
                                    row.kind.bytes(),
                                    row.kind.packed(),
                                    row.kind.once() ? 1 : 0,
                                    row.span.first(),
                                    row.span.past(),
                                    row.span.uses()))
                            .toList())
                    .onDuplicateKeyUpdate()
                    .set(COMMON_UNIT.PAST_UNIT, DSL.field("VALUES(past_unit)", Long.class))
                    .set(COMMON_UNIT.USES, DSL.field("VALUES(uses)", Long.class))
                    .execute();
        }
    }

    /** Adds to what units of a volume take, and to what their files would take each for itself. */
    void add(String volume, long bytes, long whole) {
        db.update(VOLUME_USAGE)
                .set(VOLUME_USAGE.COMMON_BYTES, VOLUME_USAGE.COMMON_BYTES.plus(bytes))
                .set(VOLUME_USAGE.WHOLE_BYTES, VOLUME_USAGE.WHOLE_BYTES.plus(whole))
                .where(VOLUME_USAGE.VOLUME.eq(volume))
                .execute();
    }

    /** What units of a volume take, as it was counted. */
    long bytes(String volume) {
        return db.select(VOLUME_USAGE.COMMON_BYTES)
                .from(VOLUME_USAGE)
                .where(VOLUME_USAGE.VOLUME.eq(volume))
                .fetchOptional(VOLUME_USAGE.COMMON_BYTES)
                .orElse(0L);
    }

    /** How much of a stream is left when it is packed; empty where that was not measured yet. */
    OptionalInt share(StreamId stream) {
        return db
                .select(COMMON_SHARE.SHARE)
                .from(COMMON_SHARE)
                .where(COMMON_SHARE.TEXTURE.eq(stream.texture()), COMMON_SHARE.NUMBER.eq(stream.number()))
                .fetch(COMMON_SHARE.SHARE)
                .stream()
                .mapToInt(Integer::intValue)
                .findFirst();
    }

    /** Keeps it as it was measured first. */
    void keep(StreamId stream, int share) {
        db.insertInto(COMMON_SHARE)
                .set(COMMON_SHARE.TEXTURE, stream.texture())
                .set(COMMON_SHARE.NUMBER, stream.number())
                .set(COMMON_SHARE.SHARE, share)
                .onDuplicateKeyIgnore()
                .execute();
    }

    void forget(String volume) {
        db.deleteFrom(COMMON_UNIT).where(COMMON_UNIT.VOLUME.eq(volume)).execute();
        db.update(VOLUME_USAGE)
                .set(VOLUME_USAGE.COMMON_BYTES, 0L)
                .set(VOLUME_USAGE.WHOLE_BYTES, 0L)
                .where(VOLUME_USAGE.VOLUME.eq(volume))
                .execute();
    }
}
