package org.vastshelf.app.common;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import org.springframework.stereotype.Service;
import org.vastshelf.app.common.CommonStore.Row;
import org.vastshelf.core.content.Contents;
import org.vastshelf.core.content.Extent;
import org.vastshelf.core.content.StreamId;
import org.vastshelf.core.estate.SavingRule;
import org.vastshelf.core.saving.UnitKind;
import org.vastshelf.core.saving.UnitRun;
import org.vastshelf.core.saving.UnitUses;
import org.vastshelf.core.saving.UnitUses.Span;
import org.vastshelf.core.saving.Units;

/** Counts who uses the common units of volumes, and what they take, in the transaction of whoever begins or ends to. */
@Service
public class CommonUnits {

    private final CommonStore store;
    private final MannerStore manners;
    private final PackedShares shares;

    CommonUnits(CommonStore store, MannerStore manners, PackedShares shares) {
        this.store = store;
        this.manners = manners;
        this.shares = shares;
    }

    /**
     * A version of a file that begins to use common units, or ends to.
     *
     * @param manner by which it was taken in
     * @param more 1 or −1
     * @param whole what it takes with blocks of its own
     */
    public record Use(int manner, Contents contents, int more, long whole) {}

    /** The number of the manner in which a rule takes files in. */
    public int manner(SavingRule rule) {
        return manners.number(new MannerStore.Manner(
                rule.cut(), rule.unitBytes(), rule.aim().once(), rule.aim().packs()));
    }

    /**
     * Counts uses.
     *
     * @return bytes that units take more, or less
     */
    public long count(String volume, List<Use> uses) {
        store.lock(volume);
        Counting counting = counting(volume, uses);
        uses.forEach(counting::add);
        counting.write();
        store.add(
                volume,
                counting.bytes,
                uses.stream().mapToLong(use -> use.more * use.whole).sum());
        return counting.bytes;
    }

    private Counting counting(String volume, List<Use> uses) {
        Map<Use, List<UnitRun>> runs = new HashMap<>();
        Set<StreamId> streams = new HashSet<>();
        for (Use use : uses) {
            List<UnitRun> all = runs(use.manner, use.contents);
            runs.put(use, all);
            all.forEach(run -> streams.add(run.kind().stream()));
        }
        return new Counting(volume, runs, store.spans(volume, streams));
    }

    /** The units of which contents are made that were taken in in a manner. */
    public List<UnitRun> runs(int number, Contents contents) {
        MannerStore.Manner manner = manners.of(number);
        Map<StreamId, Integer> left = new HashMap<>();
        if (manner.packs()) {
            for (Extent extent : contents.extents()) {
                left.computeIfAbsent(extent.stream(), stream -> shares.of(extent));
            }
        }
        return new Units(
                        manner.cut(),
                        manner.unitBytes(),
                        manner.once(),
                        stream -> left.getOrDefault(stream, Units.WHOLE))
                .of(contents);
    }

    /** Uses while they are counted. */
    private final class Counting {
        private final String volume;
        private final Map<Use, List<UnitRun>> runs;
        private final Map<UnitKind, TreeMap<Long, Span>> before;
        private final Map<UnitKind, TreeMap<Long, Span>> after = new HashMap<>();
        private long bytes;

        Counting(String volume, Map<Use, List<UnitRun>> runs, Map<UnitKind, TreeMap<Long, Span>> before) {
            this.volume = volume;
            this.runs = runs;
            this.before = before;
        }

        void add(Use use) {
            for (UnitRun run : runs.get(use)) {
                TreeMap<Long, Span> spans = after.computeIfAbsent(
                        run.kind(), kind -> new TreeMap<>(before.getOrDefault(kind, new TreeMap<>())));
                bytes += apply(spans, run, use.more);
            }
        }

        void write() {
            List<Row> gone = new ArrayList<>();
            List<Row> come = new ArrayList<>();
            after.forEach((kind, spans) -> {
                TreeMap<Long, Span> was = before.getOrDefault(kind, new TreeMap<>());
                was.values().stream()
                        .filter(span -> !spans.containsKey(span.first()))
                        .forEach(span -> gone.add(new Row(kind, span)));
                spans.values().stream()
                        .filter(span -> !span.equals(was.get(span.first())))
                        .forEach(span -> come.add(new Row(kind, span)));
            });
            store.remove(volume, gone);
            store.write(volume, come);
        }
    }

    /** Counts a run among the spans of its kind; says how many bytes more are kept. */
    static long apply(TreeMap<Long, Span> spans, UnitRun run, int more) {
        Long before = spans.floorKey(run.first());
        long from = before != null && spans.get(before).past() > run.first() ? before : run.first();
        List<Span> meeting =
                List.copyOf(spans.subMap(from, true, run.past(), false).values());
        UnitUses.Changed changed = UnitUses.change(meeting, run, more);
        meeting.forEach(span -> spans.remove(span.first()));
        changed.spans().forEach(span -> spans.put(span.first(), span));
        return changed.bytes();
    }
}
