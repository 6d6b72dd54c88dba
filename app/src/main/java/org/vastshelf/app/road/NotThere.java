package org.vastshelf.app.road;

import org.vastshelf.core.estate.FilePath;
import org.vastshelf.core.gate.FileOperation;

/** What an operation is about does not exist. */
public final class NotThere extends RuntimeException {

    public NotThere(String message) {
        super(message);
    }

    static NotThere file(FileOperation operation) {
        return new NotThere("There is no file '" + operation.path() + "' on share " + operation.share());
    }

    public static NotThere folder(String share, FilePath folder) {
        return new NotThere("There is no folder '" + folder + "' on share " + share);
    }
}
