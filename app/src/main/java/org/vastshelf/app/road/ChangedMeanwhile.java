package org.vastshelf.app.road;

import org.vastshelf.core.gate.FileOperation;

/** A file is not any more what it was when something began that takes its time. */
public final class ChangedMeanwhile extends RuntimeException {

    ChangedMeanwhile(FileOperation operation) {
        super("'" + operation.path() + "' on share " + operation.share() + " was changed meanwhile");
    }
}
