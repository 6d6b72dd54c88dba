package org.vastshelf.core.gate;

import java.util.List;
import org.vastshelf.core.estate.FilePath;
import org.vastshelf.core.unit.Bytes;

/**
 * Something a person does to a file.
 *
 * @param bytes size of the file after a write; zero otherwise
 */
public record FileOperation(Kind kind, String person, String share, FilePath path, Bytes bytes, Client client) {

    public static final Bytes LARGEST_FILE = Bytes.tib(64);

    public enum Kind {
        LIST,
        READ,
        WRITE,
        DELETE;

        public boolean needsWrite() {
            return this == WRITE || this == DELETE;
        }
    }

    /** From where, and over which protocol. */
    public record Client(String address, Protocol protocol) {}

    public enum Protocol {
        SMB,
        NFS
    }

    public FileOperation {
        if (bytes.isMoreThan(LARGEST_FILE)) {
            throw new IllegalArgumentException(
                    "bytes is " + bytes.value() + ", must be at most " + LARGEST_FILE.value());
        }
        if (path.isRoot() && List.of(Kind.WRITE, Kind.DELETE).contains(kind)) {
            throw new IllegalArgumentException("path is '/', must name a file");
        }
    }
}
