package org.vastshelf.app.folder;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.DirectoryIteratorException;
import java.nio.file.DirectoryStream;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.SQLException;
import java.util.Deque;
import java.util.function.BooleanSupplier;
import org.vastshelf.app.catalogue.AgeTallyStore;
import org.vastshelf.app.catalogue.BulkStore;
import org.vastshelf.app.catalogue.CatalogueRowStore;
import org.vastshelf.app.catalogue.CatalogueRowStore.Folder;
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

    private final Connection connection;
    private final Catalogue catalogue;
    private final byte[] root;
    private final String lease;
    private final String node;
    private final BooleanSupplier stopped;
    private final HostFiles host = new HostFiles();
    private final HostNames names = new HostNames();
    private final BulkStore writer;
    private final CatalogueRowStore rows;
    private long unreadable;
    private long begun = System.nanoTime();

    /**
     * Scans into a catalogue; {@code connection} must not commit by itself.
     *
     * @param lease that this node has, and without which nothing is committed
     */
    FolderScan(Connection connection, Catalogue catalogue, String lease, String node, BooleanSupplier stopped) {
        this.lease = lease;
        this.node = node;
        this.connection = connection;
        this.catalogue = catalogue;
        this.root = PathBytes.of(catalogue.root());
        this.stopped = stopped;
        this.writer = new BulkStore(connection, catalogue.no(), catalogue.nextFolder());
        this.rows = new CatalogueRowStore(connection, catalogue.no());
    }

    /** Goes on until all is read or somebody stops it; true when all is read. */
    boolean run() throws SQLException {
        int upto = catalogue.scannedUpto();
        if (catalogue.nextFolder() == 0) {
            writer.folder(0, 0, PathBytes.of("/"));
            commit(-1);
        }
        Deque<Folder> pending = rows.foldersAfter(upto);
        while (!pending.isEmpty()) {
            Folder folder = pending.poll();
            read(folder);
            upto = folder.no();
            if (writer.isFull() || pending.isEmpty()) {
                commit(upto);
                if (stopped.getAsBoolean()) {
                    return false;
                }
            }
            if (pending.isEmpty()) {
                pending = rows.foldersAfter(upto);
            }
        }
        BulkStore.sumUp(connection, catalogue.no());
        AgeTallyStore.sumUp(connection, catalogue.no());
        commit(upto);
        return true;
    }

    private void read(Folder folder) throws SQLException {
        writer.inFolder(folder.no());
        byte[] hostPath = folder.path().length == 1 ? root : join(root, folder.path());
        try (DirectoryStream<Path> entries = new SafeFolders(HostPaths.path(root)).open(HostPaths.path(hostPath))) {
            for (Path entry : entries) {
                entry(folder, hostPath, name(entry));
            }
        } catch (IOException | DirectoryIteratorException e) {
            unreadable(folder.path(), e.getClass().getSimpleName());
        }
    }

    private void entry(Folder folder, byte[] hostPath, byte[] name) throws SQLException {
        byte[] path = PathBytes.child(folder.path(), name);
        try {
            HostFiles.Entry found = host.look(PathBytes.child(hostPath, name));
            if (found.isFolder()) {
                writer.folder(folder.no(), folder.depth() + 1, path);
            } else {
                boolean counted = found.links() < 2 || rows.isFirstName(found.device(), found.inode());
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

    private void unreadable(byte[] path, String reason) throws SQLException {
        unreadable++;
        rows.unreadable(path, reason);
    }

    private void commit(int upto) throws SQLException {
        writer.flush();
        long now = System.nanoTime();
        rows.progress(new CatalogueRowStore.Progress(
                writer.nextFolder(),
                upto,
                catalogue.files() + writer.files(),
                catalogue.bytes() + writer.bytes(),
                catalogue.unreadable() + unreadable,
                (now - begun) / 1_000_000));
        begun = now;
        if (!rows.holds(lease, node)) {
            connection.rollback();
            throw new Overtaken();
        }
        connection.commit();
    }

    /** Another node has taken the scan over. */
    static final class Overtaken extends RuntimeException {}

    private static byte[] join(byte[] root, byte[] path) {
        byte[] joined = new byte[root.length + path.length];
        System.arraycopy(root, 0, joined, 0, root.length);
        System.arraycopy(path, 0, joined, root.length, path.length);
        return joined;
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
