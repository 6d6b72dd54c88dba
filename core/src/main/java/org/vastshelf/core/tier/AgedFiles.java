package org.vastshelf.core.tier;

import java.util.List;
import java.util.Set;
import java.util.function.Predicate;

/** The files of a catalogue as a rule of tiering meets them; implemented by whoever keeps them. */
public interface AgedFiles {

    /**
     * Files of one standing, by the day of their time and by the folder of the first level in which they lie.
     *
     * @param folder its path, {@code /} for what lies in the root itself
     * @param day days since 1970; of files that do not leave some day of the same {@link AgeBand} is enough
     */
    record Cell(String folder, long day, Standing standing, FileSum sum) {}

    /** One file that may leave. */
    record AgedFile(String folder, long bytes) {}

    /**
     * @param folders those of the first level, and {@code /}
     * @param today days since 1970, from which ages are counted back
     * @param cells in any order; several of one folder, day and standing add up
     */
    record Survey(Set<String> folders, long today, List<Cell> cells) {}

    Survey survey();

    /** Hands over the files of a day that may leave, as long as they are wanted: oldest second first, then longest, then by path. */
    void ofDay(long day, Predicate<AgedFile> wantsMore);
}
