package org.vastshelf.app.store;

import java.io.ByteArrayInputStream;
import java.nio.charset.StandardCharsets;
import java.sql.Connection;
import java.sql.SQLException;
import java.util.Arrays;

/**
 * Rows on their way into one table through {@code LOAD DATA LOCAL INFILE}, in its default format: fields ended by
 * tabs, rows by newlines, both escaped by a backslash. Bytes go in as they are, whatever their encoding.
 */
public final class LoadStore {

    private final String statement;
    private byte[] bytes = new byte[1 << 14];
    private int length;
    private int rows;
    private boolean exact;

    public LoadStore(String table, String columns) {
        this.statement =
                "LOAD DATA LOCAL INFILE 'rows' INTO TABLE " + table + " CHARACTER SET binary (" + columns + ")";
    }

    /** From now on none may be left out because another has its key: the database would pass over it without a word. */
    public LoadStore exactly() {
        exact = true;
        return this;
    }

    public int size() {
        return length;
    }

    public LoadStore number(long value) {
        return raw(Long.toString(value).getBytes(StandardCharsets.US_ASCII)).tab();
    }

    public LoadStore text(String value) {
        return bytes(value.getBytes(StandardCharsets.UTF_8));
    }

    public LoadStore bytes(byte[] value) {
        ensure(2 * value.length + 1);
        for (byte b : value) {
            switch (b) {
                case '\t', '\n', '\\' -> {
                    bytes[length++] = '\\';
                    bytes[length++] = b;
                }
                case 0 -> {
                    bytes[length++] = '\\';
                    bytes[length++] = '0';
                }
                default -> bytes[length++] = b;
            }
        }
        return tab();
    }

    /** Ends the row; the last tab becomes its newline. */
    public void endRow() {
        bytes[length - 1] = '\n';
        rows++;
    }

    private LoadStore raw(byte[] value) {
        ensure(value.length + 1);
        System.arraycopy(value, 0, bytes, length, value.length);
        length += value.length;
        return this;
    }

    private LoadStore tab() {
        ensure(1);
        bytes[length++] = '\t';
        return this;
    }

    private void ensure(int more) {
        if (length + more > bytes.length) {
            bytes = Arrays.copyOf(bytes, Math.max(bytes.length * 2, length + more));
        }
    }

    /**
     * Rows that have gathered, to be loaded by whoever has the connection.
     *
     * @param least so many have to be taken in
     */
    public record Load(String statement, byte[] bytes, int length, int least) {

        /** @throws Transactions.RunAgain when others were there already that have the key of one which has to be taken in */
        public void into(Connection connection) throws SQLException {
            try (var sql = connection.createStatement()) {
                sql.unwrap(org.mariadb.jdbc.Statement.class)
                        .setLocalInfileInputStream(new ByteArrayInputStream(bytes, 0, length));
                sql.execute(statement);
                if (sql.getUpdateCount() < least) {
                    throw new Transactions.RunAgain("others came first", null);
                }
            }
        }
    }

    /** Hands over what has gathered and begins anew. */
    public Load take() {
        Load load = load();
        bytes = new byte[bytes.length];
        begin();
        return load;
    }

    /** Loads what has gathered and forgets it. */
    public void flush(Connection connection) throws SQLException {
        if (length > 0) {
            load().into(connection);
            begin();
        }
    }

    private Load load() {
        return new Load(statement, bytes, length, exact ? rows : 0);
    }

    private void begin() {
        length = 0;
        rows = 0;
    }
}
