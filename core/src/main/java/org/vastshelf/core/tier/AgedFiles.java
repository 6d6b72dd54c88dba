package org.vastshelf.core.tier;

import java.util.List;
import java.util.Map;
import java.util.function.Predicate;

/** The files of a catalogue as a rule of tiering meets them; implemented by whoever keeps them. */
public interface AgedFiles {

    /**
     * Files that may leave, by the day of their time and by the folder of the first level in which they lie.
     *
     * @param folder its path, {@code /} for what lies in the root itself
     * @param day days since 1970
     */
    record Cell(String folder, long day, FileSum sum) {}

    /** One file that may leave. */
    record AgedFile(String folder, long bytes) {}

    /**
     * @param here what is here by folders of the first level, whether it may leave or not
     * @param left what has left
     * @param mayLeave in any order; several cells of one folder and day add up
     */
    record Survey(Map<String, FileSum> here, Map<String, FileSum> left, List<Cell> mayLeave) {}

    Survey survey();

    /** Hands over the files of a day that may leave, as long as they are wanted: oldest second first, then longest, then by path. */
    void ofDay(long day, Predicate<AgedFile> wantsMore);
}
