package org.vastshelf.app.catalogue;

import java.sql.Connection;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.util.ArrayDeque;
import java.util.Deque;
import org.jspecify.annotations.Nullable;
import org.vastshelf.core.catalogue.FileKind;

/** Rows of one catalogue as scans, imports and exports need them, on a connection that is theirs alone. */
public final class CatalogueRowStore {

    private static final int PAGE = 2_000;
    private static final int AT_ONCE = 1_000;

    private final Connection connection;
    private final int catalogue;

    public CatalogueRowStore(Connection connection, int catalogue) {
        this.connection = connection;
        this.catalogue = catalogue;
    }

    /** A folder that is to be read. */
    public record Folder(int no, int depth, byte[] path) {}

    /** Somebody who is handed every file in turn. */
    @FunctionalInterface
    public interface Reader {
        void read(int folder, byte[] path, FileRow file, boolean counted) throws SQLException, java.io.IOException;
    }

    /** Folders behind a number, the next ones first. */
    public Deque<Folder> foldersAfter(int number) throws SQLException {
        Deque<Folder> folders = new ArrayDeque<>();
        try (PreparedStatement sql = connection.prepareStatement(
                "SELECT no, depth, path FROM folder WHERE catalogue_no = ? AND no > ? ORDER BY no LIMIT " + PAGE)) {
            sql.setInt(1, catalogue);
            sql.setInt(2, number);
            try (ResultSet rows = sql.executeQuery()) {
                while (rows.next()) {
                    folders.add(new Folder(rows.getInt(1), rows.getInt(2), rows.getBytes(3)));
                }
            }
        }
        return folders;
    }

    /** Number of a folder that has been written; null for none. */
    public @Nullable Integer folder(byte[] path) throws SQLException {
        try (PreparedStatement sql = connection.prepareStatement(
                "SELECT no FROM folder WHERE catalogue_no = ? AND path_hash = ? AND path = ?")) {
            sql.setInt(1, catalogue);
            sql.setBytes(2, PathBytes.hash(path));
            sql.setBytes(3, path);
            try (ResultSet row = sql.executeQuery()) {
                return row.next() ? row.getInt(1) : null;
            }
        }
    }

    /** A file with several names counts where it is met first. */
    public boolean isFirstName(long device, long inode) throws SQLException {
        try (PreparedStatement sql = connection.prepareStatement("INSERT IGNORE INTO hard_link VALUES (?, ?, ?)")) {
            sql.setInt(1, catalogue);
            sql.setLong(2, device);
            sql.setLong(3, inode);
            return sql.executeUpdate() == 1;
        }
    }

    public void unreadable(byte[] path, String reason) throws SQLException {
        try (PreparedStatement sql =
                connection.prepareStatement("INSERT INTO unreadable (catalogue_no, path, reason) VALUES (?, ?, ?)")) {
            sql.setInt(1, catalogue);
            sql.setBytes(2, path);
            sql.setString(3, reason);
            sql.executeUpdate();
        }
    }

    /**
     * How far a catalogue has come.
     *
     * @param upto number of the last folder that was read
     */
    public record Progress(int nextFolder, int upto, long files, long bytes, long unreadable, long millis) {}

    /** Writes down how far the catalogue has come, and adds the time that passed. */
    public void progress(Progress progress) throws SQLException {
        try (PreparedStatement sql = connection.prepareStatement("UPDATE catalogue SET next_folder = ?,"
                + " scanned_upto = ?, files = ?, bytes = ?, unreadable = ?, millis = millis + ? WHERE no = ?")) {
            sql.setInt(1, progress.nextFolder);
            sql.setInt(2, progress.upto);
            sql.setLong(3, progress.files);
            sql.setLong(4, progress.bytes);
            sql.setLong(5, progress.unreadable);
            sql.setLong(6, progress.millis);
            sql.setInt(7, catalogue);
            sql.executeUpdate();
        }
    }

    /**
     * Lets nobody else take a lease before this transaction has ended.
     *
     * @return false when this node has lost it, and nothing of the transaction must stay
     */
    public boolean holds(String work, String node) throws SQLException {
        try (PreparedStatement sql =
                connection.prepareStatement("SELECT 1 FROM lease WHERE work = ? AND node = ? FOR UPDATE")) {
            sql.setString(1, work);
            sql.setString(2, node);
            try (ResultSet row = sql.executeQuery()) {
                return row.next();
            }
        }
    }

    /** Hands over all files, those of a folder together, streamed. */
    public void eachFile(Reader reader) throws SQLException, java.io.IOException {
        try (PreparedStatement sql = connection.prepareStatement("SELECT d.path, f.* FROM file f JOIN folder d"
                + " ON d.catalogue_no = f.catalogue_no AND d.no = f.folder_no WHERE f.catalogue_no = ?"
                + " ORDER BY f.folder_no, f.name")) {
            sql.setFetchSize(AT_ONCE);
            sql.setInt(1, catalogue);
            try (ResultSet row = sql.executeQuery()) {
                while (row.next()) {
                    reader.read(row.getInt("folder_no"), row.getBytes("path"), file(row), row.getInt("counted") == 1);
                }
            }
        }
    }

    private static FileRow file(ResultSet row) throws SQLException {
        return new FileRow(
                row.getBytes("name"),
                row.getLong("bytes"),
                row.getLong("allocated"),
                row.getString("owner"),
                row.getString("owner_group"),
                row.getLong("modified_at"),
                row.getLong("accessed_at"),
                row.getLong("changed_at"),
                FileKind.values()[row.getInt("kind")]);
    }
}
