package org.vastshelf.app.snapshot;

import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.util.Arrays;
import java.util.SortedMap;
import java.util.TreeMap;
import org.springframework.stereotype.Component;
import org.vastshelf.app.content.FileBytes;
import org.vastshelf.app.store.Digests;
import org.vastshelf.core.content.Contents;
import org.vastshelf.core.estate.FilePath;

/**
 * Compares what a clone shows with the snapshot that it is of: every file by name, length, owner, time and what it is
 * made of, and as many as a portion has time for by the checksum of all their bytes, read on both sides.
 */
@Component
public class CloneComparison {

    private static final int PORTION = 5_000;
    /** A larger file is not read whole. */
    private static final long LARGEST_READ = 8L << 20;
    /** So much is read in a portion, on each side. */
    private static final long MOST_READ = 16L << 20;

    private final PastStore past;
    private final FileBytes bytes;

    CloneComparison(PastStore past, FileBytes bytes) {
        this.past = past;
        this.bytes = bytes;
    }

    /**
     * What was found.
     *
     * @param at where it stands
     * @param all whether all was compared
     * @param readBytes of the files that were read whole on both sides
     * @param differing files that are not the same, of which one is named
     */
    public record Part(
            String at,
            boolean all,
            long files,
            long bytes,
            long readFiles,
            long readBytes,
            long differing,
            String named) {}

    /** Compares some folders, from where it was left. */
    public Part some(String source, int snapshot, String clone, String from) {
        Count count = new Count();
        Walk walk = new Walk(past, from, (path, place) -> {
            SortedMap<String, PastStore.Was> is =
                    past.now(clone, path, PastStore.NOW).map(past::whole).orElseGet(TreeMap::new);
            SortedMap<String, PastStore.Was> was = past.whole(place);
            was.forEach((name, file) -> count.compare(path.child(name), file, is.remove(name)));
            is.keySet().forEach(name -> count.differs(path.child(name)));
            return count.files < PORTION;
        });
        boolean all =
                past.folder(source, snapshot, FilePath.ROOT).map(walk::from).orElse(true);
        return new Part(
                walk.at(),
                all,
                count.files,
                count.bytes,
                count.readFiles,
                count.readBytes,
                count.differing,
                count.named);
    }

    private final class Count {
        private long files;
        private long bytes;
        private long readFiles;
        private long readBytes;
        private long differing;
        private String named = "";

        void compare(FilePath path, PastStore.Was was, PastStore.Was is) {
            files++;
            bytes += was.row().bytes();
            if (is == null
                    || !was.contents().equals(is.contents())
                    || was.row().bytes() != is.row().bytes()
                    || was.row().modified() != is.row().modified()
                    || !was.row().owner().equals(is.row().owner())) {
                differs(path);
            } else if (was.row().bytes() <= Math.min(LARGEST_READ, MOST_READ - readBytes)) {
                readFiles++;
                readBytes += was.row().bytes();
                if (!Arrays.equals(checksum(was.contents()), checksum(is.contents()))) {
                    differs(path);
                }
            }
        }

        void differs(FilePath path) {
            differing++;
            named = named.isEmpty() ? path.text() : named;
        }
    }

    private byte[] checksum(Contents contents) {
        try (InputStream in = bytes.open(contents, 0, contents.length())) {
            return Digests.ofAll(in);
        } catch (IOException unreadable) {
            throw new UncheckedIOException(unreadable);
        }
    }
}
