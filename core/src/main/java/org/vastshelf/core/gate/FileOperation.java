package org.vastshelf.core.gate;

import java.util.Optional;
import org.vastshelf.core.estate.FilePath;
import org.vastshelf.core.unit.Bytes;

/**
 * Something a person does to a file or a folder.
 *
 * @param bytes size of the file after a write or an edit; of all that arrives, of a move or a copy; zero otherwise
 * @param to where a moved file or folder goes; empty of all others
 */
public record FileOperation(
        Kind kind, String person, String share, FilePath path, Bytes bytes, Client client, Optional<FilePath> to) {

    public static final Bytes LARGEST_FILE = Bytes.tib(64);

    /** What is done; a copy is told of at the place where it arrives, what it reads is an operation of its own. */
    public enum Kind {
        LIST,
        READ,
        WRITE,
        EDIT,
        DELETE,
        MOVE,
        MOVE_FOLDER,
        COPY,
        COPY_FOLDER,
        MAKE_FOLDER,
        REMOVE_FOLDER,
        /** An administrator saves a file as a snapshot has it. */
        RESTORE,
        /** An administrator takes a file away that a state which is brought back did not have. */
        CLEAR,
        /** What a copy that takes over does not have gives way, or what it has comes back. */
        FALL_BACK,
        /** What a file holds goes to a cold store; the file stays, and reads as before. */
        LEAVE,
        /** What a file holds comes back from a cold store. */
        RECALL;

        /** Whether it is done for who runs the estate, on any share. */
        public boolean isOfAdministrators() {
            return this == RESTORE || this == CLEAR || this == FALL_BACK || keepsContents();
        }

        /** Whether a file holds the same before and after it, and only lies elsewhere. */
        public boolean keepsContents() {
            return this == LEAVE || this == RECALL;
        }

        public boolean needsWrite() {
            return this != LIST && this != READ;
        }

        /** Whether something may take more room than before. */
        public boolean mayGrow() {
            return needsWrite()
                    && this != FALL_BACK
                    && this != LEAVE
                    && this != DELETE
                    && this != CLEAR
                    && this != MAKE_FOLDER
                    && this != REMOVE_FOLDER;
        }

        /** Whether it may change or take away what lies at its path. */
        public boolean touchesWhatIsThere() {
            return this != FALL_BACK && !keepsContents() && (saves() || moves())
                    || this == DELETE
                    || this == CLEAR
                    || this == REMOVE_FOLDER;
        }

        /** Whether its path is that of a folder. */
        public boolean isOfFolder() {
            return this == LIST
                    || this == MOVE_FOLDER
                    || this == COPY_FOLDER
                    || this == MAKE_FOLDER
                    || this == REMOVE_FOLDER;
        }

        public boolean moves() {
            return this == MOVE || this == MOVE_FOLDER;
        }

        /** Whether it is about a single file, whose contents are new or lie elsewhere. */
        public boolean saves() {
            return this == WRITE || this == EDIT || this == RESTORE || this == FALL_BACK || keepsContents();
        }
    }

    /** From where, and over which protocol. */
    public record Client(String address, Protocol protocol) {}

    public enum Protocol {
        SMB,
        NFS
    }

    public FileOperation {
        if (kind.saves() && bytes.isMoreThan(LARGEST_FILE)) {
            throw new IllegalArgumentException(
                    "bytes is " + bytes.value() + ", must be at most " + LARGEST_FILE.value());
        }
        if (path.isRoot() && kind.needsWrite()) {
            throw new IllegalArgumentException("path is '/', must name a file or a folder in it");
        }
        if (to.isPresent() != kind.moves()) {
            throw new IllegalArgumentException(
                    to.isPresent()
                            ? "only a move goes to another path"
                            : "a move goes to another path, which is missing");
        }
        if (to.filter(FilePath::isRoot).isPresent()) {
            throw new IllegalArgumentException("the new path is '/', must name a file or a folder in it");
        }
    }

    /** One that stays where it is. */
    public FileOperation(Kind kind, String person, String share, FilePath path, Bytes bytes, Client client) {
        this(kind, person, share, path, bytes, client, Optional.empty());
    }

    /** Another that the same client does at the same place. */
    public FileOperation as(Kind other) {
        return new FileOperation(other, person, share, path, bytes, client, to);
    }

    public FileOperation of(Bytes other) {
        return new FileOperation(kind, person, share, path, other, client, to);
    }

    /** Where its file or folder is afterwards. */
    public FilePath place() {
        return to.orElse(path);
    }
}
