package org.vastshelf.core.saving;

import org.vastshelf.core.catalogue.FileKind;
import org.vastshelf.core.spare.AgeBand;

/**
 * A file as it is told of in a measurement.
 *
 * @param folder the outermost folder in which it lies; "/" for none
 * @param age since its last change
 * @param key by which it is found again, such as of its folder and its name
 */
public record MeasuredFile(FileKind kind, String folder, AgeBand age, long key, String path) {

    static final MeasuredFile UNKNOWN = new MeasuredFile(FileKind.OTHER, "/", AgeBand.MONTH, 0, "");
}
