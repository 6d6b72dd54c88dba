package org.vastshelf.app.demo;

import static org.vastshelf.app.store.generated.Tables.ACCOUNT;
import static org.vastshelf.app.store.generated.Tables.AUDIT_HEAD;
import static org.vastshelf.app.store.generated.Tables.AUDIT_LINE;
import static org.vastshelf.app.store.generated.Tables.AUDIT_PENDING;
import static org.vastshelf.app.store.generated.Tables.CATALOGUE;
import static org.vastshelf.app.store.generated.Tables.FILE;
import static org.vastshelf.app.store.generated.Tables.FILE_PAST;
import static org.vastshelf.app.store.generated.Tables.FILE_TREE;
import static org.vastshelf.app.store.generated.Tables.FOLDER;
import static org.vastshelf.app.store.generated.Tables.FOLDER_PAST;
import static org.vastshelf.app.store.generated.Tables.HELD_BLOCK;
import static org.vastshelf.app.store.generated.Tables.KEPT;
import static org.vastshelf.app.store.generated.Tables.KEPT_PIECE;
import static org.vastshelf.app.store.generated.Tables.KEPT_USE;
import static org.vastshelf.app.store.generated.Tables.REPLICA;
import static org.vastshelf.app.store.generated.Tables.REPLICA_EVENT;
import static org.vastshelf.app.store.generated.Tables.SNAPSHOT;
import static org.vastshelf.app.store.generated.Tables.SNAPSHOT_HOLD;
import static org.vastshelf.app.store.generated.Tables.SNAPSHOT_NUMBER;
import static org.vastshelf.app.store.generated.Tables.SPACE_HISTORY;
import static org.vastshelf.app.store.generated.Tables.TALLY;

import java.sql.Connection;
import java.sql.SQLException;
import java.sql.Statement;
import java.time.Instant;
import java.time.LocalDate;
import java.time.temporal.ChronoUnit;
import java.util.List;
import javax.sql.DataSource;
import org.jooq.DSLContext;
import org.springframework.stereotype.Component;
import org.vastshelf.app.catalogue.BulkStore;
import org.vastshelf.app.road.Workstations;
import org.vastshelf.app.store.LoadStore;
import org.vastshelf.app.store.Times;
import org.vastshelf.app.trace.AuditLoad;
import org.vastshelf.core.audit.AuditLine;
import org.vastshelf.standins.life.Deed;

/** The demo's rows in tables that are too large for the ordinary road. */
@Component
class DemoStore {

    private static final int LOAD_BYTES = 4 << 20;

    private final DSLContext db;
    private final DataSource source;

    DemoStore(DSLContext db, DataSource source) {
        this.db = db;
        this.source = source;
    }

    /** Something that fails as databases do. */
    @FunctionalInterface
    interface Load {
        void run() throws SQLException;
    }

    /** Lets one node at a time load. */
    void alone(Load load) throws SQLException {
        try (Connection connection = source.getConnection();
                Statement lock = connection.createStatement()) {
            lock.execute("SELECT GET_LOCK(CONCAT('demo of ', DATABASE()), 600)");
            try {
                load.run();
            } finally {
                lock.execute("SELECT RELEASE_LOCK(CONCAT('demo of ', DATABASE()))");
            }
        }
    }

    record Day(String kind, String space, LocalDate day, long used) {}

    /** Removes what a killed load left. */
    void clear() {
        List.of(
                        AUDIT_LINE,
                        AUDIT_PENDING,
                        AUDIT_HEAD,
                        ACCOUNT,
                        FILE,
                        FOLDER,
                        TALLY,
                        CATALOGUE,
                        FILE_TREE,
                        FILE_PAST,
                        FOLDER_PAST,
                        HELD_BLOCK,
                        SNAPSHOT,
                        SNAPSHOT_NUMBER,
                        KEPT,
                        KEPT_PIECE,
                        KEPT_USE,
                        SPACE_HISTORY)
                .forEach(table -> db.truncate(table).execute());
    }

    /** So many snapshots of a volume, and of the share on it, are there. */
    void snapshots(String volume, int taken) {
        db.insertInto(SNAPSHOT_NUMBER)
                .set(SNAPSHOT_NUMBER.VOLUME, volume)
                .set(SNAPSHOT_NUMBER.TAKEN, taken)
                .execute();
        db.update(FILE_TREE)
                .set(FILE_TREE.VOLUME, volume)
                .set(FILE_TREE.EPOCH, taken)
                .set(FILE_TREE.NEWEST, taken)
                .where(FILE_TREE.SHARE.eq(volume))
                .execute();
    }

    /** The copy of a volume has a snapshot whole, and is behind. */
    void replica(String volume, int base, Instant baseAt, Instant now) {
        String why = "the link between glasshouse-hill and saltmarsh-annex is cut";
        db.insertInto(REPLICA)
                .set(REPLICA.VOLUME, volume)
                .set(REPLICA.STATE, "BEHIND")
                .set(REPLICA.SINCE, Times.stored(baseAt))
                .set(REPLICA.CAUSE, why)
                .set(REPLICA.BASE, base)
                .set(REPLICA.BASE_AT, Times.stored(baseAt))
                .set(REPLICA.COMING, 0)
                .set(REPLICA.COMING_BYTES, 0L)
                .set(REPLICA.GOAL_BYTES, 0L)
                .set(REPLICA.SENT_BYTES, 0L)
                .set(REPLICA.MOVED_AT, Times.stored(now))
                .set(REPLICA.RATE, 0L)
                .execute();
        db.insertInto(REPLICA_EVENT)
                .set(REPLICA_EVENT.VOLUME, volume)
                .set(REPLICA_EVENT.AT, Times.stored(baseAt))
                .set(REPLICA_EVENT.STATE, "BEHIND")
                .set(REPLICA_EVENT.CAUSE, why)
                .set(REPLICA_EVENT.LAG_SECONDS, 0L)
                .set(REPLICA_EVENT.LAG_BYTES, 0L)
                .execute();
        db.insertInto(SNAPSHOT_HOLD)
                .set(SNAPSHOT_HOLD.VOLUME, volume)
                .set(SNAPSHOT_HOLD.NUMBER, base)
                .set(SNAPSHOT_HOLD.HOLDER, "pair")
                .set(SNAPSHOT_HOLD.WHY, "the copy is kept up by it")
                .execute();
    }

    void totals(int catalogue, BulkStore writer) {
        db.update(CATALOGUE)
                .set(CATALOGUE.NEXT_FOLDER, writer.nextFolder())
                .set(CATALOGUE.SCANNED_UPTO, writer.nextFolder() - 1)
                .set(CATALOGUE.FILES, writer.files())
                .set(CATALOGUE.BYTES, writer.bytes())
                .where(CATALOGUE.NO.eq(catalogue))
                .execute();
    }

    void history(List<Day> days) {
        db.transaction(t -> t.dsl().connection(connection -> {
            LoadStore buffer = new LoadStore("space_history", "kind,space,day,used_bytes");
            for (Day day : days) {
                buffer.text(day.kind)
                        .text(day.space)
                        .text(day.day.toString())
                        .number(day.used)
                        .endRow();
            }
            buffer.flush(connection);
        }));
    }

    /** Writes what people did as a chain of audit lines; returns how many there are. */
    long audit(Connection connection, List<Deed> deeds) throws SQLException {
        AuditLoad lines = new AuditLoad();
        byte[] head = AuditLine.GENESIS;
        long number = 0;
        for (Deed deed : deeds) {
            AuditLine line = line(++number, deed);
            head = line.hashAfter(head);
            lines.add(line, head, number);
            if (lines.size() > LOAD_BYTES) {
                lines.flush(connection);
            }
        }
        lines.flush(connection);
        try (var sql = connection.prepareStatement("INSERT INTO audit_head (id, number, hash) VALUES (1, ?, ?)")) {
            sql.setLong(1, number);
            sql.setBytes(2, head);
            sql.executeUpdate();
        }
        return number;
    }

    private static AuditLine line(long number, Deed deed) {
        return new AuditLine(
                number,
                Instant.EPOCH.plus(deed.micros(), ChronoUnit.MICROS),
                deed.person(),
                Workstations.address(deed.person()),
                deed.share(),
                deed.kind().name(),
                deed.path(),
                deed.target(),
                deed.bytes(),
                deed.allowed() ? "ALLOWED" : "REFUSED",
                deed.reason());
    }

    /** Receipts of lines to come follow those of the demo's. */
    void receiptsAfter(long last) {
        db.execute("ALTER TABLE audit_pending AUTO_INCREMENT = " + (last + 1));
    }
}
