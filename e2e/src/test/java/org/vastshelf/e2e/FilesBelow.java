package org.vastshelf.e2e;

import java.io.IOException;
import java.nio.file.FileVisitResult;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.nio.file.SimpleFileVisitor;
import java.nio.file.attribute.BasicFileAttributes;
import java.util.HashSet;
import java.util.Set;

/** The files below a folder in which a running server makes and removes some meanwhile. */
final class FilesBelow {

    private FilesBelow() {}

    static Set<Path> in(Path root) throws IOException {
        Set<Path> found = new HashSet<>();
        Files.walkFileTree(root, new SimpleFileVisitor<>() {
            @Override
            public FileVisitResult visitFile(Path file, BasicFileAttributes attributes) {
                found.add(file);
                return FileVisitResult.CONTINUE;
            }

            @Override
            public FileVisitResult visitFileFailed(Path file, IOException gone) throws IOException {
                return afterIt(gone);
            }

            @Override
            public FileVisitResult postVisitDirectory(Path folder, IOException gone) throws IOException {
                return afterIt(gone);
            }
        });
        return found;
    }

    private static FileVisitResult afterIt(IOException gone) throws IOException {
        if (gone != null && !(gone instanceof NoSuchFileException)) {
            throw gone;
        }
        return FileVisitResult.CONTINUE;
    }
}
