package org.vastshelf.app.folder;

import java.io.IOException;
import java.nio.file.DirectoryStream;
import java.nio.file.Files;
import java.nio.file.LinkOption;
import java.nio.file.NotDirectoryException;
import java.nio.file.Path;
import java.nio.file.SecureDirectoryStream;

/**
 * Opens folders below a root step by step, each from the open one above it and none through a symbolic link, so that a
 * folder that somebody swaps for a link after it was listed leads nowhere.
 */
final class SafeFolders {

    private final Path root;

    SafeFolders(Path root) {
        this.root = root;
    }

    /** Opens a folder by its path below the root; the root itself by its own path. */
    DirectoryStream<Path> open(Path folder) throws IOException {
        DirectoryStream<Path> stream = Files.newDirectoryStream(root);
        if (folder.equals(root)) {
            return stream;
        }
        for (Path part : root.relativize(folder)) {
            try (DirectoryStream<Path> above = stream) {
                if (!(above instanceof SecureDirectoryStream<Path> secure)) {
                    throw new NotDirectoryException("folders of this host can't be opened without following links");
                }
                stream = secure.newDirectoryStream(part, LinkOption.NOFOLLOW_LINKS);
            }
        }
        return stream;
    }
}
