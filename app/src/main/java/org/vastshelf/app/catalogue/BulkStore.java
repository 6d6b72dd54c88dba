package org.vastshelf.app.catalogue;

import java.sql.Connection;
import java.sql.PreparedStatement;
import java.sql.SQLException;
import java.util.BitSet;
import java.util.HashMap;
import java.util.Map;
import org.vastshelf.app.content.ContentsCode;
import org.vastshelf.app.store.LoadStore;
import org.vastshelf.core.catalogue.FileKind;
import org.vastshelf.core.catalogue.SizeClass;
import org.vastshelf.core.content.Contents;

/**
 * Writes a catalogue in bulk. Folders get numbers in the order in which they come; the files of one folder come
 * together. Memory is that of a few loads and of one folder's roll-up, however many files there are. Nothing is kept
 * before the connection is committed.
 */
public final class BulkStore implements AutoCloseable {

    private static final int LOAD_BYTES = 4 << 20;
    /** Several connections at the end of one table get less in each other's way in larger pieces. */
    private static final int LARGE_LOAD_BYTES = 12 << 20;

    private final Connection connection;
    private final Loader loader;
    private final int loadBytes;
    private final int catalogue;
    private final LoadStore folders =
            new LoadStore("folder", "catalogue_no,no,parent_no,depth,path_hash,path,sum_files,sum_bytes,sum_allocated");
    private final LoadStore files = new LoadStore(
            "file",
            "catalogue_no,folder_no,name,bytes,allocated,owner,owner_group,modified_at,accessed_at,changed_at,kind,counted,extents,born");
    private final LoadStore tallies =
            new LoadStore("tally", "catalogue_no,folder_no,month,size_class,kind,owner,files,bytes,allocated");
    private final Map<Cell, long[]> cells = new HashMap<>();
    private final BitSet ended = new BitSet();
    private boolean scattered;
    private int nextFolder;
    private int folder;
    private long fileCount;
    private long byteCount;

    private record Cell(int month, SizeClass size, FileKind kind, String owner) {}

    /** Loads at once; between rows the connection may be used for other things. */
    public BulkStore(Connection connection, int catalogue, int nextFolder) {
        this(connection, Loader.atOnce(connection), LOAD_BYTES, catalogue, nextFolder);
    }

    /**
     * For a new catalogue. Loads beside the making of rows, over all connections given; they are free only after
     * {@link #flush}, and the others have to be committed before {@link #complete}.
     */
    public static BulkStore beside(int catalogue, Connection connection, Connection... others) {
        return new BulkStore(connection, Loader.beside(connection, others), LARGE_LOAD_BYTES, catalogue, 0);
    }

    private BulkStore(Connection connection, Loader loader, int loadBytes, int catalogue, int nextFolder) {
        this.loadBytes = loadBytes;
        this.connection = connection;
        this.loader = loader;
        this.catalogue = catalogue;
        this.nextFolder = nextFolder;
    }

    /** Adds a folder and returns its number; the root is number 0 and its own parent. */
    public int folder(int parent, int depth, byte[] path) {
        int no = nextFolder++;
        folders.number(catalogue).number(no).number(parent).number(depth);
        folders.bytes(PathBytes.hash(path))
                .bytes(path)
                .number(0)
                .number(0)
                .number(0)
                .endRow();
        return no;
    }

    public int nextFolder() {
        return nextFolder;
    }

    public long files() {
        return fileCount;
    }

    public long bytes() {
        return byteCount;
    }

    /** Begins with the files of a folder. */
    public void inFolder(int no) throws SQLException {
        endFolder();
        folder = no;
        scattered |= ended.get(no);
    }

    /**
     * Adds a file to the folder begun.
     *
     * @param counted false for a further name of a file that is counted already
     */
    public void file(FileRow file, boolean counted) throws SQLException {
        file(file, counted, ContentsCode.ELSEWHERE, 0);
    }

    /**
     * Adds a file of a simulated server.
     *
     * @param contents what it holds
     * @param born how many snapshots had been taken when it was last saved
     */
    public void file(FileRow file, Contents contents, int born) throws SQLException {
        file(file, true, ContentsCode.write(contents), born);
    }

    private void file(FileRow file, boolean counted, byte[] contents, int born) throws SQLException {
        files.number(catalogue)
                .number(folder)
                .bytes(file.name())
                .number(file.bytes())
                .number(file.allocated());
        files.text(file.owner()).text(file.group()).number(file.modified()).number(file.accessed());
        files.number(file.changed())
                .number(file.kind().ordinal())
                .number(counted ? 1 : 0)
                .bytes(contents)
                .number(born)
                .endRow();
        fileCount++;
        if (counted) {
            byteCount += file.bytes();
            count(file);
        }
        if (isFull()) {
            load();
        }
    }

    private void count(FileRow file) {
        Cell cell = new Cell(file.month(), SizeClass.of(file.bytes()), file.kind(), file.owner());
        long[] sums = cells.computeIfAbsent(cell, c -> new long[3]);
        sums[0]++;
        sums[1] += file.bytes();
        sums[2] += file.allocated();
    }

    /**
     * Sums up what was written. Where the files of a folder did not come together, its figures are counted again.
     *
     * @throws SQLException when the database fails
     */
    public void complete() throws SQLException {
        flush();
        if (scattered) {
            recount();
        }
        sumUp(connection, catalogue);
    }

    private void recount() throws SQLException {
        execute(connection, "DELETE FROM tally WHERE catalogue_no = ?", catalogue);
        try {
            new CatalogueRowStore(connection, catalogue).eachFile((no, path, file, counted) -> {
                if (no != folder) {
                    endFolder();
                    folder = no;
                }
                if (counted) {
                    count(file);
                }
            });
        } catch (java.io.IOException never) {
            throw new java.io.UncheckedIOException(never);
        }
        endFolder();
        // Over this connection, which has taken the former figures away.
        tallies.flush(connection);
    }

    private void endFolder() {
        if (!cells.isEmpty()) {
            ended.set(folder);
        }
        cells.forEach((cell, sums) -> {
            tallies.number(catalogue).number(folder).number(cell.month).number(cell.size.ordinal());
            tallies.number(cell.kind.ordinal()).text(cell.owner);
            tallies.number(sums[0]).number(sums[1]).number(sums[2]).endRow();
        });
        cells.clear();
    }

    /** True when so much has gathered that it should be loaded and committed. */
    public boolean isFull() {
        return files.size() + folders.size() + tallies.size() > loadBytes;
    }

    /** Everything but the figures of the folder begun. */
    private void load() throws SQLException {
        loader.load(folders);
        loader.load(files);
        loader.load(tallies);
    }

    /** Loads everything up to here; the folder begun is ended. Until the next row comes, the connection is free. */
    public void flush() throws SQLException {
        endFolder();
        load();
        loader.await();
    }

    @Override
    public void close() {
        loader.close();
    }

    /** Sums the folders up, deepest first: own files, then what lies below. */
    public static void sumUp(Connection connection, int catalogue) throws SQLException {
        execute(connection, """
                UPDATE folder f
                LEFT JOIN (SELECT folder_no, SUM(files) files, SUM(bytes) bytes, SUM(allocated) allocated
                           FROM tally WHERE catalogue_no = ? GROUP BY folder_no) t ON t.folder_no = f.no
                SET f.sum_files = COALESCE(t.files, 0), f.sum_bytes = COALESCE(t.bytes, 0),
                    f.sum_allocated = COALESCE(t.allocated, 0)
                WHERE f.catalogue_no = ?""", catalogue, catalogue);
        rollUp(connection, catalogue);
        for (int depth = deepest(connection, catalogue); depth > 0; depth--) {
            execute(connection, """
                    UPDATE folder f
                    JOIN (SELECT parent_no, SUM(sum_files) files, SUM(sum_bytes) bytes, SUM(sum_allocated) allocated
                          FROM folder WHERE catalogue_no = ? AND depth = ? GROUP BY parent_no) c ON c.parent_no = f.no
                    SET f.sum_files = f.sum_files + c.files, f.sum_bytes = f.sum_bytes + c.bytes,
                        f.sum_allocated = f.sum_allocated + c.allocated
                    WHERE f.catalogue_no = ?""", catalogue, depth, catalogue);
        }
    }

    /** The figures of the catalogue as a whole: by age and size, by kind, by owner. */
    private static void rollUp(Connection connection, int catalogue) throws SQLException {
        execute(connection, "DELETE FROM tally WHERE catalogue_no = ? AND folder_no < 0", catalogue);
        for (RollUp whole : RollUp.values()) {
            execute(
                    connection,
                    "INSERT INTO tally SELECT catalogue_no, " + whole.folder() + ", " + whole.columns()
                            + ", SUM(files), SUM(bytes), SUM(allocated) FROM tally"
                            + " WHERE catalogue_no = ? AND folder_no >= 0 GROUP BY catalogue_no, " + whole.by(),
                    catalogue);
        }
    }

    private static int deepest(Connection connection, int catalogue) throws SQLException {
        try (PreparedStatement sql =
                connection.prepareStatement("SELECT COALESCE(MAX(depth), 0) FROM folder WHERE catalogue_no = ?")) {
            sql.setInt(1, catalogue);
            try (var result = sql.executeQuery()) {
                result.next();
                return result.getInt(1);
            }
        }
    }

    static void execute(Connection connection, String text, int... values) throws SQLException {
        try (PreparedStatement sql = connection.prepareStatement(text)) {
            for (int i = 0; i < values.length; i++) {
                sql.setInt(i + 1, values[i]);
            }
            sql.executeUpdate();
        }
    }
}
