package org.vastshelf.app.plank;

import java.time.LocalDate;
import java.time.temporal.ChronoUnit;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Predicate;
import java.util.stream.Stream;
import org.vastshelf.app.foresee.Forecasts.Space;
import org.vastshelf.app.kit.Figure;
import org.vastshelf.app.kit.Figures;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.Pool;
import org.vastshelf.core.estate.Usage;
import org.vastshelf.core.ledger.Ledgers;
import org.vastshelf.core.unit.Bytes;
import org.vastshelf.core.unit.Counted;

/**
 * The strip that shows every pool to one scale: each pool a plank, each volume a block standing on it.
 *
 * <p>The scale is chosen so that all pools fit {@value #WIDTH} px; a pool too short for its name gets a wider slot,
 * never a longer plank. Where that does not fit, the strip scrolls. Beyond {@value #MANY} volumes, those of a pool that
 * can't be told apart are drawn as one.
 */
public record Plank(List<PoolPicture> pools) {

    private static final int WIDTH = 1_248;
    private static final int GAP = 18;
    private static final int LEAST_SLOT = 130;
    private static final int MANY = 100;
    static final int BLOCK_HEIGHT = 42;
    private static final int FLOOR = 57;
    private static final int HEIGHT = 96;
    private static final int NAME_LINE = 78;
    private static final int FLAG_LINE = 91;
    private static final double BOLD_CHARACTER = 6.8;
    private static final int SIZE_CHARACTERS = 11;
    private static final int DATE_CHARACTERS = 20;
    private static final double MONO_CHARACTER = 7.0;
    private static final int SOON_DAYS = 60;
    private static final int WATCH_DAYS = 180;

    /**
     * One pool: slot and plank widths in px, and where its end lies.
     *
     * @param depth how far what has left reaches below any of the planks, in px
     */
    public record PoolPicture(
            String name,
            int slot,
            int length,
            int end,
            Bytes usable,
            Bytes beyond,
            List<Block> blocks,
            Optional<Full> full,
            boolean forecast,
            String urgency,
            boolean lost,
            int depth) {

        public String view() {
            return "0 0 " + slot + " " + height();
        }

        public int height() {
            return HEIGHT + depth;
        }

        /** Where its name stands. */
        public int nameLine() {
            return NAME_LINE + depth;
        }

        /** Where it stands when it is full. */
        public int flagLine() {
            return FLAG_LINE + depth;
        }

        public String said(Figures fmt) {
            return "Pool " + name + ", " + fmt.size(usable) + " usable" + (lost ? ", lost" : "");
        }

        public Figure figure(Figures fmt) {
            return fmt.figure(fmt.key("pool", name, "usable"), usable);
        }

        /** What flies from it: when it is full first, or that it is lost. */
        public String flag(Figures fmt) {
            if (lost) {
                return "✕ lost, not served";
            }
            return full.map(first ->
                            sign() + (first.volume.isEmpty() ? "" : first.volume + " ") + "full " + fmt.day(first.day))
                    .orElse(forecast ? "not within ten years" : "not forecast yet");
        }

        private String sign() {
            return switch (urgency) {
                case "act" -> "■ ";
                case "watch" -> "▲ ";
                default -> "⚑ ";
            };
        }

        public String flagCss() {
            return lost ? "small figure act" : full.isPresent() ? "small figure " + urgency : "small quiet";
        }
    }

    /** What of a pool is full first, and when: one of its volumes, or the pool itself where that has no name here. */
    public record Full(String volume, LocalDate day) {}

    /**
     * One volume, or several that are too narrow: place and width in px, heights of fill, of snapshots at the foot,
     * of what is saved above both, and of what has left for a cold store below the plank.
     *
     * @param name of the volume; of the pool where there are several
     * @param volumes how many it stands for
     */
    public record Block(
            String name,
            int volumes,
            int x,
            int width,
            int live,
            int snapshots,
            int saved,
            int away,
            int beyondFrom,
            String label,
            Bytes used,
            Bytes size,
            Bytes left) {

        public String said(Figures fmt) {
            return title() + ": " + fmt.size(used) + " of " + fmt.size(size) + " used"
                    + (left.isZero() ? "" : "; " + fmt.size(left) + " in cold stores");
        }

        public int liveTop() {
            return FLOOR - live - snapshots;
        }

        public int savedTop() {
            return liveTop() - saved;
        }

        public int snapshotsTop() {
            return FLOOR - snapshots;
        }

        /** How much of it lies beyond the end of its pool, in px. */
        public int beyond() {
            return Math.max(0, x + width - beyondFrom);
        }

        /** What it stands for, in words. */
        public String title() {
            return volumes == 1 ? "Volume " + name : Counted.of(volumes, "volume") + " of pool " + name;
        }
    }

    /**
     * Draws the pools that are in scope.
     *
     * @param left bytes that have left for cold stores, by volume
     */
    public static Plank draw(
            Estate estate,
            Usage usage,
            Map<String, Bytes> left,
            Map<String, Space> volumes,
            Map<String, Space> pools,
            LocalDate today,
            Predicate<Pool> inScope) {
        List<Pool> shown = estate.pools().values().stream().filter(inScope).toList();
        double scale = scale(estate, shown);
        boolean many = shown.stream()
                        .mapToLong(p -> estate.volumesOn(p.name()).count())
                        .sum()
                > MANY;
        BlockDrawing drawing = new BlockDrawing(estate, usage, left, scale, many);
        Map<String, List<Block>> blocks = new HashMap<>();
        shown.forEach(pool -> blocks.put(pool.name(), drawing.blocks(pool)));
        int depth = blocks.values().stream()
                .flatMap(List::stream)
                .mapToInt(Block::away)
                .max()
                .orElse(0);
        return new Plank(shown.stream()
                .map(pool -> picture(
                        estate,
                        usage,
                        pool,
                        drawing.end(pool),
                        blocks.get(pool.name()),
                        soonest(estate, pool, volumes, pools, today),
                        pools.containsKey(pool.name()),
                        today,
                        depth))
                .toList());
    }

    private static long extent(Estate estate, Pool pool) {
        long promised =
                estate.volumesOn(pool.name()).mapToLong(v -> v.size().value()).sum();
        return Math.max(promised, Ledgers.usable(estate, pool).value());
    }

    /** Room for what is full first. */
    private static int flag(Optional<Full> full) {
        return full.map(f -> (int) ((f.volume.length() + DATE_CHARACTERS) * MONO_CHARACTER))
                .orElse(0);
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

    /** When the pool is full; or the first of its volumes, where that is soon and before it. */
    private static Optional<Full> soonest(
            Estate estate, Pool pool, Map<String, Space> volumes, Map<String, Space> pools, LocalDate today) {
        Stream<Full> whole = Stream.ofNullable(pools.get(pool.name())).flatMap(s -> full("", s));
        Stream<Full> each = estate.volumesOn(pool.name())
                .flatMap(v -> Stream.ofNullable(volumes.get(v.name())))
                .flatMap(s -> full(s.name(), s))
                .filter(f -> f.day.isBefore(today.plusDays(WATCH_DAYS)));
        return Stream.concat(whole, each).min(Comparator.comparing(Full::day).thenComparing(Full::volume));
    }

    private static Stream<Full> full(String volume, Space space) {
        return space.forecast().likely().map(day -> new Full(volume, day)).stream();
    }

    private static PoolPicture picture(
            Estate estate,
            Usage usage,
            Pool pool,
            int end,
            List<Block> blocks,
            Optional<Full> full,
            boolean forecast,
            LocalDate today,
            int depth) {
        int length = blocks.isEmpty()
                ? end
                : Math.max(end, blocks.getLast().x() + blocks.getLast().width() + 1);
        return new PoolPicture(
                pool.name(),
                Math.max(Math.max(leastSlot(pool), flag(full)), length + 4),
                length,
                end,
                Ledgers.usable(estate, pool),
                Ledgers.ofPool(estate, usage, pool).beyond(),
                blocks,
                full,
                forecast,
                urgency(full.map(Full::day), today),
                pool.isLost(),
                depth);
    }

    private static String urgency(Optional<LocalDate> full, LocalDate today) {
        long days = full.map(d -> ChronoUnit.DAYS.between(today, d)).orElse(Long.MAX_VALUE);
        return days <= SOON_DAYS ? "act" : days <= WATCH_DAYS ? "watch" : "fine";
    }
}
