package org.vastshelf.app.desk;

import org.vastshelf.app.kit.AtField;
import org.vastshelf.core.estate.FilePath;

/**
 * Who sits at the desk, and what they look at.
 *
 * @param after where the part of the folder begins that is shown; empty for its beginning
 * @param chosen name of the file or folder that is looked at closely; empty for none
 */
record Seat(String person, String share, String path, String after, String chosen) {

    Seat {
        person = person == null ? "" : person;
        share = share == null ? "" : share;
        path = path == null || path.isEmpty() ? "/" : path;
        after = after == null ? "" : after;
        chosen = chosen == null ? "" : chosen;
    }

    Seat at(String otherPerson, String otherShare) {
        return new Seat(otherPerson, otherShare, path, after, chosen);
    }

    /** The same view with nothing chosen, as after the chosen one went away. */
    Seat choosing(String name) {
        return new Seat(person, share, path, after, name);
    }

    FilePath folder() {
        return new FilePath(path);
    }

    /** The path of something in the folder that is looked at. */
    FilePath inside(String field, String name) {
        if (name.isBlank() || name.contains("/")) {
            throw new AtField(
                    field,
                    (field.equals("folder") ? "folder" : "file") + " name is '" + name
                            + "', must not be empty or hold a slash");
        }
        return AtField.read(field, () -> folder().child(name.strip()));
    }
}
