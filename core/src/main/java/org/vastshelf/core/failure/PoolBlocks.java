package org.vastshelf.core.failure;

import java.util.ArrayList;
import java.util.EnumMap;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.SplittableRandom;
import org.vastshelf.core.estate.Drive;
import org.vastshelf.core.estate.DriveGroup;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.Pool;
import org.vastshelf.core.estate.Usage;
import org.vastshelf.core.layout.LayoutComparison;
import org.vastshelf.core.layout.LayoutQuestion;
import org.vastshelf.core.layout.Striping;
import org.vastshelf.core.layout.Striping.Spot;
import org.vastshelf.core.ledger.Ledgers;
import org.vastshelf.core.unit.Bytes;

/** What the blocks of a pool's drives hold, and whether a damaged one can be healed. */
public final class PoolBlocks {

    /** Length of a block, in bytes. */
    public static final int BLOCK = 4_096;

    private static final int TRIES = 2_000;

    private final Estate estate;
    private final Pool pool;
    private final List<Striping> layouts = new ArrayList<>();
    private final List<Long> begins = new ArrayList<>();
    private final long inUse;

    /**
     * As the pool is now. The groups of each part follow each other in their order; a read cache holds only copies and
     * has no addresses.
     */
    public PoolBlocks(Estate estate, Usage usage, Pool pool) {
        this.estate = estate;
        this.pool = pool;
        Map<DriveGroup.Part, Long> ends = new EnumMap<>(DriveGroup.Part.class);
        for (DriveGroup group : pool.groups()) {
            LayoutQuestion question = Ledgers.questionOf(estate, pool, group);
            List<Bytes> members =
                    question.drives().stream().map(question::usable).toList();
            layouts.add(new Striping(members, LayoutComparison.shape(group.layout(), question)));
            begins.add(ends.getOrDefault(group.part(), 0L));
            ends.merge(
                    group.part(),
                    LayoutComparison.space(group.layout(), question).data().value(),
                    Long::sum);
        }
        this.inUse = Ledgers.usable(estate, pool)
                .minus(Ledgers.ofPool(estate, usage, pool).free())
                .value();
    }

    /** Offsets on a member that is being rebuilt which can't be, since other blocks of their rows are damaged too. */
    static List<Long> lostIn(Estate estate, String poolName, String target) {
        Pool pool = estate.pools().get(poolName);
        int index = pool == null ? -1 : pool.groupOf(target);
        return index < 0 ? List.of() : new PoolBlocks(estate, Usage.NONE, pool).lostIn(index, target);
    }

    private List<Long> lostIn(int index, String target) {
        DriveGroup group = pool.groups().get(index);
        Set<String> gone = PoolState.gone(estate, group);
        int place = group.members().indexOf(target);
        List<Long> lost = new ArrayList<>();
        for (int m = 0; m < group.members().size(); m++) {
            String key = group.members().get(m);
            for (long offset : gone.contains(key)
                    ? List.<Long>of()
                    : estate.drives().get(key).damaged()) {
                Striping.Row row = layouts.get(index).rowAt(m, offset);
                if (row.members().contains(place) && unreadable(group, gone, row, offset) > row.spare()) {
                    lost.add(offset);
                }
            }
        }
        return lost.stream().distinct().toList();
    }

    private boolean isCopy(DriveGroup group) {
        return group.isFast() && pool.fastAsCache();
    }

    /**
     * A damaged block that cannot be healed.
     *
     * @param part of the pool in which it lies
     * @param address of its first byte in the data of that part; −1 where it holds protection or a copy only
     */
    public record Unhealed(String drive, long offset, DriveGroup.Part part, long address) {}

    /**
     * What a scrub comes to.
     *
     * @param healed by drive, the offsets of blocks that were made whole
     */
    public record Found(Map<String, List<Long>> healed, List<Unhealed> unhealed) {}

    /** Reads every block in use of every member. */
    public Found scrubbed() {
        Map<String, List<Long>> healed = new HashMap<>();
        List<Unhealed> unhealed = new ArrayList<>();
        for (int g = 0; g < pool.groups().size(); g++) {
            DriveGroup group = pool.groups().get(g);
            Set<String> gone = PoolState.gone(estate, group);
            for (int m = 0; m < group.members().size(); m++) {
                Drive drive = estate.drives().get(group.members().get(m));
                for (long offset : gone.contains(drive.key()) ? List.<Long>of() : drive.damaged()) {
                    if (!isInUse(g, m, offset)) {
                        continue;
                    }
                    if (unreadable(group, gone, layouts.get(g).rowAt(m, offset), offset)
                            <= layouts.get(g).rowAt(m, offset).spare()) {
                        healed.computeIfAbsent(drive.key(), k -> new ArrayList<>())
                                .add(offset);
                    } else {
                        unhealed.add(new Unhealed(drive.key(), offset, group.part(), address(g, m, offset)));
                    }
                }
            }
        }
        return new Found(healed, unhealed);
    }

    /** Members of a row that cannot be read at this offset: gone, or damaged just there. */
    private long unreadable(DriveGroup group, Set<String> gone, Striping.Row row, long offset) {
        return row.members().stream()
                .map(i -> group.members().get(i))
                .filter(key ->
                        gone.contains(key) || estate.drives().get(key).damaged().contains(offset))
                .count();
    }

    private long address(int group, int member, long offset) {
        return layouts.get(group).at(member, offset) instanceof Spot.Data data
                        && !isCopy(pool.groups().get(group))
                ? begins.get(group) + data.address()
                : -1;
    }

    private boolean isInUse(int group, int member, long offset) {
        // What of a fast part is in use only the file server knows; all of it is read.
        if (pool.groups().get(group).isFast()) {
            return !(layouts.get(group).at(member, offset) instanceof Spot.Nothing);
        }
        return switch (layouts.get(group).at(member, offset)) {
            case Spot.Data data -> begins.get(group) + data.address() < inUse;
            case Spot.Protection protection -> begins.get(group) + protection.rowBegins() < inUse;
            case Spot.Nothing nothing -> false;
        };
    }

    /** So many blocks of a drive that hold something, drawn by lot; fewer where there are hardly any. */
    List<Long> drawn(Drive drive, int count) {
        int group = pool.groupOf(drive.key());
        if (group < 0) {
            return List.of();
        }
        int member = pool.groups().get(group).members().indexOf(drive.key());
        long blocks = pool.groups().get(group).countedOf(drive).value() / BLOCK;
        SplittableRandom random = new SplittableRandom(
                drive.key().hashCode() * 31L + drive.damaged().size());
        List<Long> drawn = new ArrayList<>();
        for (int i = 0; i < TRIES + count && drawn.size() < count; i++) {
            long offset = random.nextLong(blocks) * BLOCK;
            if (isInUse(group, member, offset) && !drive.damaged().contains(offset) && !drawn.contains(offset)) {
                drawn.add(offset);
            }
        }
        return drawn;
    }
}
