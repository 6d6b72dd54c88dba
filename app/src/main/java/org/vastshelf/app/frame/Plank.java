package org.vastshelf.app.frame;

import java.time.LocalDate;
import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Predicate;
import org.vastshelf.app.foresee.Forecasts.Space;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.Pool;
import org.vastshelf.core.estate.Usage;
import org.vastshelf.core.estate.Volume;
import org.vastshelf.core.ledger.Ledgers;
import org.vastshelf.core.unit.Bytes;

/**
 * The strip that shows every pool to one scale: each pool a plank, each volume a block standing on it.
 *
 * <p>The scale is chosen so that all pools fit {@value #WIDTH} px; a pool too short for its name gets a wider slot,
 * never a longer plank. Where that does not fit, the strip scrolls.
 */
public record Plank(List<PoolPicture> pools) {

    private static final int WIDTH = 1_248;
    private static final int GAP = 18;
    private static final int LEAST_SLOT = 130;
    private static final int LEAST_POOL = 10;
    static final int BLOCK_HEIGHT = 42;
    private static final double CHARACTER = 6.3;
    private static final double BOLD_CHARACTER = 6.8;
    private static final int SIZE_CHARACTERS = 11;
    private static final int SOON_DAYS = 60;
    private static final int WATCH_DAYS = 180;

    /** One pool: slot and plank widths in px, and where its end lies. */
    public record PoolPicture(
            String name,
            int slot,
            int length,
            int end,
            Bytes usable,
            Bytes beyond,
            List<Block> blocks,
            Optional<LocalDate> full,
            String urgency,
            boolean lost) {}

    /** One volume: place and width in px, heights of its fill and of the snapshots at its foot. */
    public record Block(
            String name,
            int x,
            int width,
            int live,
            int snapshots,
            int beyondFrom,
            String label,
            Bytes used,
            Bytes size) {}

    /** Draws the pools that are in scope. */
    public static Plank draw(
            Estate estate,
            Usage usage,
            Map<String, Space> volumes,
            Map<String, Space> pools,
            LocalDate today,
            Predicate<Pool> inScope) {
        List<Pool> shown = estate.pools().values().stream().filter(inScope).toList();
        double scale = scale(estate, shown);
        return new Plank(shown.stream()
                .map(pool -> picture(estate, usage, pool, scale, soonest(estate, pool, volumes, pools), today))
                .toList());
    }

    private static long extent(Estate estate, Pool pool) {
        long promised =
                estate.volumesOn(pool.name()).mapToLong(v -> v.size().value()).sum();
        return Math.max(promised, Ledgers.usable(estate, pool).value());
    }

    /** Room for the name and the size beside it. */
    private static int leastSlot(Pool pool) {
        return Math.max(LEAST_SLOT, (int) ((pool.name().length() + SIZE_CHARACTERS) * BOLD_CHARACTER));
    }

    /** Pixels for each byte, largest at which all slots fit; found by halving. */
    private static double scale(Estate estate, List<Pool> pools) {
        List<Long> extents = pools.stream().map(p -> extent(estate, p)).toList();
        double high = 0;
        for (long extent : extents) {
            high = Math.max(high, (double) WIDTH / extent);
        }
        double low = 0;
        for (int i = 0; i < 40; i++) {
            double middle = (low + high) / 2;
            double sum = 0;
            for (int pool = 0; pool < pools.size(); pool++) {
                sum += GAP + Math.max(leastSlot(pools.get(pool)), extents.get(pool) * middle);
            }
            if (sum <= WIDTH) {
                low = middle;
            } else {
                high = middle;
            }
        }
        double longest = extents.stream().mapToLong(e -> e).max().orElse(1);
        return Math.max(low, 160 / longest);
    }

    private static Optional<LocalDate> soonest(
            Estate estate, Pool pool, Map<String, Space> volumes, Map<String, Space> pools) {
        List<LocalDate> days = new ArrayList<>();
        Optional.ofNullable(pools.get(pool.name()))
                .flatMap(s -> s.forecast().likely())
                .ifPresent(days::add);
        estate.volumesOn(pool.name())
                .forEach(v -> Optional.ofNullable(volumes.get(v.name()))
                        .flatMap(s -> s.forecast().likely())
                        .ifPresent(days::add));
        return days.stream().min(LocalDate::compareTo);
    }

    private static PoolPicture picture(
            Estate estate, Usage usage, Pool pool, double scale, Optional<LocalDate> full, LocalDate today) {
        Bytes usable = Ledgers.usable(estate, pool);
        int end = Math.max(LEAST_POOL, (int) Math.round(usable.value() * scale));
        List<Block> blocks = new ArrayList<>();
        double x = 0;
        for (Volume volume : estate.volumesOn(pool.name()).toList()) {
            double width = volume.size().value() * scale;
            blocks.add(block(usage, volume, (int) Math.round(x), (int) Math.max(3, Math.round(width) - 1), end));
            x += width;
        }
        int length = (int) Math.max(end, Math.ceil(x));
        return new PoolPicture(
                pool.name(),
                Math.max(leastSlot(pool), length + 4),
                length,
                end,
                usable,
                Ledgers.ofPool(estate, usage, pool).beyond(),
                blocks,
                full,
                urgency(full, today),
                pool.isLost());
    }

    private static Block block(Usage usage, Volume volume, int x, int width, int end) {
        Usage.Held held = usage.of(volume.name());
        int characters = (int) (width / CHARACTER);
        String name = volume.name();
        // A cut name would read as another; the block's title and text equivalent carry it in full.
        String label = name.length() <= characters ? name : "";
        return new Block(
                name,
                x,
                width,
                height(held.live(), volume.size()),
                held.snapshots().isZero() ? 0 : Math.max(2, height(held.snapshots(), volume.size())),
                Math.max(x, end),
                label,
                held.used(),
                volume.size());
    }

    private static int height(Bytes part, Bytes whole) {
        return (int) Math.min(BLOCK_HEIGHT, Math.round(part.shareOf(whole) * BLOCK_HEIGHT));
    }

    private static String urgency(Optional<LocalDate> full, LocalDate today) {
        long days = full.map(d -> ChronoUnit.DAYS.between(today, d)).orElse(Long.MAX_VALUE);
        return days <= SOON_DAYS ? "act" : days <= WATCH_DAYS ? "watch" : "fine";
    }
}
