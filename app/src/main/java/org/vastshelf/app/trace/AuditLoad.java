package org.vastshelf.app.trace;

import java.sql.Connection;
import java.sql.SQLException;
import org.vastshelf.app.store.LoadStore;
import org.vastshelf.app.store.Times;
import org.vastshelf.core.audit.AuditLine;

/** Chained audit lines on their way into the database. */
public final class AuditLoad {

    private final LoadStore rows = new LoadStore(
            "audit_line", "number,at,person,client,share,operation,path,target,bytes,verdict,reason,hash,receipt");

    public void add(AuditLine line, byte[] hash, long receipt) {
        rows.number(line.number()).text(Times.stored(line.at()).toString());
        rows.text(line.person()).text(line.client()).text(line.share()).text(line.operation());
        rows.text(line.path()).text(line.target()).number(line.bytes());
        rows.text(line.verdict())
                .text(line.reason())
                .bytes(hash)
                .number(receipt)
                .endRow();
    }

    /** In bytes. */
    public int size() {
        return rows.size();
    }

    public void flush(Connection connection) throws SQLException {
        rows.flush(connection);
    }
}
