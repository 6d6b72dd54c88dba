package org.vastshelf.core.saving;

/**
 * A file as it is told of in a measurement.
 *
 * @param kind name of its kind
 * @param folder the outermost folder in which it lies; "/" for none
 * @param age name of the band of its age
 * @param key by which it is found again, such as of its folder and its name
 */
public record MeasuredFile(String kind, String folder, String age, long key, String path) {

    static final MeasuredFile UNKNOWN = new MeasuredFile("", "/", "", 0, "");
}
