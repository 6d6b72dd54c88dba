package org.vastshelf.app.demo;

import static org.vastshelf.app.store.generated.Tables.ACCOUNT;
import static org.vastshelf.app.store.generated.Tables.AUDIT_HEAD;
import static org.vastshelf.app.store.generated.Tables.AUDIT_LINE;
import static org.vastshelf.app.store.generated.Tables.AUDIT_PENDING;
import static org.vastshelf.app.store.generated.Tables.CATALOGUE;
import static org.vastshelf.app.store.generated.Tables.FILE;
import static org.vastshelf.app.store.generated.Tables.FILE_TREE;
import static org.vastshelf.app.store.generated.Tables.FOLDER;
import static org.vastshelf.app.store.generated.Tables.KEPT;
import static org.vastshelf.app.store.generated.Tables.KEPT_PIECE;
import static org.vastshelf.app.store.generated.Tables.KEPT_USE;
import static org.vastshelf.app.store.generated.Tables.SPACE_HISTORY;
import static org.vastshelf.app.store.generated.Tables.TALLY;

import java.sql.Connection;
import java.sql.SQLException;
import java.sql.Statement;
import java.time.LocalDate;
import java.util.List;
import javax.sql.DataSource;
import org.jooq.DSLContext;
import org.springframework.stereotype.Component;
import org.vastshelf.app.catalogue.BulkStore;
import org.vastshelf.app.catalogue.LoadStore;
import org.vastshelf.app.store.Times;
import org.vastshelf.core.audit.AuditLine;
import org.vastshelf.standins.scenario.DemoAudit;

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
                        KEPT,
                        KEPT_PIECE,
                        KEPT_USE,
                        SPACE_HISTORY)
                .forEach(table -> db.truncate(table).execute());
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

    void audit(Connection connection, List<String> people) throws SQLException {
        LoadStore buffer = new LoadStore(
                "audit_line", "number,at,person,client,share,operation,path,bytes,verdict,reason,hash,receipt");
        byte[][] head = {AuditLine.GENESIS};
        DemoAudit.lines(people, DemoAudit.LINES, line -> {
            head[0] = line.hashAfter(head[0]);
            buffer.number(line.number())
                    .text(Times.stored(line.at()).toString())
                    .text(line.person())
                    .text(line.client())
                    .text(line.share())
                    .text(line.operation())
                    .text(line.path())
                    .number(line.bytes())
                    .text(line.verdict())
                    .text(line.reason())
                    .bytes(head[0])
                    .number(line.number())
                    .endRow();
            if (buffer.size() > LOAD_BYTES) {
                flush(buffer, connection);
            }
        });
        buffer.flush(connection);
        try (var sql = connection.prepareStatement("INSERT INTO audit_head (id, number, hash) VALUES (1, ?, ?)")) {
            sql.setLong(1, DemoAudit.LINES);
            sql.setBytes(2, head[0]);
            sql.executeUpdate();
        }
    }

    /** Receipts of lines to come follow those of the demo's. */
    void receiptsAfter(long last) {
        db.execute("ALTER TABLE audit_pending AUTO_INCREMENT = " + (last + 1));
    }

    private static void flush(LoadStore buffer, Connection connection) {
        try {
            buffer.flush(connection);
        } catch (SQLException e) {
            throw new IllegalStateException("the demo's audit lines did not load", e);
        }
    }
}
