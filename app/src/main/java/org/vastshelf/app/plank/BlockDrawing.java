package org.vastshelf.app.plank;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.function.Function;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.Pool;
import org.vastshelf.core.estate.Usage;
import org.vastshelf.core.estate.Volume;
import org.vastshelf.core.ledger.Ledgers;
import org.vastshelf.core.unit.Bytes;

/** Draws the blocks of volumes that stand on a plank. */
record BlockDrawing(Estate estate, Usage usage, Map<String, Bytes> left, double scale, boolean many) {

    private static final int LEAST_BLOCK = 14;
    private static final int LEAST_POOL = 10;
    private static final double CHARACTER = 6.3;

    int end(Pool pool) {
        return Math.max(
                LEAST_POOL, (int) Math.round(Ledgers.usable(estate, pool).value() * scale));
    }

    List<Plank.Block> blocks(Pool pool) {
        int end = end(pool);
        List<Plank.Block> blocks = new ArrayList<>();
        double x = 0;
        List<Volume> narrow = new ArrayList<>();
        for (Volume volume : estate.volumesOn(pool.name()).toList()) {
            double width = volume.size().value() * scale;
            if (many && width < LEAST_BLOCK) {
                narrow.add(volume);
                continue;
            }
            blocks.add(block(volume.name(), List.of(volume), x, width, end));
            x += width;
        }
        if (!narrow.isEmpty()) {
            double width = narrow.stream().mapToLong(v -> v.size().value()).sum() * scale;
            blocks.add(block(pool.name(), narrow, x, width, end));
        }
        return blocks;
    }

    private Bytes sum(List<Volume> volumes, Function<Volume, Bytes> of) {
        return Bytes.sum(volumes.stream().map(of).toList());
    }

    private Plank.Block block(String name, List<Volume> volumes, double from, double length, int end) {
        int x = (int) Math.round(from);
        int width = (int) Math.max(3, Math.round(length) - 1);
        Bytes live = sum(
                volumes,
                v -> usage.of(v.name())
                        .ownLive()
                        .plus(usage.of(v.name()).common().kept()));
        Bytes snapshots = sum(volumes, v -> usage.of(v.name()).ownSnapshots());
        Bytes saved = sum(volumes, v -> usage.of(v.name()).common().saved());
        Bytes gone = sum(volumes, v -> left.getOrDefault(v.name(), Bytes.ZERO));
        Bytes size = sum(volumes, Volume::size);
        int filled = height(live.plus(snapshots), size);
        String label = volumes.size() == 1 ? name : "× " + volumes.size();
        // A cut name would read as another; the block's title and text equivalent carry it in full.
        boolean fits = label.length() <= (int) (width / CHARACTER);
        return new Plank.Block(
                name,
                volumes.size(),
                x,
                width,
                height(live, size),
                atLeastSeen(snapshots, size),
                Math.min(Plank.BLOCK_HEIGHT - filled, height(saved, size)),
                atLeastSeen(gone, size),
                Math.max(x, end),
                fits ? label : "",
                live.plus(snapshots),
                size,
                gone);
    }

    private static int atLeastSeen(Bytes part, Bytes whole) {
        return part.isZero() ? 0 : Math.max(2, height(part, whole));
    }

    private static int height(Bytes part, Bytes whole) {
        return (int) Math.min(Plank.BLOCK_HEIGHT, Math.round(part.shareOf(whole) * Plank.BLOCK_HEIGHT));
    }
}
