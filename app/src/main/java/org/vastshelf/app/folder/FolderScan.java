package org.vastshelf.app.folder;

import java.io.IOException;
import java.net.URI;
import java.nio.charset.StandardCharsets;
import java.nio.file.DirectoryIteratorException;
import java.nio.file.DirectoryStream;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.util.ArrayDeque;
import java.util.Deque;
import java.util.function.BooleanSupplier;
import org.vastshelf.app.catalogue.BulkWriter;
import org.vastshelf.app.catalogue.CatalogueStore.Catalogue;
import org.vastshelf.app.catalogue.FileRow;
import org.vastshelf.app.catalogue.PathBytes;
import org.vastshelf.core.catalogue.FileKind;

/**
 * Reads a real folder tree into a catalogue, breadth first. Folders found are rows with ascending numbers, and
 * everything up to {@code scanned_upto} has been read: that number is committed together with the rows, so a scan that
 * was stopped or killed goes on behind it. Memory holds one page of folders and one load of rows.
 */
final class FolderScan {

    private static final int PAGE = 2_000;

    private final Connection connection;
    private final Catalogue catalogue;
    private final byte[] root;
    private final BooleanSupplier stopped;
    private final HostFiles host = new HostFiles();
    private final HostNames names = new HostNames();
    private final BulkWriter writer;
    private long unreadable;
    private long begun = System.nanoTime();

    private record Folder(int no, int depth, byte[] path) {}

    /** Scans into a catalogue; {@code connection} must not commit by itself. */
    FolderScan(Connection connection, Catalogue catalogue, BooleanSupplier stopped) {
        this.connection = connection;
        this.catalogue = catalogue;
        this.root = PathBytes.of(catalogue.root());
        this.stopped = stopped;
        this.writer = new BulkWriter(connection, catalogue.no(), catalogue.nextFolder());
    }

    /** Goes on until all is read or somebody stops it; true when all is read. */
    boolean run() throws SQLException {
        int upto = catalogue.scannedUpto();
        if (catalogue.nextFolder() == 0) {
            writer.folder(0, 0, PathBytes.of("/"));
            commit(-1);
        }
        Deque<Folder> pending = page(upto);
        while (!pending.isEmpty()) {
            Folder folder = pending.poll();
            read(folder);
            upto = folder.no;
            if (writer.isFull() || pending.isEmpty()) {
                commit(upto);
                if (stopped.getAsBoolean()) {
                    return false;
                }
            }
            if (pending.isEmpty()) {
                pending = page(upto);
            }
        }
        BulkWriter.sumUp(connection, catalogue.no());
        commit(upto);
        return true;
    }

    private Deque<Folder> page(int after) throws SQLException {
        Deque<Folder> folders = new ArrayDeque<>();
        try (PreparedStatement sql = connection.prepareStatement(
                "SELECT no, depth, path FROM folder WHERE catalogue_no = ? AND no > ? ORDER BY no LIMIT " + PAGE)) {
            sql.setInt(1, catalogue.no());
            sql.setInt(2, after);
            try (ResultSet rows = sql.executeQuery()) {
                while (rows.next()) {
                    folders.add(new Folder(rows.getInt(1), rows.getInt(2), rows.getBytes(3)));
                }
            }
        }
        return folders;
    }

    private void read(Folder folder) throws SQLException {
        writer.inFolder(folder.no);
        byte[] hostPath = folder.path.length == 1 ? root : join(root, folder.path);
        try (DirectoryStream<Path> entries = new SafeFolders(path(root)).open(path(hostPath))) {
            for (Path entry : entries) {
                entry(folder, hostPath, name(entry));
            }
        } catch (IOException | DirectoryIteratorException e) {
            unreadable(folder.path, e.getClass().getSimpleName());
        }
    }

    private void entry(Folder folder, byte[] hostPath, byte[] name) throws SQLException {
        byte[] path = PathBytes.child(folder.path, name);
        try {
            HostFiles.Entry found = host.look(PathBytes.child(hostPath, name));
            if (found.isFolder()) {
                writer.folder(folder.no, folder.depth + 1, path);
            } else {
                boolean counted = found.links() < 2 || isFirstName(found);
                writer.file(row(name, found), counted);
            }
        } catch (HostFiles.NotReadable e) {
            unreadable(path, String.valueOf(e.getMessage()));
        }
    }

    private FileRow row(byte[] name, HostFiles.Entry found) {
        return new FileRow(
                name,
                found.bytes(),
                found.allocated(),
                names.user(found.uid()),
                names.group(found.gid()),
                found.modified(),
                found.accessed(),
                found.changed(),
                FileKind.of(new String(name, StandardCharsets.UTF_8)));
    }

    /** A file with several names counts where it is met first. */
    private boolean isFirstName(HostFiles.Entry found) throws SQLException {
        try (PreparedStatement sql = connection.prepareStatement("INSERT IGNORE INTO hard_link VALUES (?, ?, ?)")) {
            sql.setInt(1, catalogue.no());
            sql.setLong(2, found.device());
            sql.setLong(3, found.inode());
            return sql.executeUpdate() == 1;
        }
    }

    private void unreadable(byte[] path, String reason) throws SQLException {
        unreadable++;
        try (PreparedStatement sql =
                connection.prepareStatement("INSERT INTO unreadable (catalogue_no, path, reason) VALUES (?, ?, ?)")) {
            sql.setInt(1, catalogue.no());
            sql.setBytes(2, path);
            sql.setString(3, reason);
            sql.executeUpdate();
        }
    }

    private void commit(int upto) throws SQLException {
        writer.flush();
        try (PreparedStatement sql = connection.prepareStatement("UPDATE catalogue SET next_folder = ?,"
                + " scanned_upto = ?, files = ?, bytes = ?, unreadable = ?, millis = millis + ? WHERE no = ?")) {
            long now = System.nanoTime();
            sql.setInt(1, writer.nextFolder());
            sql.setInt(2, upto);
            sql.setLong(3, catalogue.files() + writer.files());
            sql.setLong(4, catalogue.bytes() + writer.bytes());
            sql.setLong(5, catalogue.unreadable() + unreadable);
            sql.setLong(6, (now - begun) / 1_000_000);
            sql.setInt(7, catalogue.no());
            sql.executeUpdate();
            begun = now;
        }
        connection.commit();
    }

    private static byte[] join(byte[] root, byte[] path) {
        byte[] joined = new byte[root.length + path.length];
        System.arraycopy(root, 0, joined, 0, root.length);
        System.arraycopy(path, 0, joined, root.length, path.length);
        return joined;
    }

    /** A path with exactly these bytes, which a {@code String} cannot carry when they are not UTF-8. */
    private static Path path(byte[] bytes) {
        String text = new String(bytes, StandardCharsets.UTF_8);
        if (!text.contains("\uFFFD") && text.chars().allMatch(c -> c < 128)) {
            return Path.of(text);
        }
        StringBuilder uri = new StringBuilder("file://");
        for (byte b : bytes) {
            boolean plain = b == '/' || b >= '0' && b <= '9' || b >= 'a' && b <= 'z' || b >= 'A' && b <= 'Z';
            uri.append(plain ? String.valueOf((char) b) : String.format("%%%02X", b & 0xff));
        }
        return Path.of(URI.create(uri.toString()));
    }

    /** The bytes of an entry's name; only through its URI where the text could have lost some. */
    private static byte[] name(Path entry) {
        String text = entry.getFileName().toString();
        for (int i = 0; i < text.length(); i++) {
            if (text.charAt(i) > 127) {
                return decoded(entry.toUri().getRawPath());
            }
        }
        return text.getBytes(StandardCharsets.US_ASCII);
    }

    private static byte[] decoded(String rawPath) {
        String path = rawPath.endsWith("/") ? rawPath.substring(0, rawPath.length() - 1) : rawPath;
        String name = path.substring(path.lastIndexOf('/') + 1);
        byte[] bytes = new byte[name.length()];
        int length = 0;
        for (int i = 0; i < name.length(); i++) {
            if (name.charAt(i) == '%') {
                bytes[length++] = (byte) Integer.parseInt(name.substring(i + 1, i + 3), 16);
                i += 2;
            } else {
                bytes[length++] = (byte) name.charAt(i);
            }
        }
        return java.util.Arrays.copyOf(bytes, length);
    }
}
