package org.vastshelf.app.replica;

import static org.vastshelf.app.store.generated.Tables.LEFT_BEHIND;
import static org.vastshelf.app.store.generated.Tables.REPLICA;
import static org.vastshelf.app.store.generated.Tables.REPLICA_EVENT;

import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import org.jooq.DSLContext;
import org.springframework.stereotype.Component;
import org.vastshelf.app.catalogue.PathBytes;
import org.vastshelf.app.store.Times;
import org.vastshelf.app.store.generated.tables.records.LeftBehindRecord;
import org.vastshelf.app.store.generated.tables.records.ReplicaRecord;
import org.vastshelf.core.unit.ShortText;

/** Keeps how far copies are, and what was left behind when one took over. */
@Component
class ReplicaStore {

    private static final int LONGEST_CAUSE = 300;

    private final DSLContext db;

    ReplicaStore(DSLContext db) {
        this.db = db;
    }

    Optional<Replica> find(String volume) {
        return db.selectFrom(REPLICA).where(REPLICA.VOLUME.eq(volume)).fetchOptional(ReplicaStore::replica);
    }

    Map<String, Replica> all() {
        return db.selectFrom(REPLICA).fetch(ReplicaStore::replica).stream()
                .collect(Collectors.toMap(Replica::volume, r -> r));
    }

    /** The same, which nobody else changes before the transaction has ended. */
    Optional<Replica> lock(String volume) {
        return db.selectFrom(REPLICA)
                .where(REPLICA.VOLUME.eq(volume))
                .forUpdate()
                .fetchOptional(ReplicaStore::replica);
    }

    private static Replica replica(ReplicaRecord row) {
        return new Replica(
                row.getVolume(),
                Replica.State.valueOf(row.getState()),
                Times.instant(row.getSince()),
                row.getCause(),
                row.getBase(),
                Optional.ofNullable(Times.instant(row.getBaseAt())),
                row.getComing(),
                Optional.ofNullable(Times.instant(row.getComingAt())),
                row.getComingBytes(),
                row.getGoalBytes(),
                row.getSentBytes(),
                Times.instant(row.getMovedAt()),
                row.getRate());
    }

    void save(Replica replica) {
        db.insertInto(REPLICA)
                .set(REPLICA.VOLUME, replica.volume())
                .set(REPLICA.STATE, replica.state().name())
                .set(REPLICA.SINCE, Times.stored(replica.since()))
                .set(REPLICA.CAUSE, ShortText.of(replica.cause(), LONGEST_CAUSE))
                .set(REPLICA.BASE, replica.base())
                .set(REPLICA.BASE_AT, Times.stored(replica.baseAt().orElse(null)))
                .set(REPLICA.COMING, replica.coming())
                .set(REPLICA.COMING_AT, Times.stored(replica.comingAt().orElse(null)))
                .set(REPLICA.COMING_BYTES, replica.comingBytes())
                .set(REPLICA.GOAL_BYTES, replica.goalBytes())
                .set(REPLICA.SENT_BYTES, replica.sentBytes())
                .set(REPLICA.MOVED_AT, Times.stored(replica.movedAt()))
                .set(REPLICA.RATE, replica.rate())
                .onDuplicateKeyUpdate()
                .setAllToExcluded()
                .execute();
    }

    void forget(String volume) {
        db.deleteFrom(REPLICA).where(REPLICA.VOLUME.eq(volume)).execute();
    }

    /** How far behind a copy was at a moment, and in what state. */
    record Event(Instant at, Replica.State state, String cause, long lagSeconds, long lagBytes) {}

    void note(String volume, Event event) {
        db.insertInto(REPLICA_EVENT)
                .set(REPLICA_EVENT.VOLUME, volume)
                .set(REPLICA_EVENT.AT, Times.stored(event.at))
                .set(REPLICA_EVENT.STATE, event.state.name())
                .set(REPLICA_EVENT.CAUSE, ShortText.of(event.cause, LONGEST_CAUSE))
                .set(REPLICA_EVENT.LAG_SECONDS, event.lagSeconds)
                .set(REPLICA_EVENT.LAG_BYTES, event.lagBytes)
                .execute();
    }

    /** The newest first. */
    List<Event> events(String volume, int most) {
        return db.selectFrom(REPLICA_EVENT)
                .where(REPLICA_EVENT.VOLUME.eq(volume))
                .orderBy(REPLICA_EVENT.AT.desc(), REPLICA_EVENT.NO.desc())
                .limit(most)
                .fetch(row -> new Event(
                        Times.instant(row.getAt()),
                        Replica.State.valueOf(row.getState()),
                        row.getCause(),
                        row.getLagSeconds(),
                        row.getLagBytes()));
    }

    /**
     * Something that a copy which took over did not have.
     *
     * @param kind what had become of it: as a comparison says it
     */
    record Left(long no, Instant at, String share, String path, String kind, long bytes, String owner, long modified) {}

    void leave(String volume, Left left, String group, byte[] extents) {
        db.insertInto(LEFT_BEHIND)
                .set(LEFT_BEHIND.VOLUME, volume)
                .set(LEFT_BEHIND.AT, Times.stored(left.at))
                .set(LEFT_BEHIND.SHARE, left.share)
                .set(LEFT_BEHIND.PATH, PathBytes.of(left.path))
                .set(LEFT_BEHIND.KIND, left.kind)
                .set(LEFT_BEHIND.BYTES, left.bytes)
                .set(LEFT_BEHIND.OWNER, left.owner)
                .set(LEFT_BEHIND.OWNER_GROUP, group)
                .set(LEFT_BEHIND.MODIFIED_AT, left.modified)
                .set(LEFT_BEHIND.EXTENTS, extents)
                .execute();
    }

    List<Left> left(String volume, int most) {
        return db.selectFrom(LEFT_BEHIND)
                .where(LEFT_BEHIND.VOLUME.eq(volume))
                .orderBy(LEFT_BEHIND.NO)
                .limit(most)
                .fetch(ReplicaStore::left);
    }

    /** One of them, with what it held. */
    record Whole(Left left, String group, byte[] extents) {}

    Optional<Whole> left(String volume, long no) {
        return db.selectFrom(LEFT_BEHIND)
                .where(LEFT_BEHIND.VOLUME.eq(volume), LEFT_BEHIND.NO.eq(no))
                .fetchOptional(row -> new Whole(left(row), row.getOwnerGroup(), row.getExtents()));
    }

    private static Left left(LeftBehindRecord row) {
        return new Left(
                row.getNo(),
                Times.instant(row.getAt()),
                row.getShare(),
                PathBytes.shown(row.getPath()),
                row.getKind(),
                row.getBytes(),
                row.getOwner(),
                row.getModifiedAt());
    }

    int countLeft(String volume) {
        return db.fetchCount(LEFT_BEHIND, LEFT_BEHIND.VOLUME.eq(volume));
    }
}
