package org.vastshelf.app.trace;

import java.nio.charset.StandardCharsets;
import java.sql.Connection;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.time.LocalDateTime;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.Iterator;
import java.util.List;
import java.util.NoSuchElementException;
import org.vastshelf.core.audit.AuditLine;
import org.vastshelf.core.audit.ChainCheck.Head;
import org.vastshelf.core.audit.ChainCheck.Kept;

/** Reads a stored chain over a bare connection, so that it can be checked without the application that wrote it. */
final class AuditLineStore {

    private static final int AT_ONCE = 5_000;

    private final Connection connection;

    AuditLineStore(Connection connection) {
        this.connection = connection;
    }

    Head head() {
        try (var sql = connection.prepareStatement("SELECT number, hash FROM audit_head");
                ResultSet row = sql.executeQuery()) {
            return row.next() ? new Head(row.getLong(1), row.getBytes(2)) : new Head(0, AuditLine.GENESIS);
        } catch (SQLException e) {
            throw new IllegalStateException("the end of the chain can't be read", e);
        }
    }

    /** Lines from a number on, ascending, read in portions. */
    Iterator<Kept> from(long number) {
        return new Iterator<>() {
            private long next = number;
            private Iterator<Kept> portion = List.<Kept>of().iterator();

            @Override
            public boolean hasNext() {
                if (!portion.hasNext()) {
                    List<Kept> read = read(next);
                    next = read.isEmpty() ? next : read.getLast().line().number() + 1;
                    portion = read.iterator();
                }
                return portion.hasNext();
            }

            @Override
            public Kept next() {
                if (!hasNext()) {
                    throw new NoSuchElementException();
                }
                return portion.next();
            }
        };
    }

    private List<Kept> read(long from) {
        List<Kept> lines = new ArrayList<>();
        try (var sql = connection.prepareStatement("SELECT number, at, person, client, share, operation, path, bytes,"
                + " verdict, reason, hash, target FROM audit_line WHERE number >= ? ORDER BY number LIMIT "
                + AT_ONCE)) {
            sql.setLong(1, from);
            try (ResultSet row = sql.executeQuery()) {
                while (row.next()) {
                    lines.add(new Kept(line(row), row.getBytes(11)));
                }
            }
        } catch (SQLException e) {
            throw new IllegalStateException("lines from " + from + " on can't be read", e);
        }
        return lines;
    }

    private static AuditLine line(ResultSet row) throws SQLException {
        return new AuditLine(
                row.getLong(1),
                row.getObject(2, LocalDateTime.class).toInstant(ZoneOffset.UTC),
                row.getString(3),
                row.getString(4),
                row.getString(5),
                row.getString(6),
                new String(row.getBytes(7), StandardCharsets.UTF_8),
                new String(row.getBytes(12), StandardCharsets.UTF_8),
                row.getLong(8),
                row.getString(9),
                row.getString(10));
    }
}
