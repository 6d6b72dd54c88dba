package org.vastshelf.app.catalogue;

import java.nio.ByteBuffer;
import java.sql.Connection;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.vastshelf.app.store.LoadStore;

/**
 * Writes the files of a catalogue that does not change into pages by their size class, an eighth of a power of two each:
 * size, days of last use and last change, and the folder of the first level. Memory is that of a page a class.
 */
public final class SizePageStore {

    private static final int ENTRY = 3 * Long.BYTES + Integer.BYTES;
    private static final int PAGE = 3_200 * ENTRY;
    private static final int AT_ONCE = 50_000;
    private static final int LOAD = 8 << 20;

    private final Connection connection;
    private final int catalogue;
    private final LoadStore rows = new LoadStore("size_page", "catalogue_no,magnitude,page,entries").exactly();
    private final Map<Integer, ByteBuffer> open = new HashMap<>();
    private int pages;

    private SizePageStore(Connection connection, int catalogue) {
        this.connection = connection;
        this.catalogue = catalogue;
    }

    /** One file as a page tells it. */
    @FunctionalInterface
    public interface Reader {
        void read(long bytes, long useDay, long changeDay, int top);
    }

    /** Hands over all files of a page. */
    public static void read(byte[] entries, Reader reader) {
        ByteBuffer page = ByteBuffer.wrap(entries);
        while (page.hasRemaining()) {
            reader.read(page.getLong(), page.getLong(), page.getLong(), page.getInt());
        }
    }

    /**
     * Writes all anew.
     *
     * @throws SQLException when the database fails
     */
    public static void write(Connection connection, int catalogue) throws SQLException {
        BulkStore.execute(connection, "DELETE FROM size_page WHERE catalogue_no = ?", catalogue);
        new SizePageStore(connection, catalogue).write();
    }

    private record File(
            int folder, byte[] name, long bytes, long useDay, long changeDay, int magnitude, boolean counted) {}

    private void write() throws SQLException {
        List<File> files = after(-1, new byte[0]);
        while (!files.isEmpty()) {
            File last = files.getLast();
            Map<Integer, Integer> tops = tops(files.getFirst().folder, last.folder);
            for (File file : files) {
                if (file.counted) {
                    add(file, tops.get(file.folder));
                }
            }
            files = after(last.folder, last.name);
        }
        for (Map.Entry<Integer, ByteBuffer> last : open.entrySet()) {
            put(last.getKey(), last.getValue());
        }
        rows.flush(connection);
    }

    /** The rest of a folder first: a range for each of both is found by the key, one of both together is not. */
    private List<File> after(int folder, byte[] name) throws SQLException {
        List<File> files = new ArrayList<>();
        read(files, "folder_no = ? AND name > ?", folder, name);
        if (files.size() < AT_ONCE) {
            read(files, "folder_no > ?", folder, null);
        }
        return files;
    }

    private void read(List<File> into, String range, int folder, byte @Nullable [] name) throws SQLException {
        try (PreparedStatement sql = connection.prepareStatement(
                "SELECT folder_no, name, bytes, use_day, change_day, magnitude, counted FROM file FORCE INDEX (PRIMARY)"
                        + " WHERE catalogue_no = ? AND " + range + " ORDER BY folder_no, name LIMIT " + AT_ONCE)) {
            sql.setInt(1, catalogue);
            sql.setInt(2, folder);
            if (name != null) {
                sql.setBytes(3, name);
            }
            try (ResultSet row = sql.executeQuery()) {
                while (row.next()) {
                    into.add(new File(
                            row.getInt(1),
                            row.getBytes(2),
                            row.getLong(3),
                            row.getLong(4),
                            row.getLong(5),
                            row.getInt(6),
                            row.getInt(7) == 1));
                }
            }
        }
    }

    /** The folder of the first level that encloses each of some; 0 for the root. */
    private Map<Integer, Integer> tops(int from, int upTo) throws SQLException {
        Map<Integer, Integer> tops = new HashMap<>();
        try (PreparedStatement sql = connection.prepareStatement("SELECT x.no, COALESCE(top.no, 0) FROM "
                + AgeTallyStore.WITH_TOPS + " WHERE x.catalogue_no = ? AND x.no BETWEEN ? AND ?")) {
            sql.setInt(1, catalogue);
            sql.setInt(2, from);
            sql.setInt(3, upTo);
            try (ResultSet row = sql.executeQuery()) {
                while (row.next()) {
                    tops.put(row.getInt(1), row.getInt(2));
                }
            }
        }
        return tops;
    }

    private void add(File file, int top) throws SQLException {
        ByteBuffer page = open.computeIfAbsent(file.magnitude, none -> ByteBuffer.allocate(PAGE));
        page.putLong(file.bytes).putLong(file.useDay).putLong(file.changeDay).putInt(top);
        if (!page.hasRemaining()) {
            put(file.magnitude, page);
            page.clear();
        }
    }

    private void put(int magnitude, ByteBuffer page) throws SQLException {
        rows.number(catalogue).number(magnitude).number(pages++);
        rows.bytes(Arrays.copyOf(page.array(), page.position())).endRow();
        if (rows.size() > LOAD) {
            rows.flush(connection);
        }
    }
}
