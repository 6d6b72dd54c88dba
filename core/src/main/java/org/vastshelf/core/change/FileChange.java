package org.vastshelf.core.change;

import java.util.List;
import java.util.Locale;
import org.vastshelf.core.estate.FilePath;

/** Changes of what lies on shares. */
public sealed interface FileChange extends Change {

    /** What becomes of files that are there already. */
    enum Onto {
        KEEP("keep what is there"),
        REPLACE("replace what is there"),
        /** As it was then: what was not there goes too. */
        EXACT("make it exactly as it was");

        private final String title;

        Onto(String title) {
            this.title = title;
        }

        public String title() {
            return title;
        }
    }

    /**
     * Brings files back as a snapshot has them.
     *
     * @param from the folder, as the snapshot has it
     * @param names of files and folders in it; none for all
     * @param to where it goes
     * @param bytes of what is brought back, as it was measured
     */
    record BringBack(String share, int snapshot, FilePath from, List<String> names, FilePath to, Onto onto, long bytes)
            implements FileChange {
        public BringBack {
            names = List.copyOf(names);
            if (bytes < 0) {
                throw new IllegalArgumentException("bytes is " + bytes + ", must be at least 0");
            }
        }

        @Override
        public String title() {
            String what = names.isEmpty()
                    ? "'" + from + "'"
                    : names.size() == 1
                            ? "'" + from.child(names.getFirst()) + "'"
                            : names.size() + " of '" + from + "'";
            return "Bring back " + what + " of share " + share + " from snapshot " + snapshot + " to '" + to + "', "
                    + onto.title().toLowerCase(Locale.ROOT);
        }
    }
}
