package org.vastshelf.app.snapshot;

import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.Deque;
import java.util.EnumMap;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.SortedMap;
import java.util.TreeMap;
import org.springframework.stereotype.Service;
import org.vastshelf.app.kit.NotFound;
import org.vastshelf.app.road.NotThere;
import org.vastshelf.app.store.EstateStore;
import org.vastshelf.app.store.Transactions;
import org.vastshelf.core.estate.FilePath;
import org.vastshelf.core.estate.Share;
import org.vastshelf.core.snapshot.Differences;
import org.vastshelf.core.snapshot.Differences.Difference;
import org.vastshelf.core.snapshot.Differences.Entry;
import org.vastshelf.core.snapshot.Differences.Kind;

/** Says what is different between two states of a folder: snapshots of its volume, or one and what is there now. */
@Service
public class Comparing {

    /** More is not taken into memory; a folder of it is compared then. */
    private static final int MOST = 100_000;

    /** Stands for what is there now, where a snapshot's number is expected. */
    public static final int NOW = 0;

    private final CompareStore store;
    private final PastStore past;
    private final FindStore finds;
    private final SnapshotStore snapshots;
    private final EstateStore estates;
    private final Transactions transactions;

    Comparing(
            CompareStore store,
            PastStore past,
            FindStore finds,
            SnapshotStore snapshots,
            EstateStore estates,
            Transactions transactions) {
        this.store = store;
        this.past = past;
        this.finds = finds;
        this.snapshots = snapshots;
        this.estates = estates;
        this.transactions = transactions;
    }

    /**
     * Two states of a folder.
     *
     * @param from number of a snapshot
     * @param to number of another, or {@link #NOW}
     */
    public record Question(String share, int from, int to, FilePath folder) {}

    /**
     * A file that is different.
     *
     * @param before path in the first state; empty for one that was added
     * @param after path in the second; empty for one that was deleted
     */
    public record Line(Kind kind, String before, String after, long bytesBefore, long bytesAfter) {
        String path() {
            return after.isEmpty() ? before : after;
        }
    }

    /** Files and bytes of one kind of difference; of what was deleted the bytes before, else those after. */
    public record Sum(long files, long bytes) {
        private static final Sum NOTHING = new Sum(0, 0);

        private Sum plus(long more) {
            return new Sum(files + 1, bytes + more);
        }
    }

    /**
     * What is different, by path.
     *
     * @param folders by the next folder below the one that is compared
     */
    public record Answer(List<Line> lines, Map<Kind, Sum> sums, SortedMap<String, Map<Kind, Sum>> folders) {}

    /**
     * Compares.
     *
     * @throws NotThere when neither state has the folder
     * @throws IllegalArgumentException when more differs than can be listed
     */
    public Answer compare(Question question) {
        return transactions.run(() -> {
            int from = number(question.share, question.from);
            int to = number(question.share, question.to);
            Optional<PastStore.Place> before = past.folder(question.share, from, question.folder);
            Optional<PastStore.Place> after = past.folder(question.share, to, question.folder);
            int catalogue = before.or(() -> after)
                    .map(PastStore.Place::catalogue)
                    .orElseThrow(() -> NotThere.folder(question.share, question.folder));
            Optional<Set<Integer>> below =
                    question.folder.isRoot() ? Optional.empty() : Optional.of(below(List.of(before, after)));
            List<CompareStore.Only> gone = store.only(catalogue, from, to, below, MOST);
            List<CompareStore.Only> come = store.only(catalogue, to, from, below, MOST);
            if (gone.size() > MOST || come.size() > MOST) {
                throw new IllegalArgumentException("more than " + MOST + " files of '" + question.folder
                        + "' differ, must be at most so many; compare a folder in it");
            }
            return answer(
                    question.folder,
                    Differences.of(new Paths(catalogue, from).of(gone), new Paths(catalogue, to).of(come)));
        });
    }

    /** Of a snapshot that is there; what is there now comes after all of them. */
    private int number(String shareName, int asked) {
        if (asked == NOW) {
            return PastStore.NOW;
        }
        Share share = Optional.ofNullable(estates.load().shares().get(shareName))
                .orElseThrow(() -> new NotFound("share", shareName));
        if (snapshots.of(share.volume()).stream().noneMatch(taken -> taken.number() == asked)) {
            throw new NotFound("snapshot of volume " + share.volume(), String.valueOf(asked));
        }
        return asked;
    }

    private Set<Integer> below(List<Optional<PastStore.Place>> tops) {
        Set<Integer> all = new HashSet<>();
        Deque<PastStore.Place> next = new ArrayDeque<>();
        tops.forEach(top -> top.ifPresent(next::add));
        while (!next.isEmpty()) {
            PastStore.Place place = next.removeFirst();
            all.add(place.folder());
            next.addAll(past.children(place).values());
        }
        return all;
    }

    /** Where folders lay in one state. */
    private final class Paths {
        private final int catalogue;
        private final int number;
        private final Map<Integer, String> known = new HashMap<>();

        Paths(int catalogue, int number) {
            this.catalogue = catalogue;
            this.number = number;
        }

        List<Entry> of(List<CompareStore.Only> files) {
            return files.stream()
                    .map(file -> new Entry(
                            file.folder(), folder(file.folder()) + "/" + file.name(), file.bytes(), file.mark()))
                    .toList();
        }

        private String folder(int no) {
            return known.computeIfAbsent(
                    no,
                    folder -> finds.path(catalogue, folder, number)
                            .map(path -> path.isRoot() ? "" : path.text())
                            .orElse("?"));
        }
    }

    private static Answer answer(FilePath folder, List<Difference> found) {
        List<Line> lines = new ArrayList<>();
        Map<Kind, Sum> sums = new EnumMap<>(Kind.class);
        SortedMap<String, Map<Kind, Sum>> folders = new TreeMap<>();
        for (Difference difference : found) {
            Line line = new Line(
                    difference.kind(),
                    difference.before().map(Entry::path).orElse(""),
                    difference.after().map(Entry::path).orElse(""),
                    difference.before().map(Entry::bytes).orElse(0L),
                    difference.after().map(Entry::bytes).orElse(0L));
            lines.add(line);
            long bytes = line.kind == Kind.DELETED ? line.bytesBefore : line.bytesAfter;
            sums.put(line.kind, sums.getOrDefault(line.kind, Sum.NOTHING).plus(bytes));
            Map<Kind, Sum> here = folders.computeIfAbsent(next(folder, line.path()), name -> new EnumMap<>(Kind.class));
            here.put(line.kind, here.getOrDefault(line.kind, Sum.NOTHING).plus(bytes));
        }
        lines.sort(Comparator.comparing(Line::path));
        return new Answer(lines, sums, folders);
    }

    /** The folder below one in which a path lies; empty for a file in the folder itself. */
    private static String next(FilePath folder, String path) {
        int start = folder.isRoot() ? 1 : folder.text().length() + 1;
        int slash = path.indexOf('/', start);
        return path.length() > start && slash > start ? path.substring(start, slash) : "";
    }
}
