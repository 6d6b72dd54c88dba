package org.vastshelf.app.folder;

import java.io.IOException;
import java.io.InputStream;
import java.nio.channels.Channels;
import java.nio.file.DirectoryStream;
import java.nio.file.LinkOption;
import java.nio.file.NotDirectoryException;
import java.nio.file.Path;
import java.nio.file.SecureDirectoryStream;
import java.nio.file.StandardOpenOption;
import java.nio.file.attribute.BasicFileAttributeView;
import java.util.Arrays;
import java.util.Optional;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import org.vastshelf.app.catalogue.PathBytes;

/**
 * The files of a folder tree of this host, to be read. None is reached through a symbolic link; files of one folder are
 * opened from the same open folder as long as they come one after the other.
 */
public final class HostTree implements AutoCloseable {

    private final Path root;
    private byte[] at = new byte[0];
    private @Nullable DirectoryStream<Path> open;

    public HostTree(String root) {
        this.root = HostPaths.path(PathBytes.of(root));
    }

    /**
     * Opens a file.
     *
     * @param folder its folder's path below the root, {@code /} for the root
     * @return empty for what is no regular file: to open a pipe would be to wait for its writer
     */
    public Optional<InputStream> open(byte[] folder, byte[] name) throws IOException {
        if (!(in(folder) instanceof SecureDirectoryStream<Path> secure)) {
            throw new NotDirectoryException("folders of this host can't be opened without following links");
        }
        Path file = HostPaths.path(PathBytes.child(PathBytes.of("/"), name)).getFileName();
        boolean regular = secure.getFileAttributeView(file, BasicFileAttributeView.class, LinkOption.NOFOLLOW_LINKS)
                .readAttributes()
                .isRegularFile();
        return regular
                ? Optional.of(Channels.newInputStream(
                        secure.newByteChannel(file, Set.of(StandardOpenOption.READ, LinkOption.NOFOLLOW_LINKS))))
                : Optional.empty();
    }

    private DirectoryStream<Path> in(byte[] folder) throws IOException {
        DirectoryStream<Path> known = open;
        if (known == null || !Arrays.equals(at, folder)) {
            close();
            Path path = HostPaths.path(folder);
            known = new SafeFolders(root)
                    .open(path.getNameCount() == 0 ? root : root.resolve(path.subpath(0, path.getNameCount())));
            open = known;
            at = folder.clone();
        }
        return known;
    }

    @Override
    public void close() throws IOException {
        if (open != null) {
            open.close();
            open = null;
        }
    }
}
