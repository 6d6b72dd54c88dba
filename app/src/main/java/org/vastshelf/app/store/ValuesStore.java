package org.vastshelf.app.store;

import java.nio.charset.StandardCharsets;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.util.Collection;
import java.util.HexFormat;
import java.util.Iterator;
import java.util.function.Consumer;
import org.jooq.DSLContext;

/**
 * A statement with many values in it, as one text. Values are numbers, or hexadecimal literals of which nothing can be
 * taken for SQL. The same with a parameter for each value takes several times as long, here and in the database.
 */
public final class ValuesStore {

    private static final HexFormat HEX = HexFormat.of();

    private final StringBuilder sql;

    public ValuesStore(String beginning) {
        this.sql = new StringBuilder(beginning);
    }

    /** Goes on with words of the statement. */
    public ValuesStore then(String words) {
        sql.append(words);
        return this;
    }

    /** Numbers with commas between. */
    public ValuesStore numbers(long... values) {
        for (int i = 0; i < values.length; i++) {
            sql.append(i == 0 ? "" : ",").append(values[i]);
        }
        return this;
    }

    /** Bytes, which are compared as such. */
    public ValuesStore bytes(byte[] value) {
        sql.append("x'");
        HEX.formatHex(sql, value);
        sql.append('\'');
        return this;
    }

    /** A text for a column of texts. */
    public ValuesStore text(String value) {
        sql.append("_utf8mb4 ");
        return bytes(value.getBytes(StandardCharsets.UTF_8));
    }

    /** One after the other, with words between. */
    public <T> ValuesStore each(Collection<T> all, String between, Consumer<T> write) {
        for (Iterator<T> some = all.iterator(); some.hasNext(); ) {
            write.accept(some.next());
            if (some.hasNext()) {
                sql.append(between);
            }
        }
        return this;
    }

    /** Carries it out, as part of the transaction that is under way; how many rows it changed. */
    public int execute(DSLContext db) {
        return db.connectionResult(connection -> {
            try (var statement = connection.createStatement()) {
                return statement.executeUpdate(sql.toString());
            }
        });
    }

    /** What is done with each row of an answer. */
    @FunctionalInterface
    public interface Reader {
        void read(ResultSet row) throws SQLException;
    }

    /** Asks, as part of the transaction that is under way. */
    public void read(DSLContext db, Reader reader) {
        db.connection(connection -> {
            try (var statement = connection.createStatement();
                    ResultSet rows = statement.executeQuery(sql.toString())) {
                while (rows.next()) {
                    reader.read(rows);
                }
            }
        });
    }
}
