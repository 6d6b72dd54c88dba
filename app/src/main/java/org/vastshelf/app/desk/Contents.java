package org.vastshelf.app.desk;

import java.io.InputStream;
import java.nio.file.Path;
import java.util.Optional;
import org.vastshelf.core.estate.FilePath;

/** Port to what file servers keep of a file beside its record. */
public interface Contents {

    void keep(String share, FilePath path, InputStream contents);

    /** Where the contents of so many bytes can be read; empty when they were never kept or were replaced since. */
    Optional<Path> find(String share, FilePath path, long bytes);

    void remove(String share, FilePath path);
}
